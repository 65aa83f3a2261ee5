<script setup lang="ts">
import { useEventListener, useResizeObserver } from '@vueuse/core'
import { computed, onBeforeUnmount, onMounted, ref, shallowRef, watch } from 'vue'
import type { Line } from '#core/model/model'
import type { Vec } from '#core/geometry/point'
import { InkRaster } from '~/canvas/ink-raster'
import type { Mark } from '~/canvas/marks'
import { MarksLayer } from '~/canvas/marks-layer'
import type { InkEntry } from '~/painting/paint-stack'
import { coverOf, paintStack } from '~/painting/paint-stack'
import { entryOf } from '~/canvas/stacker'
import { boxInView, matrixOf, toPage } from '~/canvas/viewport'
import KeyHandTip from './KeyHandTip.vue'
import PageAbove from './PageAbove.vue'
import PageBelow from './PageBelow.vue'
import { acrossAt } from '~/instruments/across'
import type { Instrument } from '~/instruments/instrument'
import { chosenLines } from '~/instruments/line-marks'
import { useDrawingStore } from '~/stores/drawing'
import { findLine } from '#core/model/find'
import { useClingStore } from '~/stores/cling'
import { useHaloStore } from '~/stores/halo'
import { useImportNotesStore } from '~/stores/import-notes'
import { usePaperStore } from '~/stores/paper'
import { useProposalsStore } from '~/stores/proposals'
import { useInkInHand } from '~/stores/ink-in-hand'
import { useOutlinesStore } from '~/stores/outlines'
import { usePracticeStore } from '~/stores/practice'
import { useProofStore } from '~/stores/proof'
import { useStudioStore } from '~/stores/studio'
import { useTrialStore } from '~/stores/trial'
import { useViewStore } from '~/stores/view'
import { useBridges } from '~/workspace/use-bridges'
import { useExpanded } from '~/workspace/use-expanded'
import { createWorktop } from '~/workspace/worktop'
import { instrumentOf } from '~/catalogue/instruments'
import { createOutlineWorktop } from '~/workspace/outline-worktop'
import { keepUnderWay } from '~/workspace/under-way'
import { MOST_LIVE, useInk } from '~/workspace/use-ink'
import { useKeyHand } from '~/workspace/use-key-hand'
import { usePointer } from '~/workspace/use-pointer'

const store = useDrawingStore()
const view = useViewStore()
const studio = useStudioStore()
const practice = usePracticeStore()
const trial = useTrialStore()
const proof = useProofStore()
const ink = useInk()

/** So many findings are marked on the drawing. */
const MOST_FINDINGS = 400

/** What is scraped away shows so until the hand lets go. */
const SCRAPED = '#fffdf8e0'

const root = ref<HTMLDivElement>()
const tiles = ref<HTMLCanvasElement>()
const live = ref<HTMLCanvasElement>()
const stage = ref<HTMLDivElement>()
const tick = ref(0)
const instrument = shallowRef<Instrument | null>(null)
const panning = ref(false)

const rightOfWipe = computed(() => (view.wipedAt === null ? {} : { clipPath: `inset(0 0 0 ${view.wipedAt * 100}%)` }))
const expanded = useExpanded(ink)
const bridges = useBridges(ink)
const worktop = createWorktop(ink, tick, { expanded, bridges })
const inkInHand = useInkInHand()
const proposals = useProposalsStore()
const cling = useClingStore()
const halo = useHaloStore()
const told = useImportNotesStore()
const paper = usePaperStore()
const outlines = useOutlinesStore()
const outlineWorktop = createOutlineWorktop(worktop)
let raster: InkRaster | null = null
let marksLayer: MarksLayer | null = null
let frame = 0
/** Lines that the tiles leave out; they stay on the live canvas until the tiles show them again. */
let hidden: string[] = []
let lingering: Line[] = []
/** Whether something that is being laid is written down. */
let kept = false

const liveIds = computed(() => {
  if (view.showsShapes || view.selection.length > MOST_LIVE) return []
  const shown = new Set(ink.stack.value.map((e) => e.id))
  // A line that covers others stays with them in the tiles.
  return view.selection.filter((id) => shown.has(id) && !findLine(store.drawing!, id)?.line.cover)
})

watch(
  () => view.instrument,
  (name) => {
    const before = instrument.value
    before?.leave?.()
    const tool = instrumentOf(name)
    instrument.value = tool ? new tool.make(tool.onOutlines ? outlineWorktop : worktop) : null
    if (before) keepLaid()
    tick.value++
  },
  { immediate: true },
)

watch(
  [
    () =>
      JSON.stringify([
        studio.preferences.contact,
        studio.preferences.light,
        studio.preferences.match,
        studio.preferences.fenceWidths,
        studio.preferences.fill,
        studio.preferences.cling,
      ]),
    () => view.selection,
    () => store.drawing?.layers,
    () => store.drawing?.settings,
    () => store.drawing?.amendments,
    () => store.drawing?.fills,
    () => inkInHand.id,
    () => cling.pencil,
  ],
  () => instrument.value?.review?.(),
)

watch(
  [ink.shapes, () => !!instrumentOf(view.instrument)?.onOutlines],
  ([result, wanted]) => wanted && outlines.show(result?.shapes ?? []),
  { immediate: true },
)

watch(ink.late, () => tick.value++)

watch(
  () => store.overtaken,
  () => {
    instrument.value?.overtaken?.()
    tick.value++
  },
  { flush: 'sync' },
)

useResizeObserver(root, () => raster && resize())

function resize(): void {
  const { clientWidth: width, clientHeight: height } = root.value!
  if (!width || !height) return
  const before = view.size
  view.size = { width, height }
  if ((before.width <= 1 || view.fitting) && store.drawing) view.showPage(store.drawing.page)
  const k = window.devicePixelRatio
  live.value!.width = Math.round(width * k)
  live.value!.height = Math.round(height * k)
  raster!.resize(width, height)
  marksLayer!.resize(width, height)
  tick.value++
}

/** Draws the lines under the hand and the marks; called at most once a frame. */
function drawOver(): void {
  cancelAnimationFrame(frame)
  frame = 0
  if (!live.value || !store.drawing) return
  const ctx = live.value.getContext('2d')!
  ctx.setTransform(1, 0, 0, 1, 0, 0)
  ctx.clearRect(0, 0, live.value.width, live.value.height)
  if (!view.bare) {
    ctx.setTransform(...matrixOf(view.viewport, window.devicePixelRatio))
    ink.cache.beginFrame()
    const fresh = instrument.value?.freshInk?.()
    const ids = new Set(liveIds.value)
    paintStack(
      ctx,
      liveStack([
        ...lingering.filter((l) => !ids.has(l.id)),
        ...chosenLines(worktop)
          .filter((l) => ids.has(l.id))
          .map(trial.shown),
      ]),
      { box: boxInView(view.viewport, view.size) },
    )
    if (fresh)
      paintStack(
        ctx,
        [{ ...entryOf(ink.cache.now(fresh), store.drawing), ...(instrument.value?.scrapes && { colour: SCRAPED }) }],
        { box: boxInView(view.viewport, view.size) },
      )
  }
  marksLayer?.render(allMarks(), view.viewport)
  if (ink.cache.postponed) tick.value++
  view.hint = instrument.value?.hint() ?? ''
}

/** The stack of `lines` as they are under the hand, in their order, with what covers them. */
function liveStack(lines: readonly Line[]): InkEntry[] {
  const left = new Map(lines.map((l) => [l.id, l]))
  const entry = (line: Line, was?: InkEntry): InkEntry => {
    const plain = ink.cache.inFrame(line)
    const now = entryOf(ink.tucked.inFrame(line, store.drawing!, ink.cache.hasTime) ?? plain, store.drawing!)
    return was ? { ...now, layer: was.layer, opacity: was.opacity } : now
  }
  const out: InkEntry[] = []
  for (const e of ink.stack.value) {
    const line = left.get(e.id)
    left.delete(e.id)
    if (line) out.push(entry(line, e))
    else if (e.cover) out.push(coverOf(e))
  }
  return [...out, ...[...left.values()].map((l) => entry(l))]
}

function allMarks(): Mark[] {
  const marks = [
    ...(instrument.value?.marks() ?? []),
    ...placeMarks(),
    ...haloMarks(),
    ...importMarks(),
    ...findingMarks(),
    ...handMarks(),
  ]
  if (!view.bare || view.showsShapes) return marks
  const paths = store.drawing!.layers.flatMap((l) =>
    l.kind === 'lines' && l.visible ? l.items.map((line) => line.path) : [],
  )
  return [{ kind: 'paths', paths, tone: 'mute' }, ...marks]
}

/** Where the pointer is in the weight graph. */
function placeMarks(): Mark[] {
  const line = view.pass === 'weight' && view.place && findLine(store.drawing!, view.place.line)?.line
  if (!line) return []
  const { centre, normal } = acrossAt(line, view.place!.at)
  return [{ kind: 'place', at: centre, across: normal }]
}

const findingPlaces = computed(() => proof.open.slice(0, MOST_FINDINGS).map((f) => f.at))
const currentFinding = computed(() =>
  proof.current === null ? null : (proof.open.find((f) => f.key === proof.current)?.at ?? null),
)

/** What there is to look at, while Proof is seen. */
const findingMarks = (): Mark[] =>
  view.folds.column || view.pass === 'deliver' || !findingPlaces.value.length
    ? []
    : [{ kind: 'findings', at: findingPlaces.value, current: currentFinding.value }]

const haloMarks = (): Mark[] => (halo.strays.length ? [{ kind: 'halo', strays: halo.strays }] : [])

/** Where something came otherwise than its file has it. */
const importMarks = (): Mark[] =>
  told.place
    ? [
        {
          kind: 'box',
          from: { x: told.place.minX, y: told.place.minY },
          to: { x: told.place.maxX, y: told.place.maxY },
        },
      ]
    : []

/** The hand that keys move. */
function handMarks(): Mark[] {
  const { hand } = keyHand
  return hand.value ? [{ kind: 'hand', at: toPage(view.viewport, hand.value.at), pressed: hand.value.pressed }] : []
}

function schedule(): void {
  cancelAnimationFrame(frame)
  frame = requestAnimationFrame(drawOver)
}

/** Chosen lines leave the tiles; lines let go stay on the live canvas until the tiles have them. */
function exchange(ids: readonly string[]): void {
  if (ids.length === hidden.length && ids.every((id, i) => id === hidden[i])) return
  const turned = new Set([...hidden.filter((id) => !ids.includes(id)), ...ids.filter((id) => !hidden.includes(id))])
  lingering = store.lines.filter((l) => hidden.includes(l.id) && !ids.includes(l.id))
  hidden = [...ids]
  const boxes = ink.stack.value.filter((e) => turned.has(e.id)).map((e) => e.box)
  void raster?.hide(ids, boxes).then(() => {
    lingering = []
    schedule()
  })
}

const atHand = {
  worktop,
  markAt: (p: Vec, broad = false) => {
    // A hand that is quicker than the next frame takes what is there now, not what was last drawn.
    if (frame) drawOver()
    return marksLayer?.at(p, broad) ?? null
  },
  instrument: () => instrument.value,
  after: (done: boolean) => {
    tick.value++
    if (done) keepLaid()
  },
}
const keyHand = useKeyHand({ ...atHand, marks: () => instrument.value?.marks() ?? [] })
const pointer = usePointer(root, { ...atHand, panning, spaceTaken: () => !!keyHand.hand.value })

const isPressed = (): boolean => pointer.isDown() || !!keyHand.hand.value?.pressed
function dropPressed(): void {
  if (pointer.isDown()) pointer.drop()
  keyHand.drop()
}
watch(
  () => !!keyHand.hand.value,
  (up) => up && view.takeKeyboard(root.value),
)

/** What is laid node by node outlives a crash: it is written down after each node. A stroke is, when the page goes. */
function keepLaid(going = false): void {
  if (!store.drawing || (isPressed() && !going)) return
  const laid = instrument.value?.underWay?.() ?? null
  if (laid || kept) keepUnderWay(store.drawing.id, laid)
  kept = !!laid
}
useEventListener(window, 'pagehide', () => keepLaid(true))

/** The instrument is laid aside: what is under way becomes a step. */
function putDown(): void {
  if (!store.drawing) return
  instrument.value?.leave?.()
  instrument.value = null
  keepLaid()
}

onMounted(() => {
  raster = new InkRaster(tiles.value!, ink.raster)
  marksLayer = new MarksLayer(stage.value!)
  resize()
  watch(
    () => view.viewport,
    (v) => raster!.setView(v),
    { immediate: true },
  )
  watch(ink.stack, (s) => raster!.setStack(s), { immediate: true })
  watch(liveIds, (ids) => exchange(ids), { immediate: true })
  watch(
    [
      tick,
      () => trial.current,
      () => view.viewport,
      () => store.drawing,
      () => view.selection,
      () => view.solids,
      () => view.nodes,
      () => view.stops,
      () => view.place,
      () => view.bare,
      () => view.islands,
      expanded,
      bridges,
      () => inkInHand.id,
      () => proposals.shown,
      () => halo.strays,
      () => told.place,
      () => paper.corners,
      ink.stack,
      ink.shapes,
      () => outlines.drawing,
      () => outlines.nodes,
      keyHand.hand,
      () => practice.chosen,
      () => proof.open,
      () => proof.current,
      ink.trims,
    ],
    schedule,
    { immediate: true },
  )
  void document.fonts.load('12px "IBM Plex Mono"').then(schedule)
})

onBeforeUnmount(() => {
  putDown()
  raster?.destroy()
  marksLayer?.destroy()
  cancelAnimationFrame(frame)
})

/** Keys that the instrument understands. */
function key(name: string, shift: boolean): boolean {
  const done = instrument.value?.key?.(name, shift) ?? false
  if (done) keepLaid()
  return done
}

/** Undo: what is under the hand goes first, then what is half made, then the last step of the history. */
function undo(): void {
  if (isPressed()) dropPressed()
  else if (!instrument.value?.stepBack?.()) void store.undo()
  keepLaid()
}

/** Redo: with something under the hand there is nothing to bring again but what the hand would lose. */
function redo(): void {
  if (isPressed()) dropPressed()
  else store.redo()
}

defineExpose({ key, keyHand, undo, redo, putDown })
</script>

<template>
  <div
    ref="root"
    class="relative h-full w-full touch-none overflow-hidden bg-desk -outline-offset-2 select-none"
    :class="view.byKey ? '' : 'outline-none'"
    :style="{ cursor: panning ? 'grab' : (instrument?.cursor ?? 'default') }"
    data-testid="canvas"
    @dragstart.prevent
    @mousedown.prevent
    :data-view="matrixOf(view.viewport).join(' ')"
    role="application"
    aria-label="Drawing"
    aria-describedby="canvas-keys"
    tabindex="0"
    @keyup.tab="view.byKey = true"
    @pointerdown.capture="keyHand.putAway()"
  >
    <PageBelow />
    <canvas
      v-show="!view.bare && !view.inkHidden"
      ref="tiles"
      class="pointer-events-none absolute inset-0 h-full w-full"
      :style="rightOfWipe"
    />
    <canvas
      v-show="!view.inkHidden"
      ref="live"
      class="pointer-events-none absolute inset-0 h-full w-full"
      :style="rightOfWipe"
    />
    <div ref="stage" class="pointer-events-none absolute inset-0" />
    <PageAbove />
    <p id="canvas-keys" class="sr-only">
      J and K choose lines, P takes up a hand that the arrows move, S goes to the settings, question mark shows all
      keys.
    </p>
    <KeyHandTip v-if="keyHand.hand.value" v-bind="keyHand.hand.value" />
    <p class="sr-only" aria-live="polite" data-testid="spoken">{{ view.spoken }}</p>
  </div>
</template>
