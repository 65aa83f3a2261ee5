<script setup lang="ts">
import { computed } from 'vue'
import { boundsOf, changePage } from '#core/editing/change-page'
import { withCopies } from '#core/repetition/with-copies'
import { LARGEST_SIDE, PAGE_CHOICES, pageInMm, SMALLEST_SIDE } from '#core/model/page-sizes'
import { short } from '#core/geometry/path'
import { useDrawingStore } from '~/stores/drawing'
import { sketchLayers } from '#core/model/find'
import { useViewStore } from '~/stores/view'

/** The page: its size in mm, by the trade's sizes or one's own, cropped or extended about its middle, or set about what is drawn. */
const store = useDrawingStore()
const view = useViewStore()

/** Paper left about a drawing, mm. */
const MARGIN = 4

const page = computed(() => store.drawing!.page)
const mm = computed(() => ({
  width: page.value.width / page.value.pxPerMm,
  height: page.value.height / page.value.pxPerMm,
}))
const isNear = (a: number, b: number): boolean => Math.abs(a - b) < 0.05
const known = computed(
  () => PAGE_CHOICES.find((s) => isNear(s.width, mm.value.width) && isNear(s.height, mm.value.height))?.id ?? 'own',
)
const hasSketch = computed(() => sketchLayers(store.drawing!).some((l) => l.items.length))

/** Gives the page another size about its middle: what is drawn keeps its place. */
function resize(width: number, height: number): void {
  if (![width, height].every((v) => v >= SMALLEST_SIDE && v <= LARGEST_SIDE)) {
    store.notice = `A page is from ${SMALLEST_SIDE} to ${LARGEST_SIDE} mm wide and high, so it stayed as it was.`
    return
  }
  const next = pageInMm(width, height, page.value.pxPerMm)
  store.edit(`Page ${short(width, 1)} x ${short(height, 1)} mm`, (draft) =>
    changePage(draft, next, (next.width - draft.page.width) / 2, (next.height - draft.page.height) / 2),
  )
  if (view.fitting) view.showPage(page.value)
}

function take(e: Event): void {
  const choice = PAGE_CHOICES.find((c) => c.id === (e.target as HTMLSelectElement).value)
  if (choice) resize(choice.width, choice.height)
}

/** The page just about what is drawn. */
function about(): void {
  const box = boundsOf(withCopies(store.drawing!))
  if (!box) {
    store.notice = 'Nothing is drawn yet that the page could be set about.'
    return
  }
  const { pxPerMm } = page.value
  const rim = MARGIN * pxPerMm
  const next = pageInMm(
    (box.maxX - box.minX) / pxPerMm + 2 * MARGIN,
    (box.maxY - box.minY) / pxPerMm + 2 * MARGIN,
    pxPerMm,
  )
  store.edit('Page about the drawing', (draft) => changePage(draft, next, rim - box.minX, rim - box.minY))
  view.showPage(page.value)
}

/** The page where the sketch lies. */
function aboutSketch(): void {
  const sketch = sketchLayers(store.drawing!).at(-1)?.items.at(-1)
  if (!sketch) return
  const next = { ...page.value, unit: 'mm' as const, width: sketch.width, height: sketch.height }
  store.edit('Page as the sketch', (draft) => changePage(draft, next, -sketch.x, -sketch.y))
  view.showPage(page.value)
}

const number = (e: Event): number => Number.parseFloat((e.target as HTMLInputElement).value.replace(',', '.'))
</script>

<template>
  <div class="flex items-center gap-2.5" role="group" aria-label="Page">
    <b class="shrink-0 font-[650]">Page</b>
    <select
      class="field min-w-0 flex-[0_1_256px]"
      aria-label="Size of the page"
      :value="known"
      data-testid="paper"
      @change="take"
    >
      <option v-for="c in PAGE_CHOICES" :key="c.id" :value="c.id">
        {{ c.title }}, {{ c.width }} x {{ c.height }} mm
      </option>
      <option value="own" disabled>Own size</option>
    </select>
    <span class="flex items-center gap-1">
      <input
        class="field number w-[60px] text-right"
        :value="short(mm.width, 1)"
        inputmode="decimal"
        aria-label="Width of the page in mm"
        @change="resize(number($event), mm.height)"
      />
      <span class="quiet">x</span>
      <input
        class="field number w-[60px] text-right"
        :value="short(mm.height, 1)"
        inputmode="decimal"
        aria-label="Height of the page in mm"
        @change="resize(mm.width, number($event))"
      />
      <span class="quiet">mm</span>
    </span>
    <button class="button shrink-0" title="A page just about what is drawn" @click="about">About the drawing</button>
    <button
      v-if="hasSketch"
      class="button shrink-0"
      title="A page where the sketch lies, of its size"
      @click="aboutSketch"
    >
      As the sketch
    </button>
  </div>
</template>
