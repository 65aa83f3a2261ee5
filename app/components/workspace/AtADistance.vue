<script setup lang="ts">
import { computed, onBeforeUnmount, ref, watch } from 'vue'
import { short } from '#core/geometry/path'
import { useDrawingStore } from '~/stores/drawing'
import { useInk } from '~/workspace/use-ink'

/** The whole drawing, always, as small as it will be seen. */
const store = useDrawingStore()
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
  el.getContext('2d')!.drawImage(bitmap, Math.round((el.width - bitmap.width) / 2), Math.round((el.height - bitmap.height) / 2))
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
</script>

<template>
  <section class="border-b border-hair pb-2.5">
    <h2 class="flex justify-between px-3.5 pt-2.5 pb-1.5 text-[12px] font-[650]">At a distance <span class="number quiet font-normal" title="How wide the page looks here">{{ shownWidth }} mm</span></h2>
    <div class="mx-3.5 grid h-[132px] place-items-center rounded-lg border border-hair bg-paper">
      <canvas ref="canvas" class="h-[132px] w-[226px]" role="img" aria-label="The whole drawing, small" />
    </div>
  </section>
</template>
