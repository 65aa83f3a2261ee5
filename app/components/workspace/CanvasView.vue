<script setup lang="ts">
import { computed, onBeforeUnmount, onMounted, ref, shallowRef, watch } from 'vue'
import type { Line } from '#core/drawing/model'
import { colourOf } from '#core/formats/svg/write-svg'
import { InkRaster } from '~/canvas/ink-raster'
import type { Mark } from '~/canvas/marks'
import { MarksLayer } from '~/canvas/marks-layer'
import { matrixOf } from '~/canvas/viewport'
import CompareOverlay from './CompareOverlay.vue'
import WorkBadge from '~/components/ui/WorkBadge.vue'
import { acrossAt } from '~/instruments/across'
import type { Instrument } from '~/instruments/instrument'
import { chosenLines } from '~/instruments/line-marks'
import { useDrawingStore } from '~/stores/drawing'
import { findLine, sketchLayers } from '~/stores/find'
import { useOutlinesStore } from '~/stores/outlines'
import { useStudioStore } from '~/stores/studio'
import { useCompareStore } from '~/stores/compare'
import { useTrialStore } from '~/stores/trial'
import { useViewStore } from '~/stores/view'
import { createBench } from '~/workspace/bench'
import { INSTRUMENTS, ON_OUTLINES } from '~/workspace/instruments'
import { createOutlineBench } from '~/workspace/outline-bench'
import { keepUnderWay } from '~/workspace/under-way'
import { MOST_LIVE, useInk } from '~/workspace/use-ink'
import { usePointer } from '~/workspace/use-pointer'

const store = useDrawingStore()
const view = useViewStore()
const studio = useStudioStore()
const trial = useTrialStore()
const compare = useCompareStore()
const ink = useInk()

/** A grid closer than this is not shown, screen px. */
const CLOSEST_GRID = 6
/** What is scraped away shows so until the hand lets go. */
const PAPER = '#fffdf8e0'

const root = ref<HTMLDivElement>()
const tiles = ref<HTMLCanvasElement>()
const live = ref<HTMLCanvasElement>()
const stage = ref<HTMLDivElement>()
const tick = ref(0)
const instrument = shallowRef<Instrument | null>(null)
const panning = ref(false)

const bench = createBench(ink, tick)
const outlines = useOutlinesStore()
const outlineBench = createOutlineBench(bench)
let raster: InkRaster | null = null
let marksLayer: MarksLayer | null = null
let observer: ResizeObserver | null = null
let frame = 0
/** Lines that the tiles leave out; they stay on the live canvas until the tiles show them again. */
let hidden: string[] = []
let lingering: Line[] = []
/** Whether something that is being laid is written down. */
let kept = false

const shapesShown = computed(() => view.pass === 'shapes' || view.pass === 'deliver')

const liveIds = computed(() => {
  if (shapesShown.value || view.selection.length > MOST_LIVE) return []
  const shown = new Set(ink.stack.value.map((e) => e.id))
  // A line that covers others stays with them in the tiles.
  return view.selection.filter((id) => shown.has(id) && !findLine(store.drawing!, id)?.line.cover)
})

watch(
  () => view.instrument,
  (name) => {
    const before = instrument.value
    before?.leave?.()
    const make = INSTRUMENTS[name]
    instrument.value = make ? new make(ON_OUTLINES.includes(name) ? outlineBench : bench) : null
    if (before) keepLaid()
    tick.value++
  },
  { immediate: true },
)

watch([() => JSON.stringify([studio.preferences.contact, studio.preferences.light, studio.preferences.match]), () => view.selection, () => store.drawing?.layers, () => store.drawing?.settings], () => instrument.value?.review?.())

watch(ink.shapes, (result) => outlines.show(result?.shapes ?? []), { immediate: true })

watch(ink.late, () => tick.value++)

watch(
  () => store.overtaken,
  () => {
    instrument.value?.overtaken?.()
    tick.value++
  },
  { flush: 'sync' },
)

const pageStyle = computed(() => {
  const page = store.drawing?.page
  if (!page) return {}
  const { zoom } = view.viewport
  const [a, b, c, d, e, f] = matrixOf(view.viewport)
  // The page is laid out at its size on the screen, so that its shadow does not grow with it.
  const { snaps, gridSize } = studio.preferences
  const every = gridSize * zoom
  const grid = snaps.grid && view.pass === 'lines' && every >= CLOSEST_GRID ? { backgroundImage: 'radial-gradient(circle at 0 0, var(--color-hair) 1.2px, transparent 1.6px)', backgroundSize: `${every}px ${every}px` } : {}
  return { ...grid, width: `${page.width * zoom}px`, height: `${page.height * zoom}px`, transform: `matrix(${[a / zoom, b / zoom, c / zoom, d / zoom, e, f].join()})` }
})

const sketches = computed(() => {
  // What leaves the house is judged without the pencil.
  if (!store.drawing || view.pass === 'deliver' || view.sketchHidden) return []
  const matrix = `matrix(${matrixOf(view.viewport).join()})`
  return sketchLayers(store.drawing)
    .filter((l) => l.visible)
    .flatMap((l) =>
      l.items.map((s) => ({
        id: s.id,
        src: `/api/images/${s.image}`,
        style: {
          width: `${s.width}px`,
          height: `${s.height}px`,
          opacity: String(l.opacity),
          transform: `${matrix} translate(${s.x}px, ${s.y}px) rotate(${s.angle}deg)`,
        },
      })),
    )
})

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
  if (!live.value || !store.drawing) return
  const ctx = live.value.getContext('2d')!
  ctx.setTransform(1, 0, 0, 1, 0, 0)
  ctx.clearRect(0, 0, live.value.width, live.value.height)
  if (!view.bare) {
    ctx.setTransform(...matrixOf(view.viewport, window.devicePixelRatio))
    const fresh = instrument.value?.freshInk?.()
    const ids = new Set(liveIds.value)
    drawLive(ctx, [...lingering.filter((l) => !ids.has(l.id)), ...chosenLines(bench).filter((l) => ids.has(l.id)).map(trial.shown)])
    if (fresh) fill(ctx, fresh, instrument.value?.scrapes ? PAPER : colourOf(store.drawing, fresh.ink))
  }
  marksLayer?.render(allMarks(), view.viewport)
  view.hint = instrument.value?.hint() ?? ''
}

function fill(ctx: CanvasRenderingContext2D, line: Line, colour: string): void {
  ctx.fillStyle = colour
  ctx.fill(new Path2D(ink.cache.now(line).data), 'nonzero')
}

/** Draws lines in the order of the stack, less what the lines above them cover. */
function drawLive(ctx: CanvasRenderingContext2D, lines: readonly Line[]): void {
  const left = new Map(lines.map((l) => [l.id, l]))
  const draw = (line: Line): void => fill(ctx, line, colourOf(store.drawing!, line.ink))
  for (const { id, cover, opacity } of ink.stack.value) {
    if (cover) {
      ctx.globalCompositeOperation = 'destination-out'
      ctx.fill(new Path2D(cover), 'nonzero')
      ctx.globalCompositeOperation = 'source-over'
    }
    const line = left.get(id)
    ctx.globalAlpha = opacity
    if (line) draw(line)
    ctx.globalAlpha = 1
    left.delete(id)
  }
  left.forEach(draw)
}

function allMarks(): Mark[] {
  const marks = [...(instrument.value?.marks() ?? []), ...placeMarks()]
  if (!view.bare || shapesShown.value) return marks
  const paths = store.drawing!.layers.flatMap((l) => (l.kind === 'lines' && l.visible ? l.items.map((line) => line.path) : []))
  return [{ kind: 'paths', paths, tone: 'mute' }, ...marks]
}

/** Where the pointer is in the weight graph. */
function placeMarks(): Mark[] {
  const line = view.pass === 'weight' && view.place && findLine(store.drawing!, view.place.line)?.line
  if (!line) return []
  const { centre, normal } = acrossAt(line, view.place!.at)
  return [{ kind: 'place', at: centre, across: normal }]
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

const pointer = usePointer(root, {
  bench,
  markAt: (p) => marksLayer?.at(p) ?? null,
  instrument: () => instrument.value,
  panning,
  after: (done) => {
    tick.value++
    if (done) keepLaid()
  },
})

/** What is laid node by node outlives a crash: it is written down after each node. A stroke is, when the page goes. */
function keepLaid(going = false): void {
  if (!store.drawing || (pointer.isDown() && !going)) return
  const laid = instrument.value?.underWay?.() ?? null
  if (laid || kept) keepUnderWay(store.drawing.id, laid)
  kept = !!laid
}
const pageGoes = (): void => keepLaid(true)

/** The instrument is laid aside: what is under way becomes a step. */
function putDown(): void {
  if (!store.drawing) return
  instrument.value?.leave?.()
  instrument.value = null
  keepLaid()
}

onMounted(() => {
  window.addEventListener('pagehide', pageGoes)
  raster = new InkRaster(tiles.value!, ink.raster)
  marksLayer = new MarksLayer(stage.value!)
  observer = new ResizeObserver(resize)
  observer.observe(root.value!)
  resize()
  watch(() => view.viewport, (v) => raster!.setView(v), { immediate: true })
  watch(ink.stack, (s) => raster!.setStack(s), { immediate: true })
  watch(liveIds, (ids) => exchange(ids), { immediate: true })
  watch([tick, () => trial.current, () => view.viewport, () => store.drawing, () => view.selection, () => view.solids, () => view.nodes, () => view.stops, () => view.place, () => view.bare, () => view.shape, ink.stack, ink.shapes, () => outlines.drawing, () => outlines.nodes], schedule, { immediate: true })
  void document.fonts.load('12px "IBM Plex Mono"').then(schedule)
})

onBeforeUnmount(() => {
  window.removeEventListener('pagehide', pageGoes)
  putDown()
  observer?.disconnect()
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
  if (pointer.isDown()) pointer.drop()
  else if (!instrument.value?.stepBack?.()) void store.undo()
  keepLaid()
}

/** Redo: with something under the hand there is nothing to bring again but what the hand would lose. */
function redo(): void {
  if (pointer.isDown()) pointer.drop()
  else store.redo()
}

defineExpose({ key, undo, redo, putDown })
</script>

<template>
  <div
    ref="root"
    class="relative h-full w-full touch-none overflow-hidden bg-desk outline-none select-none"
    :style="{ cursor: panning ? 'grab' : (instrument?.cursor ?? 'default') }"
    data-testid="canvas"
    @dragstart.prevent
    @mousedown.prevent
    :data-view="matrixOf(view.viewport).join(' ')"
    role="application"
    aria-label="Drawing"
    tabindex="0"
  >
    <div class="page absolute left-0 top-0 origin-top-left bg-paper" :style="pageStyle" />
    <img
      v-for="s in sketches"
      :key="s.id"
      :src="s.src"
      :style="s.style"
      class="pointer-events-none absolute left-0 top-0 max-w-none origin-top-left mix-blend-multiply select-none"
      alt=""
      draggable="false"
      data-testid="sketch"
    />
    <canvas v-show="!view.bare" ref="tiles" class="pointer-events-none absolute inset-0 h-full w-full" />
    <canvas ref="live" class="pointer-events-none absolute inset-0 h-full w-full" />
    <div ref="stage" class="pointer-events-none absolute inset-0" />
    <CompareOverlay v-if="compare.shown" />
    <p class="sr-only" aria-live="polite" data-testid="spoken">{{ view.spoken }}</p>
    <WorkBadge v-if="view.work" :what="view.work.what" :share="view.work.share" stoppable @stop="view.work.stop()" />
    <WorkBadge v-else-if="ink.progress.value !== null" :what="shapesShown ? 'Making shapes' : 'Inking'" :share="ink.progress.value" :stoppable="shapesShown" @stop="ink.stopShapes()" />
  </div>
</template>
