<script setup lang="ts">
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/vue'
import { computed } from 'vue'
import { useDrawingStore } from '~/stores/drawing'
import { changeShapes, changeLines } from '#core/editing/change-items'
import { findShape } from '#core/model/find'
import { useInkInHand } from '~/stores/ink-in-hand'
import { useViewStore } from '~/stores/view'
import { useChosenLines } from '~/workspace/use-chosen-lines'
import { usePlaced } from '~/workspace/use-placed'

/** The ink of the chosen lines and solids; with none chosen that of the next line. */
const store = useDrawingStore()
const view = useViewStore()
const hand = useInkInHand()
const chosen = useChosenLines()

const solids = computed(() => view.solids.flatMap((id) => findShape(store.drawing!, id)?.shape ?? []))
const many = computed(() => new Set([...chosen.lines.value, ...solids.value].map((i) => i.ink)))
const id = computed(() => (many.value.size ? (many.value.size > 1 ? '' : [...many.value][0]!) : hand.lineInk))
const ink = computed(() => store.drawing!.inks.find((i) => i.id === id.value))

function take(to: string, close: () => void): void {
  hand.takeForLines(to)
  close()
  const name = store.drawing!.inks.find((i) => i.id === to)!.name
  if (!many.value.size || (many.value.size === 1 && many.value.has(to))) return
  store.edit(`Ink: ${name}`, (draft) => {
    changeLines(draft, view.selection, (line) => void (line.ink = to))
    changeShapes(draft, view.solids, (s) => ({ ...s, ink: to }))
  })
}

const { anchor, panel, styles } = usePlaced('top-end')
</script>

<template>
  <Popover v-slot="{ close }" class="relative">
    <PopoverButton
      ref="anchor"
      class="flex h-6 items-center gap-1.5"
      :title="many.size ? 'Ink of what is chosen' : 'Ink of the next line'"
      data-testid="ink"
    >
      <span
        class="h-4 w-4 rounded-[4px] border border-hair"
        :style="{ background: ink?.colour ?? 'linear-gradient(135deg, var(--color-ink) 50%, var(--color-hair) 50%)' }"
        aria-hidden="true"
      />
      <span class="max-w-[110px] truncate">{{ ink?.name ?? 'Several inks' }}</span>
    </PopoverButton>
    <PopoverPanel ref="panel" :style="styles" class="pop grid max-h-[320px] w-[210px] gap-0.5 p-2">
      <button
        v-for="i in store.drawing!.inks"
        :key="i.id"
        class="flex h-7 items-center gap-2 rounded-[6px] px-1.5 text-left hover:bg-panel"
        :class="i.id === id && 'font-[650]'"
        @click="take(i.id, close)"
      >
        <span
          class="h-4 w-4 shrink-0 rounded-[4px] border border-hair"
          :style="{ background: i.colour }"
          aria-hidden="true"
        />
        <span class="truncate">{{ i.name }}</span>
      </button>
      <button class="quiet h-7 px-1.5 text-left" @click="view.pass = 'fill'">Add and change inks in Fill</button>
    </PopoverPanel>
  </Popover>
</template>
