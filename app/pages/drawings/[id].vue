<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import { onBeforeUnmount, onMounted, ref, watch } from 'vue'
import { onBeforeRouteLeave, useRoute } from 'vue-router'
import { ChevronDown, ChevronRight, ChevronUp } from 'lucide-vue-next'
import { isLockedOut } from '~/network/api'
import TopOfCanvas from '~/components/workspace/TopOfCanvas.vue'
import ImportNotes from '~/components/workspace/ImportNotes.vue'
import NoticeBar from '~/components/ui/NoticeBar.vue'
import AtADistance from '~/components/workspace/AtADistance.vue'
import DockPane from '~/components/workspace/DockPane.vue'
import CanvasView from '~/components/workspace/CanvasView.vue'
import AskDialog from '~/components/workspace/AskDialog.vue'
import KeysCard from '~/components/workspace/KeysCard.vue'
import OverlapsPanel from '~/components/shapes/OverlapsPanel.vue'
import ProofPanel from '~/components/workspace/ProofPanel.vue'
import ScreenKeys from '~/components/workspace/ScreenKeys.vue'
import LayersPanel from '~/components/workspace/LayersPanel.vue'
import ViewBar from '~/components/workspace/ViewBar.vue'
import TopBar from '~/components/workspace/TopBar.vue'
import type { Drawing } from '#core/model/model'
import type { Way } from '~/stores/drawing'
import { useDrawingStore } from '~/stores/drawing'
import { UNTITLED } from '#core/model/create'
import { isOpen, openSolids } from '#core/model/queries'
import { deleteDrawing } from '~/network/api'
import { findLine } from '#core/model/find'
import { useCompareStore } from '~/stores/compare'
import { useLookStore } from '~/stores/look'
import { usePaperStore } from '~/stores/paper'
import type { Place } from '~/stores/places'
import { usePlacesStore } from '~/stores/places'
import { useRoom } from '~/stores/room'
import { useScreenKeysStore } from '~/stores/screen-keys'
import { useViewStore } from '~/stores/view'
import { useHotkeys } from '~/workspace/use-hotkeys'
import { placeLine, takeLeftBehind } from '~/workspace/under-way'
import { provideInk } from '~/workspace/use-ink'
import { useOwnKeys } from '~/workspace/use-own-keys'
import { isSvg, useLinesImport } from '~/workspace/use-lines-import'
import { useProof } from '~/workspace/use-proof'
import { useSketchImport } from '~/workspace/use-sketch-import'
import { isInkml, useTracesImport } from '~/workspace/use-traces-import'

const route = useRoute()
const store = useDrawingStore()
const view = useViewStore()
const compare = useCompareStore()
const look = useLookStore()
const places = usePlacesStore()
const paper = usePaperStore()
const screenKeys = useScreenKeysStore()
const proof = useProof(provideInk())
const { bringIn } = useSketchImport()
const bringInTraces = useTracesImport()
const bringInLines = useLinesImport()
const { isLow, isNarrow } = useRoom()

const canvas = ref<InstanceType<typeof CanvasView>>()
const failure = ref('')
const keysOpen = ref(false)
const asking = ref(false)

async function open(): Promise<void> {
  failure.value = ''
  view.reset()
  try {
    await store.open(String(route.params.id))
    const drawing = store.drawing!
    view.activeLayer = drawing.layers.filter((l) => l.kind === 'lines' && !l.locked).at(-1)?.id ?? null
    if (view.size.width > 1) view.showPage(drawing.page)
    if (drawing.layers.every((l) => !l.items.length)) view.pass = 'sketch'
    const place = places.of(drawing.id)
    if (place) takePlace(place)
    else if (drawing.layers.every((l) => l.kind === 'sketch' || !l.items.length)) void paper.suggest()
    if (await bringBack(drawing)) view.pass = 'lines'
  } catch (e) {
    failure.value = (e as Error).message
  }
}

/** The drawing is seen as it was when it was left. */
function takePlace({ pass, layer, viewport }: Place): void {
  view.pass = pass
  if (store.drawing!.layers.some((l) => l.id === layer)) view.activeLayer = layer
  if (viewport) {
    view.fitting = false
    view.viewport = { ...viewport }
  }
}

function keepPlace(): void {
  if (store.drawing)
    places.keep({
      drawing: store.drawing.id,
      pass: view.pass,
      layer: view.activeLayer,
      viewport: view.fitting ? null : { ...view.viewport },
    })
}

/** Lines that were being laid when a window of this drawing was closed, reloaded or crashed are steps now. */
async function bringBack(drawing: Drawing): Promise<boolean> {
  const left = await takeLeftBehind(drawing)
  for (const line of left) store.edit(line.label, (draft) => placeLine(draft, line, view.activeLayer))
  if (left.length)
    store.notice = `${left.length === 1 ? 'The line that was' : 'The lines that were'} being drawn when this drawing was closed ${left.length === 1 ? 'is' : 'are'} here again.`
  return left.length > 0
}

/** A choice is let go when undo takes its line away, or when its layer is locked or out of sight. */
watch([() => store.drawing?.layers, () => view.alone], ([layers]) => {
  const named = new Set([...view.selection, ...view.stops.map((s) => s.line), ...view.nodes.map((n) => n.line)])
  const open = new Map(
    [...named].flatMap((id) => {
      const found = store.drawing && findLine(store.drawing, id)
      return found && isOpen(found.layer, view.alone) ? [[id, found.line] as const] : []
    }),
  )
  if (view.selection.some((id) => !open.has(id))) view.select(view.selection.filter((id) => open.has(id)))
  const stopsOf = (line: string): number => open.get(line)?.weight.stops.length ?? 0
  if (view.stops.some((s) => s.index >= stopsOf(s.line)))
    view.stops = view.stops.filter((s) => s.index < stopsOf(s.line))
  const solids = new Set(openSolids({ layers: layers ?? [] }, view.alone).map((s) => s.id))
  if (view.solids.some((id) => !solids.has(id))) view.solids = view.solids.filter((id) => solids.has(id))
  if (view.nodes.some((n) => n.index >= (open.get(n.line)?.path.nodes.length ?? 0))) view.nodes = []
})

/** A page that is seen whole stays so when it changes its size. */
watch(
  () => store.drawing?.page,
  (page, was) => page && was && view.fitting && view.showPage(page),
)

/** What a drawing was like before a pass is worth keeping when there is something in it. */
watch(
  () => view.pass,
  (pass) => {
    look.stop()
    if (store.drawing?.layers.some((l) => l.items.length)) void compare.keepBefore(pass)
  },
)

watch(
  () => store.drawing?.name,
  (name) => {
    document.title = name ? `${name} · Bellatrait` : 'Bellatrait'
  },
)

/** A way out that a notice offers. */
function takeWay(way: Way): void {
  store.notice = ''
  way.run()
}

const undo = (): void => canvas.value?.undo()
const redo = (): void => canvas.value?.redo()

const hand = {
  down: (e: KeyboardEvent): boolean => canvas.value?.keyHand.down(e) ?? false,
  up: (e: KeyboardEvent): void => canvas.value?.keyHand.up(e),
  putAway: (): boolean => canvas.value?.keyHand.putAway() ?? false,
}
useOwnKeys()
const { run } = useHotkeys({
  key: (name, shift) => canvas.value?.key(name, shift) ?? false,
  hand,
  undo,
  redo,
  showKeys: () => (keysOpen.value = true),
  ask: () => (asking.value = true),
  finding: proof.step,
})

/** Pictures may be several, each a sketch; of other files the first is brought in. */
function take(files: readonly File[]): void {
  const [file] = files
  if (file)
    void (isInkml(file)
      ? bringInTraces(file)
      : isSvg(file) && view.pass !== 'sketch'
        ? bringInLines(file)
        : bringIn(...files))
}
const drop = (e: DragEvent): void => take([...(e.dataTransfer?.files ?? [])])

/** A picture that was copied elsewhere comes in as a sketch. */
useEventListener(document, 'paste', (e: ClipboardEvent) => {
  const files = [...(e.clipboardData?.files ?? [])]
  if (!files.length) return
  e.preventDefault()
  take(files)
})

function warn(e: BeforeUnloadEvent): void {
  if (store.saveState === 'refused') e.preventDefault()
}

useEventListener(window, 'beforeunload', warn)
useEventListener(window, 'pagehide', keepPlace)
onMounted(() => void open())
onBeforeRouteLeave(async () => {
  canvas.value?.putDown()
  keepPlace()
  await store.allSent()
  // A new drawing in which nothing was done leaves no card behind.
  const { drawing, history } = store
  const untouched =
    drawing &&
    drawing.name === UNTITLED &&
    !history.undo.length &&
    !history.redo.length &&
    drawing.layers.every((l) => !l.items.length)
  if (untouched) await deleteDrawing(drawing.id).catch(() => undefined)
})
onBeforeUnmount(() => store.close())
</script>

<template>
  <div
    class="relative grid h-full select-none grid-cols-[minmax(0,1fr)] grid-rows-[auto_minmax(0,1fr)_auto]"
    @dragover.prevent
    @drop.prevent="drop"
  >
    <NoticeBar v-model="store.notice" :above="view.folds.dock ? '!bottom-6' : isLow ? '!bottom-20' : '!bottom-[190px]'">
      <button
        v-for="way in store.ways"
        :key="way.title"
        class="shrink-0 font-semibold text-[#f0cfe0] underline underline-offset-2"
        @click="takeWay(way)"
      >
        {{ way.title }}
      </button>
    </NoticeBar>
    <template v-if="store.drawing">
      <TopBar @undo="undo" @redo="redo" />
      <div class="relative flex min-h-0">
        <main class="relative min-w-0 flex-1" @pointerdown.capture="view.stripUp = view.pass === 'deliver'">
          <CanvasView ref="canvas" />
          <ImportNotes />
          <ScreenKeys v-if="screenKeys.shown && view.pass !== 'deliver'" @undo="undo" @redo="redo" />
          <TopOfCanvas />
          <button
            class="quiet absolute top-2 right-2 z-20 rounded bg-panel/80 p-1 max-lg:p-2"
            :class="isNarrow && !view.folds.column && 'right-[264px]'"
            :title="view.folds.column ? 'Show the right column' : 'Fold the right column away'"
            :aria-label="view.folds.column ? 'Show the right column' : 'Fold the right column away'"
            @click="view.folds.column = !view.folds.column"
          >
            <ChevronRight :size="15" :class="view.folds.column ? 'rotate-180' : ''" />
          </button>
          <button
            class="quiet absolute right-2 bottom-2 rounded bg-panel/80 p-1"
            :title="view.folds.dock ? 'Show the dock' : 'Fold the dock away'"
            :aria-label="view.folds.dock ? 'Show the dock' : 'Fold the dock away'"
            @click="view.folds.dock = !view.folds.dock"
          >
            <component :is="view.folds.dock ? ChevronUp : ChevronDown" :size="15" />
          </button>
          <ViewBar @keys="keysOpen = true" @ask="asking = true" />
        </main>
        <aside
          v-show="!view.folds.column"
          class="flex w-64 shrink-0 flex-col border-l border-hair bg-panel"
          :class="isNarrow && 'absolute inset-y-0 right-0 z-20 shadow-[-14px_0_30px_-18px_#0007]'"
          aria-label="Drawing at a glance"
        >
          <AtADistance />
          <OverlapsPanel v-if="view.instrument === 'front'" />
          <ProofPanel v-else @go="proof.goTo" />
          <LayersPanel />
        </aside>
      </div>
      <DockPane v-show="!view.folds.dock" />
    </template>
    <div v-else class="row-span-3 grid place-items-center">
      <div v-if="failure" class="max-w-[440px] text-center" role="alert">
        <h1 class="mb-2 text-[18px] font-[650]">This drawing cannot be opened</h1>
        <p class="mb-5">{{ failure }}</p>
        <a v-if="isLockedOut" class="button-strong" :href="`/enter?to=${route.fullPath}`">Enter the passphrase</a>
        <NuxtLink v-else to="/" class="button-strong">Back to the Desk</NuxtLink>
        <button class="button ml-2" @click="open">Try again</button>
      </div>
      <p v-else class="quiet" role="status">Opening the drawing …</p>
    </div>
    <KeysCard changeable :open="keysOpen" @close="keysOpen = false" />
    <AskDialog :open="asking" :run="run" @close="asking = false" />
  </div>
</template>
