<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import { storeToRefs } from 'pinia'
import { computed, onBeforeUnmount, onMounted, ref, shallowRef } from 'vue'
import BinList from '~/components/desk/BinList.vue'
import ChosenBar from '~/components/desk/ChosenBar.vue'
import DeskBar from '~/components/desk/DeskBar.vue'
import DrawingCard from '~/components/desk/DrawingCard.vue'
import { isLockedOut } from '~/network/api'
import ManyDialog from '~/components/desk/ManyDialog.vue'
import HandOutDialog from '~/components/desk/HandOutDialog.vue'
import SeatsDialog from '~/components/desk/SeatsDialog.vue'
import ShelfBar from '~/components/desk/ShelfBar.vue'
import StudioDialog from '~/components/desk/StudioDialog.vue'
import TaskBar from '~/components/desk/TaskBar.vue'
import NoticeBar from '~/components/ui/NoticeBar.vue'
import KeysCard from '~/components/workspace/KeysCard.vue'
import type { DrawingCard as Card } from '#shared/desk'
import type { Way } from '~/stores/drawing'
import { useDeskStore } from '~/stores/desk'
import { useSeatsStore } from '~/stores/seats'
import { useDeskChoice } from '~/workspace/use-desk-choice'
import { ORDERS, useDeskList } from '~/workspace/use-desk-list'
import { useDeskStart } from '~/workspace/use-desk-start'

const desk = useDeskStore()
const seats = useSeatsStore()
const { cards, laid, shelves, notice } = storeToRefs(desk)
const begin = useDeskStart()
const { sought, order, shelf, whose, shown, nameOfShelf } = useDeskList(cards, laid, shelves, storeToRefs(seats).all)
const choice = useDeskChoice(shown)
const { chosen } = choice
const bar = ref<InstanceType<typeof DeskBar>>()
const finder = ref<HTMLInputElement>()
const over = ref(false)
const keysOpen = ref(false)
const seatsOpen = ref(false)
const studioOpen = ref(false)
/** The drawing that is being handed out. */
const handedOut = shallowRef<Card | null>(null)
/** The drawings that are being delivered. */
const delivered = shallowRef<readonly string[] | null>(null)
const nothing = computed(() => (sought.value ? `No drawing is named like "${sought.value}".` : 'No drawing lies here.'))

function showAll(): void {
  sought.value = ''
  shelf.value = whose.value = 'all'
}

function takeWay(way: Way): void {
  desk.tell('')
  way.run()
}

function dropped(e: DragEvent): void {
  over.value = false
  const file = e.dataTransfer?.files[0]
  if (file) void begin.bringIn(file)
}

function key(e: KeyboardEvent): void {
  if (
    e.defaultPrevented ||
    (e.target as HTMLElement).closest('input, select, textarea, [role="dialog"], [role="menu"]')
  )
    return
  if (choice.key(e, (ids) => void desk.intoBin(ids))) return
  if (e.key === '?') keysOpen.value = true
  if (e.key !== '/' || !finder.value) return
  e.preventDefault()
  finder.value.focus()
}

useEventListener(window, 'keydown', key)
useEventListener(window, 'online', () => void (desk.closedBecause && desk.load()))

onMounted(async () => {
  document.title = 'Desk · Bellatrait'
  await desk.load()
  // Choices of several people do not go into one another's.
  seatsOpen.value = seats.several && !seats.mine
  await desk.proofAll()
})

onBeforeUnmount(desk.leave)
</script>

<template>
  <div
    class="h-full overflow-auto"
    @dragover.prevent="over = true"
    @dragleave.self="over = false"
    @drop.prevent="dropped"
  >
    <NoticeBar v-model="notice" :above="chosen.length ? '!bottom-[84px]' : ''">
      <button
        v-for="way in desk.ways"
        :key="way.title"
        class="shrink-0 font-semibold text-[#f0cfe0]"
        @click="takeWay(way)"
      >
        {{ way.title }}
      </button>
    </NoticeBar>
    <ManyDialog :ids="delivered" @close="delivered = null" />
    <KeysCard :open="keysOpen" @close="keysOpen = false" />
    <SeatsDialog :open="seatsOpen" @close="seatsOpen = false" />
    <StudioDialog :open="studioOpen" @close="studioOpen = false" />
    <HandOutDialog :card="handedOut" @close="handedOut = null" />
    <DeskBar ref="bar" :begin="begin" @keys="keysOpen = true" @seats="seatsOpen = true" @studio="studioOpen = true" />
    <main class="mx-auto max-w-[1160px] 2xl:max-w-[1900px] px-6 py-6">
      <template v-if="cards && cards.length">
        <div v-if="cards.length > 1" class="mb-3.5 flex items-center gap-3" role="search">
          <input
            ref="finder"
            v-model="sought"
            type="search"
            class="field w-[300px]"
            placeholder="Find by name or shelf ( / )"
            aria-label="Find drawings by name or shelf"
            data-testid="find-drawings"
            @keydown.esc="sought = ''"
          />
          <span class="text-mute-deep" role="status"
            ><span class="number">{{ shown.length }}</span> {{ shown.length === 1 ? 'drawing' : 'drawings' }}</span
          >
          <select v-if="seats.several" v-model="whose" class="field ml-auto" aria-label="Whose drawings">
            <option value="all">Everybody's</option>
            <option v-for="s in seats.all" :key="s.id" :value="s.id">
              {{ s.id === seats.taken ? 'Mine' : s.name }}
            </option>
          </select>
          <select v-model="order" class="field" :class="!seats.several && 'ml-auto'" aria-label="Order of the drawings">
            <option v-for="o in ORDERS" :key="o.id" :value="o.id">{{ o.title }}</option>
          </select>
        </div>
        <ShelfBar v-model="shelf" />
        <TaskBar />
        <ul class="grid grid-cols-[repeat(auto-fill,minmax(300px,1fr))] gap-6">
          <DrawingCard
            v-for="card in shown"
            :key="card.id"
            :card="card"
            :shelf="shelf === 'all' ? nameOfShelf.get(card.shelf ?? '') : undefined"
            :chosen="chosen.includes(card.id)"
            :choosing="chosen.length > 0"
            @deliver="delivered = [card.id]"
            @hand-out="handedOut = card"
            @choose="(toHere) => (toHere ? choice.upTo(card.id) : choice.toggle(card.id))"
          />
          <li v-if="!shown.length" class="col-span-full py-16 text-center" role="status">
            {{ nothing }}
            <button class="underline decoration-dotted hover:text-ink" @click="showAll">
              Show all {{ laid.length }}
            </button>
          </li>
          <li v-else-if="!sought && shelf === 'all' && whose === 'all'">
            <button
              class="flex h-full min-h-[264px] w-full flex-col items-center justify-center rounded-2xl border-2 border-dashed border-[#c6bba9] px-8 text-center text-mute-deep hover:border-plum hover:text-ink"
              :class="over ? 'border-plum bg-blush' : ''"
              @click="bar?.pick()"
            >
              <b class="mb-1 font-[650] text-ink">Drop a pencil sketch here</b>
              A PNG, JPEG or WebP starts a drawing with the sketch under the ink. An SVG opens with its lines, a backup
              with its drawings.
            </button>
          </li>
        </ul>
      </template>
      <div v-else-if="cards" class="mx-auto mt-24 max-w-[440px] text-center">
        <h2 class="mb-2 text-[18px] font-[650]">The Desk is empty</h2>
        <p class="quiet mb-6">Drop a pencil sketch anywhere on this page to ink it, or start on blank paper.</p>
        <button class="button-strong" @click="begin.start">New drawing</button>
      </div>
      <div v-else-if="desk.closedBecause" class="mx-auto mt-24 max-w-[440px] text-center" role="alert">
        <h2 class="mb-2 text-[18px] font-[650]">The Desk cannot be opened yet</h2>
        <p class="quiet mb-6">{{ desk.closedBecause }}{{ isLockedOut ? '' : ' It is tried again by itself.' }}</p>
        <a v-if="isLockedOut" class="button-strong" href="/enter">Enter the passphrase</a>
        <button class="button-strong" @click="desk.load">Try now</button>
        <template v-if="desk.kept.length && !isLockedOut">
          <p class="mt-8 mb-2">Meanwhile these can be opened and worked on; all of it is sent later.</p>
          <ul class="grid gap-1" aria-label="Drawings kept in this browser">
            <li v-for="d in desk.kept" :key="d.id">
              <NuxtLink class="underline decoration-dotted hover:text-plum" :to="`/drawings/${d.id}`">{{
                d.name
              }}</NuxtLink>
            </li>
          </ul>
        </template>
      </div>
      <p v-else class="quiet mt-24 text-center" role="status">Opening the Desk …</p>
      <ChosenBar v-if="chosen.length" :ids="chosen" @none="choice.none" @deliver="delivered = chosen" />
      <BinList />
    </main>
  </div>
</template>
