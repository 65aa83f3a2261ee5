<script setup lang="ts">
import { Plus } from 'lucide-vue-next'
import { addInk } from '#core/editing/edit-inks'
import { useDrawingStore } from '~/stores/drawing'
import { useInkInHand } from '~/stores/ink-in-hand'
import { useInkWarnings } from '~/workspace/use-ink-warnings'
import InkMenu from './InkMenu.vue'
import { useStarterInks } from '~/workspace/use-starter-inks'
import PaletteMenu from './PaletteMenu.vue'
import StarterInks from './StarterInks.vue'

/** The inks of the drawing: a click takes one in hand, its dots open what can be done with it. */
const store = useDrawingStore()
const hand = useInkInHand()
const weak = useInkWarnings()
const starter = useStarterInks()

/** A new ink is near the one in hand, so that it is seen at once and easily told from others after a touch of the picker. */
const FRESH = ['#e8c96a', '#8fae6b', '#d98f6a', '#7fa3b8', '#b88aa6', '#c9b79a', '#f2ead2']

function add(): void {
  const colour = FRESH.find((c) => !store.drawing!.inks.some((i) => i.colour.toLowerCase() === c)) ?? '#808080'
  let id = ''
  store.edit('Add an ink', (draft) => void (id = addInk(draft, { name: 'New ink', colour })))
  if (id) hand.take(id)
}
</script>

<template>
  <div class="flex min-h-0 flex-col gap-1.5">
    <div class="flex h-6 items-center gap-3">
      <b class="font-[650]">Inks</b>
      <span
        v-if="weak.short.value"
        class="truncate text-[12px] text-amber-deep"
        role="status"
        data-testid="weak-inks"
        :title="weak.inWords.value"
        >{{ weak.short.value }}</span
      >
      <PaletteMenu class="ml-auto" />
      <button class="button flex items-center gap-1.5 !py-0.5" data-testid="add-ink" @click="add">
        <Plus :size="14" /> Add
      </button>
    </div>
    <div v-if="starter.offered.value" class="flex items-center gap-3">
      <StarterInks />
      <span class="quiet min-w-0 text-[12px] leading-4">Only the lines' ink is here yet.</span>
    </div>
    <div
      class="grid min-h-0 flex-1 auto-rows-min grid-cols-3 gap-1 overflow-y-auto pr-1"
      role="radiogroup"
      aria-label="Ink in hand"
      data-testid="inks"
    >
      <div
        v-for="ink in store.drawing!.inks"
        :key="ink.id"
        class="flex h-8 items-center rounded-[8px] border bg-raise"
        :class="hand.id === ink.id ? 'border-plum ring-1 ring-plum' : 'border-hair'"
      >
        <button
          class="flex h-full min-w-0 flex-1 items-center gap-2 pl-1.5 text-left"
          role="radio"
          :aria-checked="hand.id === ink.id"
          :aria-label="ink.name"
          :title="`${ink.name}, ${ink.colour}: take in hand`"
          @click="hand.take(ink.id)"
        >
          <span
            class="h-5 w-5 shrink-0 rounded-[5px] border border-hair"
            :style="{ background: ink.colour }"
            aria-hidden="true"
          />
          <span class="truncate text-[12.5px]" :class="hand.id === ink.id && 'font-[650]'">{{ ink.name }}</span>
        </button>
        <InkMenu :ink="ink" />
      </div>
    </div>
  </div>
</template>
