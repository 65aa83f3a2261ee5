<script setup lang="ts">
import { computed, onBeforeUnmount, ref, watch } from 'vue'
import { short } from '#core/geometry/path'
import { boxInView, cornersOf } from '~/canvas/viewport'
import { useDrawingStore } from '~/stores/drawing'
import { useViewStore } from '~/stores/view'
import { fillSilhouette } from '~/painting/silhouette'
import { useRemembered } from '~/stores/remembered'
import { useInk } from '~/workspace/use-ink'

/** The whole drawing, always, as small as it will be seen. */
const store = useDrawingStore()
const view = useViewStore()
const ink = useInk()
const canvas = ref<HTMLCanvasElement>()

/** As small as the column has it, and how much larger it can be drawn. */
const SMALL = { width: 226, height: 132 }
const LARGEST = 3
const PAD = 6
/** The preview follows the drawing at most this often, ms. */
const EVERY = 120

/** What the drawing is seen on. */
const GROUNDS = [
  { id: 'white', title: 'on white' },
  { id: 'colour', title: 'on colour' },
  { id: 'silhouette', title: 'silhouette' },
] as const
const KRAFT = '#c08f57'

const kept = useRemembered('at-a-distance', { scale: 1, ground: 'white' as (typeof GROUNDS)[number]['id'] }, 'device')
const scale = ref(kept.scale)
const WIDTH = computed(() => Math.round(SMALL.width * scale.value))
const HEIGHT = computed(() => Math.round(SMALL.height * scale.value))
const ground = computed(() => GROUNDS.find((g) => g.id === kept.ground) ?? GROUNDS[0])
const nextGround = (): void => void (kept.ground = GROUNDS[(GROUNDS.indexOf(ground.value) + 1) % GROUNDS.length]!.id)

let timer: ReturnType<typeof setTimeout> | undefined

const fit = computed(() => {
  const page = store.drawing?.page
  return page ? Math.min((WIDTH.value - 2 * PAD) / page.width, (HEIGHT.value - 2 * PAD) / page.height) : 1
})

/** How wide the page appears here, in mm of a common screen of 96 dots an inch. */
const shownWidth = computed(() => short(((store.drawing?.page.width ?? 0) * fit.value * 25.4) / 96, 0))

async function draw(): Promise<void> {
  const page = store.drawing?.page
  if (!page || !canvas.value) return
  const k = window.devicePixelRatio
  const bitmap = await ink.raster.preview(page.width, page.height, fit.value * k)
  const el = canvas.value
  if (!el) return
  el.width = WIDTH.value * k
  el.height = HEIGHT.value * k
  const ctx = el.getContext('2d', { willReadFrequently: true })!
  ctx.drawImage(bitmap, Math.round((el.width - bitmap.width) / 2), Math.round((el.height - bitmap.height) / 2))
  bitmap.close()
  if (ground.value.id !== 'silhouette') return
  const dots = ctx.getImageData(0, 0, el.width, el.height)
  fillSilhouette(dots.data, el.width, el.height)
  ctx.putImageData(dots, 0, 0)
}

watch(
  [ink.stack, fit, canvas, ground],
  () => {
    clearTimeout(timer)
    timer = setTimeout(() => void draw(), EVERY)
  },
  { immediate: true },
)

onBeforeUnmount(() => clearTimeout(timer))

/** From the page to this little picture. */
const offset = computed(() => {
  const page = store.drawing?.page
  return page
    ? { x: (WIDTH.value - page.width * fit.value) / 2, y: (HEIGHT.value - page.height * fit.value) / 2 }
    : { x: 0, y: 0 }
})

/** What the canvas shows, where that is not the whole page. */
const shown = computed(() => {
  const page = store.drawing?.page
  if (!page) return ''
  const corners = cornersOf(view.viewport, view.size)
  const box = boxInView(view.viewport, view.size)
  if (box.minX <= 0 && box.minY <= 0 && box.maxX >= page.width && box.maxY >= page.height) return ''
  return corners.map((p) => `${p.x * fit.value + offset.value.x},${p.y * fit.value + offset.value.y}`).join(' ')
})

const frame = ref<SVGSVGElement>()

/** The press moves the view there, and a drag takes it along. */
function moveView(e: PointerEvent): void {
  if (!frame.value || (e.type === 'pointermove' && !(e.buttons & 1))) return
  if (e.type === 'pointerdown') frame.value.setPointerCapture(e.pointerId)
  const box = frame.value.getBoundingClientRect()
  view.centreOn({
    x: (e.clientX - box.left - offset.value.x) / fit.value,
    y: (e.clientY - box.top - offset.value.y) / fit.value,
  })
}

/** The corner is dragged: the picture grows over the canvas, as wide as it may. */
let dragged: { x: number; y: number; from: number } | null = null

function setScale(to: number): void {
  const most = Math.max(
    1,
    Math.min(LARGEST, (window.innerWidth * 0.6) / SMALL.width, (window.innerHeight * 0.5) / SMALL.height),
  )
  scale.value = Math.min(most, Math.max(1, to))
}

function takeCorner(e: PointerEvent): void {
  ;(e.currentTarget as HTMLElement).setPointerCapture(e.pointerId)
  dragged = { x: e.clientX, y: e.clientY, from: scale.value }
}

function dragCorner(e: PointerEvent): void {
  if (!dragged) return
  const by = Math.max((dragged.x - e.clientX) / SMALL.width, (e.clientY - dragged.y) / SMALL.height)
  setScale(dragged.from + by)
}

function letCornerGo(): void {
  dragged = null
  kept.scale = scale.value
}

const STEPS: Record<string, [number, number]> = {
  ArrowLeft: [40, 0],
  ArrowRight: [-40, 0],
  ArrowUp: [0, 40],
  ArrowDown: [0, -40],
}

function moveByKey(e: KeyboardEvent): void {
  if (e.key === '+' || e.key === '-') {
    e.preventDefault()
    e.stopPropagation()
    setScale(scale.value + (e.key === '+' ? 0.25 : -0.25))
    letCornerGo()
  }
  const step = STEPS[e.key]
  if (!step) return
  e.preventDefault()
  e.stopPropagation()
  view.panBy(...step)
}
</script>

<template>
  <section class="border-b border-hair pb-2.5">
    <h2 class="flex items-center justify-between px-3.5 pt-2.5 pb-1.5 text-[12px] font-[650]">
      At a distance
      <button
        class="ml-auto mr-2 min-h-6 font-normal text-mute-deep underline decoration-dotted hover:text-plum"
        title="On white, on a colour, or as a silhouette"
        data-testid="distance-ground"
        @click="nextGround"
      >
        {{ ground.title }}
      </button>
      <span class="number quiet font-normal" title="How wide the page is in this small view"
        >{{ shownWidth }} mm wide</span
      >
    </h2>
    <div
      class="relative z-30 mr-3.5 ml-auto grid place-items-center rounded-lg border border-hair"
      :class="scale > 1 && 'shadow-2xl'"
      :style="{
        width: `${WIDTH + 2}px`,
        height: `${HEIGHT}px`,
        marginLeft: `${226 + 14 - WIDTH}px`,
        background: ground.id === 'colour' ? KRAFT : 'var(--color-paper)',
      }"
    >
      <canvas ref="canvas" class="h-full w-full" role="img" aria-label="The whole drawing, small" />
      <svg
        ref="frame"
        class="absolute inset-0 m-auto h-full w-full cursor-pointer touch-none overflow-hidden rounded-lg"
        role="application"
        tabindex="0"
        aria-label="What the canvas shows. Drag, or use the arrow keys, to move it; plus and minus make this picture larger or smaller"
        data-testid="distance-view"
        @pointerdown="moveView"
        @pointermove="moveView"
        @keydown="moveByKey"
      >
        <polygon v-if="shown" :points="shown" class="fill-plum/5 stroke-plum" stroke-width="1.2" />
      </svg>
      <button
        class="absolute -bottom-1.5 -left-1.5 h-6 w-6 cursor-nesw-resize touch-none rounded-bl-lg border-b border-l border-mute hover:border-plum"
        title="Drag: larger or smaller"
        tabindex="-1"
        aria-label="Size of the small picture"
        data-testid="distance-size"
        @pointerdown="takeCorner"
        @pointermove="dragCorner"
        @pointerup="letCornerGo"
        @pointercancel="letCornerGo"
      />
    </div>
  </section>
</template>
