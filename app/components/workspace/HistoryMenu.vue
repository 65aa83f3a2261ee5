<script setup lang="ts">
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/vue'
import { computed, ref } from 'vue'
import { X } from 'lucide-vue-next'
import { useCompareStore } from '~/stores/compare'
import { useDrawingStore } from '~/stores/drawing'

const MOST_SHOWN = 60

const store = useDrawingStore()
const compare = useCompareStore()

const name = ref('')

async function keep(): Promise<void> {
  const given = name.value.trim() || `Checkpoint ${compare.checkpoints.length + 1}`
  name.value = ''
  await compare.keep(given)
}

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
      v-slot="{ close }"
      class="absolute right-0 z-30 mt-2 max-h-[420px] w-72 overflow-auto rounded-xl border border-hair bg-raise p-1.5 shadow-xl"
      data-testid="history"
    >
      <form class="flex gap-1.5 p-1" @submit.prevent="keep">
        <input v-model="name" class="field min-w-0 flex-1" maxlength="80" placeholder="Name this moment" aria-label="Name of the checkpoint" />
        <button class="button" type="submit" title="Keep a checkpoint of the drawing as it is now">Keep</button>
      </form>
      <ul v-if="compare.checkpoints.length" class="border-b border-hair pb-1.5" aria-label="Checkpoints">
        <li v-for="c in compare.checkpoints" :key="c.id" class="flex items-center gap-1.5 rounded-lg px-2 py-1 hover:bg-panel">
          <span class="min-w-0 flex-1 truncate font-[650]">{{ c.name }}</span>
          <button class="quiet" :aria-label="`Compare ${c.name} with now`" @click="compare.between(c.id, 'now'), close()">Compare</button>
          <button class="quiet" :aria-label="`Forget ${c.name}`" title="Forget this checkpoint; the history stays" @click="compare.forget(c.id)"><X :size="14" /></button>
        </li>
      </ul>
      <button class="flex w-full rounded-lg px-2 py-1.5 text-left hover:bg-panel" title="Hold B to look for a moment, Shift+B for even weight" @click="compare.between('before', 'now'), close()">Compare with before this visit</button>
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
