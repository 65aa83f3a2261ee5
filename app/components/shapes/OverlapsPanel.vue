<script setup lang="ts">
import { nextTick, ref, watch } from 'vue'
import { useFrontsStore } from '~/stores/fronts'

/** The overlaps that are to be decided, while Front is in hand: how many, which is asked about, and what is guessed of each. */
const fronts = useFrontsStore()
const list = ref<HTMLOListElement | null>(null)

const WORDS = [
  { from: 0.8, says: 'very likely' },
  { from: 0.5, says: 'likely' },
  { from: 0, says: 'perhaps' },
]
const sureness = ({ guess, sure }: { guess: 0 | 1 | null; sure: number }): string =>
  guess === null ? 'nothing tells' : WORDS.find((w) => sure >= w.from)!.says

watch(
  () => fronts.asked,
  () => void nextTick(() => list.value?.querySelector('[aria-current]')?.scrollIntoView({ block: 'nearest' })),
)
</script>

<template>
  <section class="flex max-h-[46%] min-h-0 flex-col border-b border-hair" aria-label="Overlaps">
    <h2 class="flex items-center px-3.5 pt-1.5 pb-1 text-[12px] font-[650]">
      Overlaps
      <span
        class="number ml-auto text-[11px]"
        :class="fronts.overlaps.length ? 'text-amber-deep' : 'text-moss'"
        data-testid="overlap-count"
        >{{ fronts.overlaps.length ? `${fronts.overlaps.length} to decide` : 'nothing to decide' }}</span
      >
    </h2>
    <ol v-if="fronts.overlaps.length" ref="list" class="min-h-0 overflow-auto pb-1.5">
      <li v-for="(o, i) in fronts.overlaps" :key="o.key">
        <button
          class="flex h-6 w-full items-center gap-2 px-3.5 text-left hover:bg-raise"
          :class="fronts.asked === o && 'bg-raise font-[650]'"
          :aria-current="fronts.asked === o ? 'true' : undefined"
          @click="fronts.go(o.key)"
        >
          <span class="number w-5 text-right text-[11px] text-mute-deep">{{ i + 1 }}</span>
          <span
            class="h-2.5 w-2.5 rounded-full border"
            :class="o.guess === null ? 'border-mute' : o.guess === 0 ? 'border-plum bg-plum' : 'border-moss bg-moss'"
            aria-hidden="true"
          />
          <span class="truncate">{{ o.guess === null ? 'Either' : o.guess === 0 ? 'Plum' : 'Green' }}</span>
          <span class="quiet ml-auto text-[11px]">{{ sureness(o) }}</span>
        </button>
      </li>
    </ol>
  </section>
</template>
