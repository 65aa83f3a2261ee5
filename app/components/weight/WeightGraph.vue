<script setup lang="ts">
import { area } from 'd3-shape'
import { computed, ref } from 'vue'
import type { Line } from '#core/model/model'
import { addSwell, widenStop } from '#core/weight/stops'
import { arcOf } from '~/instruments/line-marks'
import { useStudioStore } from '~/stores/studio'
import { useViewStore } from '~/stores/view'
import GraphStops from './graph/GraphStops.vue'
import GraphTapers from './graph/GraphTapers.vue'
import GraphTouches from './graph/GraphTouches.vue'
import PressureCourse from './graph/PressureCourse.vue'
import { provideGraph, wholeWidth } from './graph/use-graph'
import { useGraphDrag } from './graph/use-graph-drag'

/** The width along a line: length across, left half up, right half down; other chosen lines are laid over it. */
const props = defineProps<{ line: Line; others: readonly Line[] }>()
const emit = defineEmits<{ choose: [line: string] }>()

const studio = useStudioStore()
const view = useViewStore()
const box = ref<HTMLDivElement>()
const graph = provideGraph(
  box,
  computed(() => props.line),
  computed(() => props.others),
)
const { take, dragging, sidesOf } = useGraphDrag(graph)

const SAMPLES = 160

/** The ribbon of a line as the graph shows it. */
function ribbonOf(line: Line): string {
  const width = wholeWidth(line)
  const { total } = arcOf(line)
  const course = Array.from({ length: SAMPLES + 1 }, (_, i) => ({
    at: i / SAMPLES,
    ...width.at((i / SAMPLES) * total),
  }))
  return (
    area<(typeof course)[number]>()
      .x((c) => graph.x(c.at, line))
      .y0((c) => graph.y(-c.right, line))
      .y1((c) => graph.y(c.left, line))(course) ?? ''
  )
}

const ribbon = computed(() => ribbonOf(props.line))
const laidOver = computed(() => props.others.map((line) => ({ id: line.id, d: ribbonOf(line) })))
const place = computed(() => (view.place?.line === props.line.id ? graph.x(view.place.at) : null))

/** A press on the ribbon adds a stop when it becomes a drag; on its own it lets stops go. */
function pressRibbon(e: PointerEvent): void {
  const { at, half } = graph.pointAt(e)
  const { line } = props
  const side = half >= 0 ? 'left' : 'right'
  const here = wholeWidth(line).at(at * arcOf(line).total)[side]
  const slack = here - Math.abs(half)
  const reach = studio.preferences.swellReach
  const { index } = addSwell(line.weight, at, line.path.closed, reach)
  view.stops = []
  take(e, {
    label: 'Add a width stop',
    lines: [line.id],
    began: () => (view.stops = [{ line: line.id, index }]),
    change: (weight, to, event) => {
      const taper = wholeWidth(line).factorFor(1, at * arcOf(line).total)
      return widenStop(
        addSwell(weight, at, line.path.closed, reach).weight,
        index,
        sidesOf(event, side),
        Math.max(0, Math.abs(to.half) + slack) * taper,
      )
    },
  })
}

function hover(e: PointerEvent): void {
  if (!dragging()) view.place = { line: props.line.id, at: graph.pointAt(e).at }
}

/** The wheel zooms along the length where the pointer is; with Shift it slides. */
function wheel(e: WheelEvent): void {
  if (e.shiftKey) graph.slideBy(e.deltaY || e.deltaX)
  else graph.zoomAt(e, Math.exp(-(e.deltaMode === 1 ? e.deltaY * 30 : e.deltaY) * 0.002))
}
</script>

<template>
  <div
    ref="box"
    class="relative min-h-0 min-w-0 flex-1 touch-none select-none"
    data-testid="weight-graph"
    @pointermove="hover"
    @pointerleave="view.place = null"
    @wheel.prevent="wheel"
  >
    <svg class="absolute inset-0 h-full w-full" role="group" aria-label="Width along the line">
      <clipPath id="plot">
        <rect
          :x="graph.frame.value.left"
          :y="graph.frame.value.top"
          :width="graph.frame.value.right - graph.frame.value.left"
          :height="graph.frame.value.bottom - graph.frame.value.top"
          rx="6"
        />
      </clipPath>
      <clipPath id="marks">
        <rect
          :x="graph.frame.value.left - 12"
          y="0"
          :width="graph.frame.value.right - graph.frame.value.left + 24"
          :height="graph.frame.value.bottom + 2"
        />
      </clipPath>
      <rect
        :x="graph.frame.value.left"
        :y="graph.frame.value.top"
        :width="graph.frame.value.right - graph.frame.value.left"
        :height="graph.frame.value.bottom - graph.frame.value.top"
        rx="6"
        class="fill-paper stroke-hair"
        @dblclick="graph.showAll()"
      />
      <g v-for="t in graph.ticks.value.width" :key="t.text">
        <line
          :x1="graph.frame.value.left"
          :x2="graph.frame.value.right"
          :y1="t.y"
          :y2="t.y"
          :stroke="t.zero ? '#c6bba9' : '#ece5d9'"
          :stroke-dasharray="t.zero ? '3 4' : undefined"
        />
        <text
          v-if="t.y < graph.frame.value.bottom - 14 && t.y > graph.frame.value.top + 6"
          :x="graph.frame.value.left - 8"
          :y="t.y + 4"
          text-anchor="end"
          class="number fill-mute text-[11px]"
        >
          {{ t.text }}
        </text>
      </g>
      <g v-for="t in graph.ticks.value.length" :key="t.text">
        <line :x1="t.x" :x2="t.x" :y1="graph.frame.value.top" :y2="graph.frame.value.bottom" stroke="#ece5d9" />
        <text
          v-if="t.x < graph.frame.value.right - 10"
          :x="t.x + 3"
          :y="graph.frame.value.bottom - 4"
          class="number fill-mute text-[10.5px]"
        >
          {{ t.text }}
        </text>
      </g>
      <g clip-path="url(#plot)">
        <path
          v-for="o in laidOver"
          :key="o.id"
          :d="o.d"
          class="cursor-pointer fill-plum/10 stroke-plum/60"
          stroke-width="1"
          data-testid="laid-over"
          @pointerdown.stop="emit('choose', o.id)"
        />
        <path :d="ribbon" class="cursor-copy fill-ink" opacity="0.9" data-testid="ribbon" @pointerdown="pressRibbon" />
        <PressureCourse v-if="line.trace" />
        <line
          v-if="place !== null"
          :x1="place"
          :x2="place"
          :y1="graph.frame.value.top"
          :y2="graph.frame.value.bottom"
          class="pointer-events-none stroke-plum"
          stroke-dasharray="2 3"
        />
      </g>
      <g clip-path="url(#marks)">
        <GraphStops />
        <GraphTapers />
      </g>
      <GraphTouches />
    </svg>
    <button
      v-if="graph.zoomed.value"
      class="number absolute top-2 right-4 rounded bg-panel/90 px-1.5 text-[11px] text-mute-deep underline decoration-dotted"
      @click="graph.showAll()"
    >
      whole line
    </button>
  </div>
</template>
