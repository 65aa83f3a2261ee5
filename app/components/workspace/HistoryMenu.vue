<script setup lang="ts">
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/vue'
import { computed } from 'vue'
import { useDrawingStore } from '~/stores/drawing'

const MOST_SHOWN = 60

const store = useDrawingStore()

/** Steps from the newest back: negative counts bring undone steps again, positive ones take steps back. */
const steps = computed(() => {
  const undone = store.history.redo.map((e, i) => ({ id: e.id, label: e.label, walk: i - store.history.redo.length, done: false }))
  const done = [...store.history.undo].reverse().map((e, i) => ({ id: e.id, label: e.label, walk: i, done: true }))
  return [...undone, ...done].slice(0, MOST_SHOWN)
})

async function walk(count: number): Promise<void> {
  for (let i = 0; i < count; i++) await store.undo()
  for (let i = count; i < 0; i++) store.redo()
}
</script>

<template>
  <Popover class="relative">
    <PopoverButton class="button">History</PopoverButton>
    <PopoverPanel
      class="absolute right-0 z-30 mt-2 max-h-[420px] w-64 overflow-auto rounded-xl border border-hair bg-raise p-1.5 shadow-xl"
      data-testid="history"
    >
      <p v-if="!steps.length" class="quiet p-2">Every step you take is listed here and can be taken back, also next week.</p>
      <button
        v-for="step in steps"
        :key="step.id"
        class="flex w-full items-center gap-2 rounded-lg px-2 py-1.5 text-left hover:bg-panel"
        :class="step.done ? '' : 'text-mute italic'"
        @click="walk(step.walk)"
      >
        <span class="h-1.5 w-1.5 shrink-0 rounded-full" :class="step.walk === 0 && step.done ? 'bg-plum' : 'bg-hair'" />
        <span class="truncate">{{ step.label }}</span>
        <span v-if="step.walk === 0 && step.done" class="quiet ml-auto text-[12px]">now</span>
      </button>
    </PopoverPanel>
  </Popover>
</template>
