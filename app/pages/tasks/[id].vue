<script setup lang="ts">
import { useIntervalFn } from '@vueuse/core'
import { computed, onMounted, ref, shallowRef } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import type { DrawingCard } from '#shared/desk'
import type { OpenTask } from '#shared/seats'
import SeatDot from '~/components/desk/SeatDot.vue'
import SeatPicker from '~/components/desk/SeatPicker.vue'
import { passOf } from '~/catalogue/passes'
import { findingsCount } from '~/network/api'
import { handCopies, openTask, removeTask } from '~/network/seat-api'
import { useSeatsStore } from '~/stores/seats'

/** All copies of a task as they are now, whose each is, and how far. */
const AGAIN = 10_000
const id = String(useRoute().params.id)
const router = useRouter()
const seats = useSeatsStore()
const task = shallowRef<OpenTask | null>(null)
const problem = ref('')
const later = ref<string[]>([])
/** Whether it is asked if the task is really to be taken down. */
const asked = ref(false)

const has = computed(() => new Set((task.value?.cards ?? []).flatMap((c) => c.seat ?? [])))
const lacking = computed(() => seats.all.filter((s) => !has.value.has(s.id)))
const cards = computed(() => (task.value?.cards ?? []).toSorted((a, b) => nameOf(a).localeCompare(nameOf(b))))
const begun = computed(() => cards.value.filter((c) => c.revision > 0).length)

const when = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' })
const seatOf = (card: DrawingCard) => seats.of.get(card.seat ?? '')
const nameOf = (card: DrawingCard): string => seatOf(card)?.name ?? card.name

async function load(): Promise<void> {
  try {
    const [opened] = await Promise.all([openTask(id), seats.load()])
    task.value = opened
    problem.value = ''
    document.title = `${opened.name} · Bellatrait`
  } catch (e) {
    problem.value = (e as Error).message
  }
}

/** Asks what Proof finds in copies of which that is not known, one after the other. */
async function proof(): Promise<void> {
  for (const card of task.value?.cards ?? []) {
    if (card.findings !== null) continue
    const { findings } = await findingsCount(card.id).catch(() => ({ findings: null }))
    if (findings === null || !task.value) continue
    const cards = task.value.cards.map((c) =>
      c.id === card.id && c.revision === card.revision ? { ...c, findings } : c,
    )
    task.value = { ...task.value, cards }
  }
}

async function hand(): Promise<void> {
  try {
    await handCopies(id, later.value)
    later.value = []
    await load()
  } catch (e) {
    problem.value = (e as Error).message
  }
}

async function takeDown(): Promise<void> {
  try {
    await removeTask(id)
    await router.push('/')
  } catch (e) {
    problem.value = (e as Error).message
  }
}

onMounted(async () => {
  await load()
  await proof()
})
useIntervalFn(() => void (document.visibilityState === 'visible' && load().then(proof)), AGAIN)
</script>

<template>
  <div class="h-full overflow-auto">
    <header
      class="sticky top-0 z-10 flex min-h-[52px] items-center gap-3 border-b border-hair bg-panel px-6 max-md:px-3"
    >
      <NuxtLink to="/" class="button">Desk</NuxtLink>
      <h1 class="truncate text-[15px] font-[650]">{{ task?.name ?? 'Task' }}</h1>
      <span v-if="task" class="quiet ml-auto shrink-0" role="status"
        ><span class="number">{{ begun }}</span> of <span class="number">{{ cards.length }}</span> begun</span
      >
      <template v-if="asked">
        <button class="button shrink-0 !text-brick" @click="takeDown">Take it down</button>
        <button class="button shrink-0" @click="asked = false">Keep it</button>
      </template>
      <button
        v-else-if="task"
        class="quiet shrink-0 underline decoration-dotted hover:text-ink"
        title="This page goes; the copies stay with their seats"
        @click="asked = true"
      >
        Take the task down
      </button>
    </header>
    <main class="mx-auto max-w-[1160px] px-6 py-6 max-md:px-3">
      <p v-if="problem" class="mb-4 text-brick" role="alert">{{ problem }}</p>
      <p v-if="task && !cards.length" class="quiet py-16 text-center">No copy is on the Desk any more.</p>
      <ul class="grid grid-cols-[repeat(auto-fill,minmax(210px,1fr))] gap-4" aria-label="Copies">
        <li v-for="card in cards" :key="card.id" class="rounded-xl border border-hair bg-raise" data-testid="copy">
          <NuxtLink
            :to="`/drawings/${card.id}`"
            class="block rounded-t-xl bg-paper p-3"
            :aria-label="`Look at the copy of ${nameOf(card)}`"
          >
            <img
              :src="`/api/drawings/${card.id}/thumbnail?late=1&revision=${card.revision}`"
              loading="lazy"
              class="h-[130px] w-full object-contain"
              alt=""
            />
          </NuxtLink>
          <div class="border-t border-hair px-3 py-2">
            <p class="flex items-center gap-2 font-[650]">
              <SeatDot :colour="seatOf(card)?.colour ?? '#d6cdbf'" /><span class="truncate">{{ nameOf(card) }}</span>
            </p>
            <p class="quiet truncate text-[12px]">
              {{ passOf(card.pass).title }} · <span class="number">{{ card.lineCount }}</span>
              {{ card.lineCount === 1 ? 'line' : 'lines' }}
              <template v-if="card.findings !== null">
                ·
                <span :class="card.findings ? 'text-amber-deep' : 'text-moss'">{{
                  card.findings ? `${card.findings} to look at` : 'Proof is clean'
                }}</span></template
              >
            </p>
            <p class="quiet truncate text-[12px]">
              {{ card.revision ? `Drawn on ${when.format(new Date(card.updatedAt))}` : 'Not begun yet' }}
            </p>
          </div>
        </li>
      </ul>
      <form
        v-if="task && lacking.length"
        class="mt-8 max-w-[460px] rounded-xl border border-hair bg-panel p-4"
        aria-label="Hand to others"
        @submit.prevent="hand"
      >
        <h2 class="mb-2 font-[650]">Hand it to others, too</h2>
        <p v-if="!task.hasTemplate" class="quiet">
          What this task hands out is not on the Desk any more. Put it back from the bin to hand it to others.
        </p>
        <template v-else>
          <SeatPicker v-model="later" :but="has" />
          <button class="button mt-3" type="submit" :disabled="!later.length">
            Hand out <span class="number">{{ later.length }}</span>
          </button>
        </template>
      </form>
    </main>
  </div>
</template>
