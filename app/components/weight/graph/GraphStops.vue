<script setup lang="ts">
import { computed } from 'vue'
import { short } from '#core/geometry/path'
import { removeStop, scaleStops, slideStop, slideStops, widenStop } from '#core/weight/stops'
import { stopsByLine } from '~/instruments/caliper-drags'
import { useDrawingStore } from '~/stores/drawing'
import { changeLines, findLine } from '~/stores/find'
import { useStudioStore } from '~/stores/studio'
import { useViewStore } from '~/stores/view'
import { useGraph } from './use-graph'
import { useGraphDrag } from './use-graph-drag'

/** The width stops of the line in hand: jaws to drag apart, bars to slide. */
const store = useDrawingStore()
const view = useViewStore()
const studio = useStudioStore()
const graph = useGraph()
const { take, sidesOf } = useGraphDrag(graph)

const line = graph.line
const half = computed(() => line.value.weight.size / 2 || 1)

const stops = computed(() =>
  line.value.weight.stops.map((s, index) => ({
    index,
    x: graph.x(s.at),
    left: graph.y(s.left * half.value),
    right: graph.y(-s.right * half.value),
    words: `Width stop ${index + 1}: ${short((s.left + s.right) * half.value, 1)} px wide at ${Math.round(s.at * 100)} %`,
    chosen: view.stops.some((c) => c.line === line.value.id && c.index === index),
  })),
)

const isChosen = (index: number): boolean => view.stops.some((c) => c.line === line.value.id && c.index === index)

function choose(e: PointerEvent, index: number): boolean {
  const ref = { line: line.value.id, index }
  if (e.shiftKey) {
    view.stops = isChosen(index) ? view.stops.filter((c) => c.line !== ref.line || c.index !== index) : [...view.stops, ref]
    return false
  }
  if (!isChosen(index)) view.stops = [ref]
  return true
}

function press(e: PointerEvent, index: number, what: 'left' | 'right' | 'slide'): void {
  if (!choose(e, index)) {
    e.stopPropagation()
    return
  }
  const id = line.value.id
  const chosen = stopsByLine(view.stops)
  const stop = line.value.weight.stops[index]!
  const count = view.stops.length > 1 ? `${view.stops.length} width stops` : 'a width stop'
  if (what === 'slide') {
    take(e, { label: `Slide ${count}`, lines: [...chosen.keys()], change: (weight, to, _, of) => slideStops(weight, chosen.get(of)!, to.at - stop.at) })
    return
  }
  const slack = stop[what] * half.value - Math.abs(graph.pointAt(e).half)
  take(e, {
    label: `Change ${count}`,
    lines: [...chosen.keys()],
    change: (weight, to, event, of) => {
      const factor = Math.max(0, Math.abs(to.half) + slack) / half.value
      const sides = sidesOf(event, what)
      const others = new Set([...chosen.get(of)!].filter((i) => of !== id || i !== index))
      const grown = others.size ? scaleStops(weight, others, sides, stop[what] > 0 ? factor / stop[what] : 1) : weight
      return of === id ? widenStop(grown, index, sides, factor) : grown
    },
  })
}

function remove(index: number): void {
  store.edit('Remove a width stop', (draft) => void changeLines(draft, [line.value.id], (l) => void (l.weight = removeStop(l.weight, index))))
  view.stops = []
}

function focus(index: number): void {
  if (!isChosen(index)) view.stops = [{ line: line.value.id, index }]
}

/** A stop by keyboard: arrows slide and widen, Alt one side, Delete removes. */
function key(e: KeyboardEvent, index: number): void {
  const found = store.drawing && findLine(store.drawing, line.value.id)
  if (!found) return
  const { weight } = found.line
  const stop = weight.stops[index]!
  const step = e.shiftKey ? 0.1 : 0.02
  const sides = studio.preferences.sidesLinked !== e.altKey ? 'both' : 'left'
  const next = {
    ArrowLeft: () => slideStop(weight, index, stop.at - step / 2),
    ArrowRight: () => slideStop(weight, index, stop.at + step / 2),
    ArrowUp: () => widenStop(weight, index, sides, stop.left + step),
    ArrowDown: () => widenStop(weight, index, sides, stop.left - step),
    Delete: () => removeStop(weight, index),
    Backspace: () => removeStop(weight, index),
  }[e.key]
  if (!next) return
  e.preventDefault()
  e.stopPropagation()
  store.edit('Change a width stop', (draft) => void changeLines(draft, [line.value.id], (l) => void (l.weight = next())))
}
</script>

<template>
  <g
    v-for="s in stops"
    :key="s.index"
    tabindex="0"
    role="button"
    :aria-label="s.words"
    :data-testid="`stop-${s.index}`"
    class="outline-none"
    @focus="focus(s.index)"
    @keydown="key($event, s.index)"
    @dblclick.stop="remove(s.index)"
  >
    <line :x1="s.x" :x2="s.x" :y1="s.left" :y2="s.right" class="stroke-plum" :stroke-width="s.chosen ? 2.4 : 1.6" />
    <line :x1="s.x" :x2="s.x" :y1="s.left" :y2="s.right" stroke="transparent" stroke-width="14" class="cursor-ew-resize" data-testid="stop-bar" @pointerdown="press($event, s.index, 'slide')" />
    <path :d="`M${s.x - 6} ${s.left}h12M${s.x - 6} ${s.right}h12`" class="stroke-plum" :stroke-width="s.chosen ? 3 : 2" />
    <rect :x="s.x - 9" :y="s.left - 8" width="18" height="13" fill="transparent" class="cursor-ns-resize" data-testid="jaw-left" @pointerdown="press($event, s.index, 'left')" />
    <rect :x="s.x - 9" :y="s.right - 5" width="18" height="13" fill="transparent" class="cursor-ns-resize" data-testid="jaw-right" @pointerdown="press($event, s.index, 'right')" />
    <circle :cx="s.x" :cy="graph.y(0)" :r="s.chosen ? 4 : 3" class="pointer-events-none stroke-plum" :class="s.chosen ? 'fill-plum' : 'fill-paper'" stroke-width="1.5" />
  </g>
</template>
