<script setup lang="ts">
import { useEventListener, useLocalStorage } from '@vueuse/core'
import { Disclosure, DisclosureButton, DisclosurePanel } from '@headlessui/vue'
import { nextTick, onBeforeUnmount, onMounted, ref, shallowRef } from 'vue'
import { useRouter } from 'vue-router'
import { newDrawing, newSketchLayer, UNTITLED } from '#core/drawing/create'
import { freeName } from '#core/drawing/free-name'
import { newId } from '#core/new-id'
import { PAGE_CHOICES, pageInMm, pageLike } from '#core/drawing/page'
import type { DrawingCard as Card } from '#shared/api'
import DrawingCard from '~/components/desk/DrawingCard.vue'
import NoticeBar from '~/components/ui/NoticeBar.vue'
import { createDrawing, deleteDrawing, listDrawings, listTakenOff, openDrawing, renameDrawing, restoreDrawing } from '~/network/api'
import KeysCard from '~/components/workspace/KeysCard.vue'
import { useImportNotesStore } from '~/stores/import-notes'
import { isSvg } from '~/workspace/use-lines-import'
import { readSvg } from '~/workspace/read-svg'
import { ORDERS, useDeskList } from '~/workspace/use-desk-list'
import { placeOnPage, sendPicture } from '~/workspace/use-sketch-import'

const router = useRouter()
const cards = ref<Card[] | null>(null)
const notice = ref('')
const busy = ref('')
const over = ref(false)
const takenOff = ref<Card[]>([])
/** The card that the notice speaks of. */
const lastTaken = ref<Card | null>(null)
const picker = ref<HTMLInputElement>()
const finder = ref<HTMLInputElement>()
const { sought, order, shown } = useDeskList(cards)
/** Ends the reading of a file that takes long. */
const stopReading = shallowRef<(() => void) | null>(null)
const keysOpen = ref(false)

const PAGE_KEY = 'bellatrait:new-page'
const newPage = useLocalStorage(PAGE_KEY, 'packet across')

async function attempt(work: () => Promise<void>): Promise<void> {
  try {
    await work()
  } catch (e) {
    lastTaken.value = null
    notice.value = (e as Error).message
  } finally {
    busy.value = ''
  }
}

/** Why the Desk could not be opened; it is tried again by itself, ever less often. */
const closedBecause = ref('')
const AGAIN = { first: 2000, last: 20_000 }
let pause = AGAIN.first
let timer: ReturnType<typeof setTimeout> | undefined

async function load(): Promise<void> {
  clearTimeout(timer)
  try {
    ;[cards.value, takenOff.value] = await Promise.all([listDrawings(), listTakenOff()])
    closedBecause.value = ''
    pause = AGAIN.first
  } catch (e) {
    closedBecause.value = (e as Error).message
    timer = setTimeout(() => void load(), pause)
    pause = Math.min(AGAIN.last, pause * 2)
  }
}

const told = useImportNotesStore()
const goTo = (id: string): Promise<unknown> => router.push(`/drawings/${id}`)

const startBlank = (): Promise<void> =>
  attempt(async () => {
    busy.value = 'Starting …'
    const { width, height } = PAGE_CHOICES.find((p) => p.id === newPage.value) ?? PAGE_CHOICES[0]!
    await goTo((await createDrawing({ drawing: newDrawing(UNTITLED, { page: pageInMm(width, height) }) })).id)
  })

/** A sketch or an SVG becomes a new drawing. */
const bringIn = (file: File): Promise<void> =>
  attempt(async () => {
    busy.value = `Bringing in ${file.name} …`
    const name = file.name.replace(/\.[^.]+$/, '').slice(0, 120) || 'Untitled drawing'
    const { drawing, notes } = isSvg(file) ? await fromSvg(file) : { drawing: await fromPicture(file, name), notes: [] }
    const { id } = await createDrawing({ drawing })
    told.tell(id, notes)
    await goTo(id)
  })

async function fromSvg(file: File) {
  const { drawing, notes } = await readSvg(file, (stop) => (stopReading.value = stop)).finally(() => (stopReading.value = null))
  return { drawing, notes }
}

async function fromPicture(file: File, name: string) {
  const info = await sendPicture(file)
  const drawing = newDrawing(name)
  drawing.page = pageLike(info)
  drawing.layers.unshift(newSketchLayer({ id: newId(), image: info.sha256, ...placeOnPage(info, drawing.page), angle: 0 }))
  return drawing
}

const remove = (card: Card): Promise<void> =>
  attempt(async () => {
    await deleteDrawing(card.id)
    lastTaken.value = card
    notice.value = `"${card.name}" was taken off the Desk.`
    await load()
  })

const putBack = (card: Card): Promise<void> =>
  attempt(async () => {
    await restoreDrawing(card.id)
    lastTaken.value = null
    notice.value = ''
    await load()
  })

/** A copy as it is now, without its history; it opens nothing, so that several can be made. */
const duplicate = (card: Card): Promise<void> =>
  attempt(async () => {
    busy.value = `Copying ${card.name} …`
    const { drawing } = await openDrawing(card.id)
    const { id } = await createDrawing({ drawing: { ...drawing, id: newId(), name: freeName(new Set((cards.value ?? []).map((c) => c.name)), `${card.name} copy`) } })
    await load()
    await nextTick()
    document.querySelector<HTMLElement>(`[data-testid=card] a[href="/drawings/${id}"]`)?.focus()
  })

const rename = (card: Card, name: string): Promise<void> =>
  attempt(async () => {
    await renameDrawing(card.id, name)
    await load()
  })

function dropped(e: DragEvent): void {
  over.value = false
  const file = e.dataTransfer?.files[0]
  if (file) void bringIn(file)
}

function picked(e: Event): void {
  const input = e.target as HTMLInputElement
  const file = input.files?.[0]
  if (file) void bringIn(file)
  input.value = ''
}

const online = (): void => void (closedBecause.value && load())

function key(e: KeyboardEvent): void {
  if ((e.target as HTMLElement).closest('input, select, textarea')) return
  if (e.key === '?') keysOpen.value = true
  if (e.key !== '/' || !finder.value) return
  e.preventDefault()
  finder.value.focus()
}

useEventListener(window, 'keydown', key)
useEventListener(window, 'online', online)

onMounted(() => {
  document.title = 'Desk · Bellatrait'
  void load()
})

onBeforeUnmount(() => {
  clearTimeout(timer)
})
</script>

<template>
  <div class="h-full overflow-auto" @dragover.prevent="over = true" @dragleave.self="over = false" @drop.prevent="dropped">
    <NoticeBar v-model="notice">
      <button v-if="lastTaken" class="shrink-0 font-semibold text-[#f0cfe0]" @click="putBack(lastTaken)">Put it back</button>
    </NoticeBar>
    <KeysCard :open="keysOpen" @close="keysOpen = false" />
    <header class="sticky top-0 z-10 flex h-[52px] items-center gap-3 border-b border-hair bg-panel px-6">
      <img src="/mark.svg" alt="" class="h-6 w-6" />
      <h1 class="text-[15px] font-[650]">Desk</h1>
      <span class="quiet ml-auto" role="status">{{ busy }}</span>
      <button v-if="stopReading" class="button" @click="stopReading()">Stop</button>
      <button class="quiet underline decoration-dotted hover:text-ink" @click="keysOpen = true">? keys</button>
      <button class="button" :disabled="!!busy" @click="picker?.click()">Bring in a file</button>
      <label class="flex items-center gap-2">
        <span class="quiet">Page</span>
        <select v-model="newPage" class="field" aria-label="Page of a new drawing">
          <option v-for="p in PAGE_CHOICES" :key="p.id" :value="p.id">{{ p.title }}, {{ p.width }} x {{ p.height }} mm</option>
        </select>
      </label>
      <button class="button-strong" :disabled="!!busy" @click="startBlank">New drawing</button>
      <input ref="picker" type="file" accept="image/png,image/jpeg,image/webp,image/svg+xml,.svg" class="hidden" data-testid="desk-file" @change="picked" />
    </header>
    <main class="mx-auto max-w-[1160px] px-6 py-7">
      <div v-if="cards && cards.length > 1" class="mb-5 flex items-center gap-3" role="search">
        <input ref="finder" v-model="sought" type="search" class="field w-[280px]" placeholder="Find by name ( / )" aria-label="Find drawings by name" data-testid="find-drawings" @keydown.esc="sought = ''" />
        <span class="text-mute-deep" role="status"><span class="number">{{ shown.length }}</span> {{ shown.length === 1 ? 'drawing' : 'drawings' }}</span>
        <select v-model="order" class="field ml-auto" aria-label="Order of the drawings">
          <option v-for="o in ORDERS" :key="o.id" :value="o.id">{{ o.title }}</option>
        </select>
      </div>
      <ul v-if="cards?.length" class="grid grid-cols-[repeat(auto-fill,minmax(300px,1fr))] gap-6">
        <DrawingCard v-for="card in shown" :key="card.id" :card="card" @remove="remove(card)" @rename="(n) => rename(card, n)" @duplicate="duplicate(card)" />
        <li v-if="!shown.length" class="col-span-full py-16 text-center" role="status">
          No drawing is named like "{{ sought }}". <button class="underline decoration-dotted hover:text-ink" @click="sought = ''">Show all {{ cards.length }}</button>
        </li>
        <li v-if="!sought">
          <button class="flex h-full min-h-[264px] w-full flex-col items-center justify-center rounded-2xl border-2 border-dashed border-[#c6bba9] px-8 text-center text-mute-deep hover:border-plum hover:text-ink" :class="over ? 'border-plum bg-blush' : ''" @click="picker?.click()">
            <b class="mb-1 font-[650] text-ink">Drop a pencil sketch here</b>
            A PNG, JPEG or WebP starts a drawing with the sketch under the ink. An SVG opens with its lines.
          </button>
        </li>
      </ul>
      <div v-else-if="cards" class="mx-auto mt-24 max-w-[440px] text-center">
        <h2 class="mb-2 text-[18px] font-[650]">The Desk is empty</h2>
        <p class="quiet mb-6">Drop a pencil sketch anywhere on this page to ink it, or start on blank paper.</p>
        <button class="button-strong" @click="startBlank">New drawing</button>
      </div>
      <div v-else-if="closedBecause" class="mx-auto mt-24 max-w-[440px] text-center" role="alert">
        <h2 class="mb-2 text-[18px] font-[650]">The Desk cannot be opened yet</h2>
        <p class="quiet mb-6">{{ closedBecause }} It is tried again by itself.</p>
        <button class="button-strong" @click="load">Try now</button>
      </div>
      <p v-else class="quiet mt-24 text-center" role="status">Opening the Desk …</p>
      <Disclosure v-if="takenOff.length" as="section" class="mt-10" data-testid="taken-off">
        <DisclosureButton class="text-mute-deep underline decoration-dotted hover:text-ink">Taken off the Desk ({{ takenOff.length }})</DisclosureButton>
        <DisclosurePanel as="ul" class="mt-3 max-w-[520px] divide-y divide-hair rounded-xl border border-hair bg-raise">
          <li v-for="card in takenOff" :key="card.id" class="flex items-center gap-3 px-4 py-2">
            <span class="min-w-0 flex-1 truncate">{{ card.name }}</span>
            <span class="quiet"><span class="number">{{ card.lineCount }}</span> {{ card.lineCount === 1 ? 'line' : 'lines' }}</span>
            <button class="font-semibold text-plum" :aria-label="`Put ${card.name} back`" @click="putBack(card)">Put back</button>
          </li>
        </DisclosurePanel>
      </Disclosure>
    </main>
  </div>
</template>
