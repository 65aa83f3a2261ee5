<script setup lang="ts">
import { computed, ref } from 'vue'
import { Listbox, ListboxButton, ListboxOption, ListboxOptions } from '@headlessui/vue'
import { Check, ChevronDown, Copy, Pencil, RotateCcw, Trash2 } from 'lucide-vue-next'
import { newId } from '#core/new-id'
import { freeName } from '#core/model/free-name'
import { short } from '#core/geometry/path'
import { NIBS } from '#core/weight/nibs'
import { useDrawingStore } from '~/stores/drawing'
import { useStudioStore } from '~/stores/studio'
import RenameField from '~/components/ui/RenameField.vue'

/** Longest name of a nib. */
const LONGEST = 40

/** The nib in hand, and the set of nibs: keep what was set, go back to what was kept, duplicate, rename, restore, remove. */
const studio = useStudioStore()
const store = useDrawingStore()
const naming = ref(false)

const known = computed(() => NIBS.find((n) => n.id === studio.preferences.nib))
/** A nib that ships is kept other than it came. */
const isOther = computed(() => !!known.value && JSON.stringify(known.value) !== JSON.stringify(studio.kept))

function duplicate(): void {
  const name = freeName(new Set(studio.preferences.nibs.map((n) => n.name)), `${studio.nib.name} copy`, LONGEST)
  const copy = { ...studio.nib, id: newId(), name }
  studio.preferences.nibs.splice(studio.preferences.nibs.indexOf(studio.kept) + 1, 0, copy)
  studio.takeNib(copy.id)
}

/** Changes the nib, and tells how to take that back. */
function withUndo(told: string, change: () => void): void {
  const { preferences, kept } = studio
  const before = { ...kept }
  const { size, variation, point } = preferences
  change()
  store.tell(told, [
    { title: 'Undo', run: () => (Object.assign(kept, before), Object.assign(preferences, { size, variation, point })) },
  ])
}

const keep = (): void => withUndo(`"${studio.kept.name}" is kept as it is set now.`, studio.keepNib)
const back = (): void =>
  withUndo(`"${studio.kept.name}" is as it was kept.`, () => studio.takeNib(studio.preferences.nib))
const restore = (): void =>
  withUndo(`"${studio.kept.name}" is as it came.`, () => {
    Object.assign(studio.kept, known.value)
    studio.takeNib(studio.preferences.nib)
  })

/** Only nibs that a person made can go. */
function remove(): void {
  const gone = studio.preferences.nib
  studio.preferences.nibs = studio.preferences.nibs.filter((n) => n.id !== gone)
  studio.takeNib(studio.preferences.nibs[0]!.id)
}
</script>

<template>
  <div class="flex items-center gap-1">
    <span class="hidden w-[102px] shrink-0 xl:inline">Nib</span>
    <RenameField
      v-if="naming"
      class="min-w-0 flex-1"
      :value="studio.nib.name"
      label="Name of the nib"
      :longest="LONGEST"
      @keep="studio.kept.name = $event"
      @close="naming = false"
    />
    <Listbox
      v-else
      :model-value="studio.preferences.nib"
      as="div"
      class="relative min-w-0 flex-1"
      @update:model-value="studio.takeNib"
    >
      <ListboxButton class="field flex w-full items-center justify-between gap-2 !py-0.5" aria-label="Nib">
        <span class="truncate" :title="studio.isTuned ? `${studio.kept.name}, set otherwise by this hand` : undefined"
          >{{ studio.kept.name }}<template v-if="studio.isTuned">, changed</template></span
        >
        <span class="number quiet flex items-center gap-1"
          >{{ short(studio.nib.size, 2) }} <ChevronDown :size="13"
        /></span>
      </ListboxButton>
      <ListboxOptions
        class="absolute bottom-[30px] z-30 max-h-[300px] w-full overflow-auto rounded-xl border border-hair bg-raise p-1 shadow-xl outline-none"
      >
        <ListboxOption
          v-for="n in studio.preferences.nibs"
          :key="n.id"
          v-slot="{ active, selected }"
          :value="n.id"
          as="template"
        >
          <li
            class="flex cursor-pointer items-center gap-2.5 rounded-lg px-2 py-1"
            :class="[active ? 'bg-blush' : '', selected ? 'font-[650]' : '']"
          >
            <span class="grid h-5 w-5 place-items-center" aria-hidden="true"
              ><span
                class="rounded-full bg-ink"
                :style="{
                  width: `${Math.min(18, n.size)}px`,
                  height: `${Math.min(18, n.size) * n.roundness}px`,
                  transform: `rotate(${n.angle}deg)`,
                }"
            /></span>
            <span class="min-w-0 flex-1 truncate">{{ n.name }}</span>
            <span class="number quiet">{{ short(n.size, 2) }}</span>
          </li>
        </ListboxOption>
      </ListboxOptions>
    </Listbox>
    <button class="quiet rounded p-1" title="Duplicate this nib" aria-label="Duplicate this nib" @click="duplicate">
      <Copy :size="14" />
    </button>
    <button class="quiet rounded p-1" title="Rename this nib" aria-label="Rename this nib" @click="naming = true">
      <Pencil :size="14" />
    </button>
    <template v-if="studio.isTuned">
      <button class="rounded p-1 text-plum" title="Keep in this nib" aria-label="Keep in this nib" @click="keep">
        <Check :size="14" />
      </button>
      <button class="quiet rounded p-1" title="Back to what was kept" aria-label="Back to what was kept" @click="back">
        <RotateCcw :size="14" />
      </button>
    </template>
    <button
      v-else-if="known"
      class="quiet rounded p-1 disabled:opacity-40"
      title="Put this nib back to its first values"
      aria-label="Restore this nib"
      :disabled="!isOther"
      @click="restore"
    >
      <RotateCcw :size="14" />
    </button>
    <button v-else class="quiet rounded p-1" title="Remove this nib" aria-label="Remove this nib" @click="remove">
      <Trash2 :size="14" />
    </button>
  </div>
</template>
