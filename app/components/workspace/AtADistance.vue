<script setup lang="ts">
import { computed, onBeforeUnmount, ref, watch } from 'vue'
import { short } from '#core/geometry/path'
import { boxInView, cornersOf } from '~/canvas/viewport'
import { useDrawingStore } from '~/stores/drawing'
import { useViewStore } from '~/stores/view'
import { useInk } from '~/workspace/use-ink'

/** The whole drawing, always, as small as it will be seen. */
const store = useDrawingStore()
const view = useViewStore()
const ink = useInk()
const canvas = ref<HTMLCanvasElement>()

const WIDTH = 226
const HEIGHT = 132
const PAD = 6
/** The preview follows the drawing at most this often, ms. */
const EVERY = 120

let timer: ReturnType<typeof setTimeout> | undefined

const fit = computed(() => {
  const page = store.drawing?.page
  return page ? Math.min((WIDTH - 2 * PAD) / page.width, (HEIGHT - 2 * PAD) / page.height) : 1
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
  el.width = WIDTH * k
  el.height = HEIGHT * k
  el.getContext('2d')!.drawImage(
    bitmap,
    Math.round((el.width - bitmap.width) / 2),
    Math.round((el.height - bitmap.height) / 2),
  )
  bitmap.close()
}

watch(
  [ink.stack, fit, canvas],
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
  return page ? { x: (WIDTH - page.width * fit.value) / 2, y: (HEIGHT - page.height * fit.value) / 2 } : { x: 0, y: 0 }
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

const STEPS: Record<string, [number, number]> = {
  ArrowLeft: [40, 0],
  ArrowRight: [-40, 0],
  ArrowUp: [0, 40],
  ArrowDown: [0, -40],
}

function moveByKey(e: KeyboardEvent): void {
  const step = STEPS[e.key]
  if (!step) return
  e.preventDefault()
  e.stopPropagation()
  view.panBy(...step)
}
</script>

<template>
  <section class="border-b border-hair pb-2.5">
    <h2 class="flex justify-between px-3.5 pt-2.5 pb-1.5 text-[12px] font-[650]">
      At a distance
      <span class="number quiet font-normal" title="How wide the page is in this small view"
        >page {{ shownWidth }} mm wide</span
      >
    </h2>
    <div class="relative mx-3.5 grid h-[132px] place-items-center rounded-lg border border-hair bg-paper">
      <canvas ref="canvas" class="h-[132px] w-[226px]" role="img" aria-label="The whole drawing, small" />
      <svg
        ref="frame"
        class="absolute inset-0 m-auto h-[132px] w-[226px] cursor-pointer touch-none overflow-hidden rounded-lg"
        role="application"
        tabindex="0"
        aria-label="What the canvas shows. Drag, or use the arrow keys, to move it"
        data-testid="distance-view"
        @pointerdown="moveView"
        @pointermove="moveView"
        @keydown="moveByKey"
      >
        <polygon v-if="shown" :points="shown" class="fill-plum/5 stroke-plum" stroke-width="1.2" />
      </svg>
    </div>
  </section>
</template>
