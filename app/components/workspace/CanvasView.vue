<script setup lang="ts">
import { useResizeObserver } from '@vueuse/core'
import { computed, onBeforeUnmount, onMounted, ref, watch } from 'vue'
import type { Vec } from '#core/geometry/point'
import { InkRaster } from '~/canvas/ink-raster'
import { MarksLayer } from '~/canvas/marks-layer'
import { matrixOf } from '~/canvas/viewport'
import { useDrawingStore } from '~/stores/drawing'
import { useViewStore } from '~/stores/view'
import { useFrames } from '~/workspace/scene/use-frames'
import { useInstrument } from '~/workspace/scene/use-instrument'
import { useLiveLines } from '~/workspace/scene/use-live-lines'
import { useMarks } from '~/workspace/scene/use-marks'
import { useBridges } from '~/workspace/use-bridges'
import { useExpanded } from '~/workspace/use-expanded'
import { useInk } from '~/workspace/use-ink'
import { useKeyHand } from '~/workspace/use-key-hand'
import { usePointer } from '~/workspace/use-pointer'
import { createWorktop } from '~/workspace/worktop'
import KeyHandTip from './KeyHandTip.vue'
import PageAbove from './PageAbove.vue'
import PageBelow from './PageBelow.vue'

const store = useDrawingStore()
const view = useViewStore()
const ink = useInk()

const root = ref<HTMLDivElement>()
const tiles = ref<HTMLCanvasElement>()
const live = ref<HTMLCanvasElement>()
const stage = ref<HTMLDivElement>()
/** Counts what instruments did that nothing else tells of. */
const tick = ref(0)
const panning = ref(false)
let raster: InkRaster | null = null
let marksLayer: MarksLayer | null = null

const rightOfWipe = computed(() => (view.wipedAt === null ? {} : { clipPath: `inset(0 0 0 ${view.wipedAt * 100}%)` }))
const worktop = createWorktop(ink, tick, { expanded: useExpanded(ink), bridges: useBridges(ink) })
const isPressed = (): boolean => pointer.isDown() || !!keyHand.hand.value?.pressed
const inHand = useInstrument(ink, worktop, tick, isPressed)
const { instrument, waiting, keepLaid, putDown } = inHand
const liveLines = useLiveLines(ink, worktop)
const frames = useFrames(drawOver)

const atHand = {
  worktop,
  markAt: (p: Vec, broad = false) => {
    // A hand that is quicker than the next frame takes what is there now, not what was last drawn.
    frames.now()
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
const marks = useMarks(instrument, waiting, keyHand.hand)

/** Draws the lines under the hand and the marks. */
function drawOver(): void {
  void [tick.value, ink.late.value]
  if (!live.value || !store.drawing) return
  const ctx = live.value.getContext('2d')!
  ctx.setTransform(1, 0, 0, 1, 0, 0)
  ctx.clearRect(0, 0, live.value.width, live.value.height)
  if (!view.bare) {
    ctx.setTransform(...matrixOf(view.viewport, window.devicePixelRatio))
    ink.cache.beginFrame()
    liveLines.paint(ctx, [waiting.value, instrument.value])
  }
  marksLayer?.render(marks(), view.viewport)
  if (ink.cache.postponed) frames.schedule()
  view.hint = instrument.value?.hint() ?? ''
}

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
  frames.schedule()
}
useResizeObserver(root, () => raster && resize())

watch(
  () => !!keyHand.hand.value,
  (up) => up && view.takeKeyboard(root.value),
)

onMounted(() => {
  raster = new InkRaster(tiles.value!, ink.raster)
  marksLayer = new MarksLayer(stage.value!)
  resize()
  watch(
    () => view.viewport,
    (v) => raster!.setView(v),
    { immediate: true },
  )
  watch([ink.stack, () => view.layerColours], ([s]) => raster!.setStack(liveLines.seen(s)), { immediate: true })
  watch(liveLines.ids, (ids) => liveLines.exchange(raster!, ids, frames.schedule), { immediate: true })
  void document.fonts.load('12px "IBM Plex Mono"').then(frames.schedule)
})

onBeforeUnmount(() => {
  putDown()
  raster?.destroy()
  marksLayer?.destroy()
})

/** Keys that the instrument understands. */
function key(name: string, shift: boolean): boolean {
  const done = inHand.key(name, shift)
  if (done) keepLaid()
  return done
}

function dropPressed(): void {
  if (pointer.isDown()) pointer.drop()
  keyHand.drop()
}

/** Undo: what is under the hand goes first, then what is half made; what was dropped comes back; then the last step of the history goes. */
function undo(): void {
  if (isPressed()) dropPressed()
  else if (!instrument.value?.stepBack?.() && !inHand.bringBack()) void store.undo()
  keepLaid()
}

/** Redo: with something under the hand there is nothing to bring again but what the hand would lose. */
function redo(): void {
  if (isPressed()) dropPressed()
  else if (!inHand.dropAgain()) store.redo()
  keepLaid()
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
