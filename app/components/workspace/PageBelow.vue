<script setup lang="ts">
import { computed } from 'vue'
import SketchPicture from './SketchPicture.vue'
import { boxOfPage, laidOnPage } from '~/canvas/laid-on-page'
import { matrixOf } from '~/canvas/viewport'
import { useDrawingStore } from '~/stores/drawing'
import { sketchLayers } from '#core/model/find'
import { useStudioStore } from '~/stores/studio'
import { useViewStore } from '~/stores/view'

/** What lies below the ink: the page with its grid, and the sketches on it. */
const store = useDrawingStore()
const view = useViewStore()
const studio = useStudioStore()

/** A grid closer than this is not shown, screen px. */
const CLOSEST_GRID = 6

const pageStyle = computed(() => {
  const page = store.drawing?.page
  if (!page) return {}
  const { zoom } = view.viewport
  const { snaps, gridSize } = studio.preferences
  const every = gridSize * zoom
  const grid =
    snaps.grid && view.pass === 'lines' && every >= CLOSEST_GRID
      ? {
          backgroundImage: 'radial-gradient(circle at 0 0, var(--color-hair) 1.2px, transparent 1.6px)',
          backgroundSize: `${every}px ${every}px`,
        }
      : {}
  return { ...grid, ...laidOnPage(view.viewport, boxOfPage(page)) }
})

const leftOfWipe = computed(() =>
  view.wipedAt === null ? {} : { clipPath: `inset(0 ${(1 - view.wipedAt) * 100}% 0 0)` },
)

const sketches = computed(() => {
  // What leaves the house is judged without the pencil.
  if (!store.drawing || view.pass === 'deliver' || view.sketchHidden) return []
  const matrix = `matrix(${matrixOf(view.viewport).join()})`
  return sketchLayers(store.drawing)
    .filter((l) => l.visible)
    .flatMap((l) =>
      l.items.map((s) => ({
        sketch: s,
        style: {
          width: `${s.width}px`,
          height: `${s.height}px`,
          opacity: String(l.opacity),
          transform: `${matrix} translate(${s.x}px, ${s.y}px) rotate(${s.angle}deg)`,
        },
      })),
    )
})
</script>

<template>
  <div class="page absolute left-0 top-0 origin-top-left bg-paper" :style="pageStyle" />
  <div
    class="pointer-events-none absolute inset-0"
    :class="sketches.some((s) => s.sketch.plain) ? '' : 'mix-blend-multiply'"
    :style="leftOfWipe"
  >
    <SketchPicture
      v-for="s in sketches"
      :key="s.sketch.id"
      :sketch="s.sketch"
      :style="s.style"
      class="absolute left-0 top-0 max-w-none origin-top-left select-none"
      :class="s.sketch.plain ? '' : 'mix-blend-multiply'"
    />
  </div>
</template>
