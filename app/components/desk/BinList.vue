<script setup lang="ts">
import { Disclosure, DisclosureButton, DisclosurePanel } from '@headlessui/vue'
import { ref } from 'vue'
import type { DrawingCard } from '#shared/desk'
import { DAYS_IN_BIN } from '#shared/desk'
import { useDeskStore } from '~/stores/desk'

/** What was taken off the Desk, and how long it stays. */
const desk = useDeskStore()
/** What is asked about once more before it is thrown away: a drawing by its id, or all. */
const asked = ref<string | null>(null)
const DAY = 24 * 60 * 60 * 1000

const daysLeft = (card: DrawingCard): number =>
  Math.max(0, Math.ceil((Date.parse(card.deletedAt!) - Date.now()) / DAY + DAYS_IN_BIN))

async function erase(ids: readonly string[]): Promise<void> {
  asked.value = null
  await desk.erase(ids)
}
</script>

<template>
  <Disclosure v-if="desk.bin.length" as="section" class="mt-10" data-testid="bin">
    <DisclosureButton class="text-mute-deep underline decoration-dotted hover:text-ink"
      >Bin ({{ desk.bin.length }})</DisclosureButton
    >
    <DisclosurePanel class="mt-3 max-w-[640px]">
      <p class="mb-2 flex items-center gap-3 text-mute-deep">
        <span class="flex-1"
          >A drawing lies here for <span class="number">{{ DAYS_IN_BIN }}</span> days; then it is thrown away with its
          history.</span
        >
        <button v-if="asked !== 'all'" class="button" @click="asked = 'all'">Empty the bin</button>
        <template v-else>
          <button class="button !text-brick" @click="erase(desk.bin.map((c) => c.id))">
            Throw away all {{ desk.bin.length }}, for good
          </button>
          <button class="button" @click="asked = null">Keep</button>
        </template>
      </p>
      <ul class="divide-y divide-hair rounded-xl border border-hair bg-raise">
        <li v-for="card in desk.bin" :key="card.id" class="flex items-center gap-3 px-4 py-2">
          <span class="min-w-0 flex-1 truncate">{{ card.name }}</span>
          <span class="quiet"
            ><span class="number">{{ card.lineCount }}</span> {{ card.lineCount === 1 ? 'line' : 'lines' }} ·
            <span class="number">{{ daysLeft(card) }}</span> days left</span
          >
          <template v-if="asked === card.id">
            <button class="font-semibold text-brick" @click="erase([card.id])">For good</button>
            <button class="quiet hover:text-ink" @click="asked = null">Keep</button>
          </template>
          <template v-else>
            <button
              class="font-semibold text-plum"
              :aria-label="`Put ${card.name} back`"
              @click="desk.putBack([card.id])"
            >
              Put back
            </button>
            <button class="quiet hover:text-ink" :aria-label="`Throw ${card.name} away`" @click="asked = card.id">
              Throw away
            </button>
          </template>
        </li>
      </ul>
    </DisclosurePanel>
  </Disclosure>
</template>
