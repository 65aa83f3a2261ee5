<script setup lang="ts">
import { computed } from 'vue'
import { short } from '#core/geometry/path'
import { slideStops, widenStops } from '#core/weight/stops'
import type { StopsChange } from '~/instruments/chosen-stops'
import { keyOnStops, removalOf, sameStop, stopsByLine, stopsInWords, toggledStop } from '~/instruments/chosen-stops'
import { useDrawingStore } from '~/stores/drawing'
import { useScreenKeysStore } from '~/stores/screen-keys'
import { useStudioStore } from '~/stores/studio'
import { useViewStore } from '~/stores/view'
import { useGraph } from './use-graph'
import { useGraphDrag } from './use-graph-drag'

/** The width stops of the line in hand: jaws to drag apart, bars to slide. */
const store = useDrawingStore()
const view = useViewStore()
const studio = useStudioStore()
const keys = useScreenKeysStore()
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
    chosen: isChosen(index),
  })),
)

function isChosen(index: number): boolean {
  return view.stops.some((s) => sameStop(s, { line: line.value.id, index }))
}

/** Chooses the stop, unless it is among those that are chosen. */
function choose(index: number): void {
  if (!isChosen(index)) view.stops = [{ line: line.value.id, index }]
}

function press(e: PointerEvent, index: number, what: 'left' | 'right' | 'slide'): void {
  if (e.shiftKey || keys.held.shift) {
    view.stops = toggledStop(view.stops, { line: line.value.id, index })
    e.stopPropagation()
    return
  }
  choose(index)
  const id = line.value.id
  const chosen = stopsByLine(view.stops)
  const stop = line.value.weight.stops[index]!
  const words = stopsInWords(view.stops)
  if (what === 'slide') {
    take(e, {
      label: `Slide ${words}`,
      lines: [...chosen.keys()],
      change: (weight, to, _, of) => slideStops(weight, chosen.get(of)!, to.at - stop.at),
    })
    return
  }
  const slack = stop[what] * half.value - Math.abs(graph.pointAt(e).half)
  take(e, {
    label: `Change ${words}`,
    lines: [...chosen.keys()],
    change: (weight, to, event, of) => {
      const factor = Math.max(0, Math.abs(to.half) + slack) / half.value
      return widenStops(
        weight,
        chosen.get(of)!,
        of === id ? index : null,
        sidesOf(event, what),
        factor,
        stop[what] > 0 ? factor / stop[what] : 1,
      )
    },
  })
}

/** The chosen stops by keyboard: arrows slide and widen, Alt one side, Delete removes. */
function key(e: KeyboardEvent, index: number): void {
  choose(index)
  const change = keyOnStops(
    view.stops,
    e.key,
    e.shiftKey,
    studio.preferences.sidesLinked !== e.altKey ? 'both' : 'left',
  )
  if (!change) return
  e.preventDefault()
  e.stopPropagation()
  make(change)
}

function make({ label, recipe, removes }: StopsChange): void {
  store.edit(label, recipe)
  if (removes) view.stops = []
}

/** A stop that the Tab key comes to is chosen; what a press does is told by the press. */
function focus(e: FocusEvent, index: number): void {
  if ((e.target as Element).matches(':focus-visible')) choose(index)
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
    @focus="focus($event, s.index)"
    @keydown="key($event, s.index)"
    @dblclick.stop="make(removalOf([{ line: line.id, index: s.index }]))"
  >
    <line :x1="s.x" :x2="s.x" :y1="s.left" :y2="s.right" class="stroke-plum" :stroke-width="s.chosen ? 2.4 : 1.6" />
    <line
      :x1="s.x"
      :x2="s.x"
      :y1="s.left"
      :y2="s.right"
      stroke="transparent"
      stroke-width="14"
      class="cursor-ew-resize"
      data-testid="stop-bar"
      @pointerdown="press($event, s.index, 'slide')"
    />
    <path
      :d="`M${s.x - 6} ${s.left}h12M${s.x - 6} ${s.right}h12`"
      class="stroke-plum"
      :stroke-width="s.chosen ? 3 : 2"
    />
    <circle
      :cx="s.x"
      :cy="s.left"
      fill="transparent"
      class="grip grip-above cursor-ns-resize"
      data-testid="jaw-left"
      @pointerdown="press($event, s.index, 'left')"
    />
    <circle
      :cx="s.x"
      :cy="s.right"
      fill="transparent"
      class="grip grip-below cursor-ns-resize"
      data-testid="jaw-right"
      @pointerdown="press($event, s.index, 'right')"
    />
    <circle
      :cx="s.x"
      :cy="graph.y(0)"
      :r="s.chosen ? 4 : 3"
      class="pointer-events-none stroke-plum"
      :class="s.chosen ? 'fill-plum' : 'fill-paper'"
      stroke-width="1.5"
    />
  </g>
</template>
