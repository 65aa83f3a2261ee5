<script setup lang="ts">
import { computed } from 'vue'
import { short } from '#core/geometry/path'
import { flipEnds, flipSides } from '#core/weight/shelf'
import { HEAVIEST } from '#core/weight/size'
import { addStopBeside, removeStop } from '#core/weight/stops'
import { LineWidth } from '#core/weight/half-widths'
import { arcOf } from '~/instruments/line-marks'
import { useDrawingStore } from '~/stores/drawing'
import { useStudioStore } from '~/stores/studio'
import { useViewStore } from '~/stores/view'
import { useChosenLines } from '~/workspace/use-chosen-lines'
import ContactSection from './ContactSection.vue'
import LightSection from './LightSection.vue'
import CopyMenu from './CopyMenu.vue'
import FinishMenu from './FinishMenu.vue'
import TaperMenu from './TaperMenu.vue'
import WeightGraph from './WeightGraph.vue'

const store = useDrawingStore()
const studio = useStudioStore()
const view = useViewStore()
const chosen = useChosenLines()

const first = computed(() => chosen.lines.value[0] ?? null)
const many = computed(() => chosen.lines.value.length > 1)

const range = computed(() => {
  if (!first.value) return ''
  const { total } = arcOf(first.value)
  const width = new LineWidth(first.value.weight, first.value.finish.align, total, first.value.path.closed)
  let low = Infinity
  let high = 0
  for (let i = 0; i <= 100; i++) {
    const h = width.at((i / 100) * total)
    low = Math.min(low, h.left + h.right)
    high = Math.max(high, h.left + h.right)
  }
  return `${low.toFixed(1)} – ${high.toFixed(1)} px`
})

const size = computed(() => first.value?.weight.size ?? 0)

/** A stop beside the chosen one, or in the line's first gap; it is chosen, so that the arrow keys can take it on. */
function addOne(): void {
  const line = first.value!
  const { weight, index } = addStopBeside(line.weight, view.stop?.index ?? 0, line.path.closed)
  chosen.change('Add a width stop', (l) => {
    if (l.id === line.id) l.weight = weight
  })
  view.stop = { line: line.id, index }
}

function dropStop(): void {
  const stop = view.stop
  if (!stop) return
  chosen.change('Remove a width stop', (l) => {
    if (l.id === stop.line) l.weight = removeStop(l.weight, stop.index)
  })
  view.stop = null
}

function setSize(e: Event): void {
  const input = e.target as HTMLInputElement
  const v = Number.parseFloat(input.value.replace(',', '.'))
  if (!(v >= 0 && v <= HEAVIEST)) {
    input.value = short(size.value, 2)
    store.notice = `A size is a number from 0 to ${HEAVIEST} px, so it stayed as it was.`
    return
  }
  studio.preferences.size = v
  chosen.change(`Size ${short(v, 2)} px`, (l) => void (l.weight.size = v))
}
</script>

<template>
  <ContactSection v-if="view.instrument === 'contact'" />
  <LightSection v-else-if="view.instrument === 'light'" />
  <div v-else class="flex h-full flex-col">
    <div class="flex h-6 items-center gap-3.5">
      <template v-if="first">
        <b class="font-[650]">{{ many ? `${chosen.lines.value.length} lines` : 'Line' }}</b>
        <span class="quiet number">{{ short(arcOf(first).total, 0) }} px long</span>
        <span class="number" data-testid="range">{{ range }}</span>
        <label class="flex items-center gap-1.5">
          <span class="quiet">Size</span>
          <input class="field number w-16 !py-0 text-right" :value="short(size, 2)" inputmode="decimal" aria-label="Size in px" data-testid="size" @change="setSize" @keydown.enter="($event.target as HTMLInputElement).blur()" />
          <span class="quiet number">px</span>
        </label>
        <span v-if="many" class="quiet truncate">The graph shows the first of them</span>
        <span class="ml-auto flex gap-4">
          <button class="quiet" title="Flip ends (F)" @click="chosen.change('Flip ends', (l) => void (l.weight = flipEnds(l.weight)))">Flip ends</button>
          <button class="quiet" title="Flip sides (Shift+F)" @click="chosen.change('Flip sides', (l) => void (l.weight = flipSides(l.weight)))">Flip sides</button>
          <TaperMenu />
          <FinishMenu />
          <CopyMenu />
          <button class="quiet" title="Add a width stop beside the chosen one" @click="addOne">Add stop</button>
          <button class="quiet" :disabled="!view.stop" title="Remove the chosen stop (Delete)" @click="dropStop">Remove stop</button>
        </span>
      </template>
      <b v-else class="font-[650]">No line chosen</b>
    </div>
    <WeightGraph v-if="first" :key="first.id" :line="first" class="mt-1" />
    <p v-else class="quiet mt-3 max-w-[560px]">Click a line on the drawing to see its width here. Edges in shadow are thick, edges that face the light are thin, an end that floats in space tapers.</p>
  </div>
</template>
