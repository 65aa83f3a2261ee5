<script setup lang="ts">
import { area, scaleLinear } from 'd3'
import { computed, onBeforeUnmount, onMounted, ref, watch } from 'vue'
import type { Line, Vec } from '#core/drawing/model'
import { short } from '#core/geometry/path'
import { LineWidth } from '#core/weight/half-widths'
import type { Sides } from '#core/weight/stops'
import { addStop, removeStop, slideStop, widenStop } from '#core/weight/stops'
import { DRAG_START, screenDistance } from '~/instruments/instrument'
import { arcOf } from '~/instruments/line-marks'
import { useDrawingStore } from '~/stores/drawing'
import { changeLines, findLine } from '~/stores/find'
import { useViewStore } from '~/stores/view'

/** The width along one line: length across, left half up, right half down. Stops are dragged here. */
const props = defineProps<{ line: Line }>()

const store = useDrawingStore()
const view = useViewStore()

const MARGIN = { left: 40, right: 12, top: 6, bottom: 18 }
const SAMPLES = 160
/** Half-width at the graph's edge as a multiple of the line's widest place. */
const HEADROOM = 1.3

const box = ref<HTMLDivElement>()
const size = ref({ width: 600, height: 120 })
let observer: ResizeObserver | null = null

onMounted(() => {
  observer = new ResizeObserver(([entry]) => {
    size.value = { width: entry!.contentRect.width, height: entry!.contentRect.height }
  })
  observer.observe(box.value!)
})
onBeforeUnmount(() => observer?.disconnect())

const total = computed(() => arcOf(props.line).total)

const course = computed(() => {
  const width = new LineWidth(props.line.weight, 'centre', total.value, props.line.path.closed)
  return Array.from({ length: SAMPLES + 1 }, (_, i) => ({ at: i / SAMPLES, ...width.at((i / SAMPLES) * total.value) }))
})

/** Scales stay as they were while the hand drags, so that the graph does not run away from it. */
const heldReach = ref<number | null>(null)

const reach = computed(() => {
  if (heldReach.value !== null) return heldReach.value
  const widest = Math.max(...course.value.map((c) => Math.max(c.left, c.right)), ...props.line.weight.stops.map((s) => (Math.max(s.left, s.right) * props.line.weight.size) / 2))
  return Math.max(0.5, widest) * HEADROOM
})

const x = computed(() => scaleLinear([0, 1], [MARGIN.left, size.value.width - MARGIN.right]))
const y = computed(() => scaleLinear([reach.value, -reach.value], [MARGIN.top, size.value.height - MARGIN.bottom]))

const ribbon = computed(
  () =>
    area<(typeof course.value)[number]>()
      .x((c) => x.value(c.at))
      .y0((c) => y.value(-c.right))
      .y1((c) => y.value(c.left))(course.value) ?? '',
)

const lengthTicks = computed(() => {
  const px = scaleLinear([0, total.value], [0, 1])
  return px.ticks(5).map((t) => ({ text: short(t, 0), x: x.value(px(t)) }))
})
const widthTicks = computed(() => y.value.ticks(5).map((t) => ({ text: t > 0 ? `+${short(t, 1)}` : short(t, 1), y: y.value(t), zero: t === 0 })))

const stops = computed(() =>
  props.line.weight.stops.map((s, index) => ({
    index,
    x: x.value(s.at),
    left: y.value((s.left * props.line.weight.size) / 2),
    right: y.value((-s.right * props.line.weight.size) / 2),
    chosen: view.stop?.line === props.line.id && view.stop.index === index,
  })),
)

const place = computed(() => (view.place?.line === props.line.id ? x.value(view.place.at) : null))

type Grip = { index: number; what: 'left' | 'right' | 'slide'; slack: number; moved: boolean; at: number | null; pointer: number; screen: Vec }

const screenOf = (e: PointerEvent): Vec => ({ x: e.clientX, y: e.clientY })
let grip: Grip | null = null

const atPointer = (e: PointerEvent) => {
  const r = box.value!.getBoundingClientRect()
  return { at: Math.min(1, Math.max(0, x.value.invert(e.clientX - r.left))), half: y.value.invert(e.clientY - r.top) }
}

function take(e: PointerEvent, index: number, what: Grip['what']): void {
  if (e.button !== 0) return
  const stop = props.line.weight.stops[index]!
  const half = what === 'slide' ? 0 : (stop[what] * props.line.weight.size) / 2
  grip = { index, what, slack: half - Math.abs(atPointer(e).half), moved: false, at: null, pointer: e.pointerId, screen: screenOf(e) }
  view.stop = { line: props.line.id, index }
  box.value!.setPointerCapture(e.pointerId)
  e.stopPropagation()
}

/** A press on the ribbon adds a stop when it becomes a drag; on its own it changes nothing. */
function pressRibbon(e: PointerEvent): void {
  if (e.button !== 0) return
  const { at, half } = atPointer(e)
  const { index } = addStop(props.line.weight, at, props.line.path.closed)
  const here = course.value[Math.round(at * SAMPLES)]!
  const what = half >= 0 ? 'left' : 'right'
  grip = { index, what, slack: here[what] - Math.abs(half), moved: false, at, pointer: e.pointerId, screen: screenOf(e) }
  view.stop = null
  box.value!.setPointerCapture(e.pointerId)
}

function move(e: PointerEvent): void {
  const { at, half } = atPointer(e)
  if (!grip) {
    view.place = { line: props.line.id, at }
    return
  }
  const g = grip
  if (!g.moved && screenDistance(g.screen, screenOf(e)) < DRAG_START) return
  heldReach.value ??= reach.value
  g.moved = true
  view.stop = { line: props.line.id, index: g.index }
  store.change((draft) => {
    changeLines(draft, [props.line.id], (line) => {
      const start = g.at === null ? line.weight : addStop(line.weight, g.at, line.path.closed).weight
      if (g.what === 'slide') {
        line.weight = slideStop(start, g.index, at)
        return
      }
      const sides: Sides = e.altKey ? g.what : 'both'
      line.weight = widenStop(start, g.index, sides, Math.max(0, Math.abs(half) + g.slack) / (line.weight.size / 2 || 1))
    })
  })
}

function release(e: PointerEvent): void {
  if (!grip || e.pointerId !== grip.pointer) return
  if (grip.moved) store.finish(grip.at !== null ? 'Add a width stop' : grip.what === 'slide' ? 'Slide a width stop' : 'Change a width stop')
  grip = null
  heldReach.value = null
}

function taken(): void {
  if (grip) store.drop()
  grip = null
  heldReach.value = null
}

watch(() => store.overtaken, taken, { flush: 'sync' })

function remove(index: number): void {
  store.edit('Remove a width stop', (draft) => {
    changeLines(draft, [props.line.id], (line) => {
      line.weight = removeStop(line.weight, index)
    })
  })
  view.stop = null
}

/** A stop by keyboard: arrows slide and widen, Alt one side, Delete removes. */
function key(e: KeyboardEvent, index: number): void {
  const found = store.drawing && findLine(store.drawing, props.line.id)
  if (!found) return
  const { weight } = found.line
  const stop = weight.stops[index]!
  const step = e.shiftKey ? 0.1 : 0.02
  const sides: Sides = e.altKey ? 'left' : 'both'
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
  store.edit('Change a width stop', (draft) => {
    changeLines(draft, [props.line.id], (line) => {
      line.weight = next()
    })
  })
}
</script>

<template>
  <div
    ref="box"
    class="relative min-h-0 flex-1 touch-none select-none"
    data-testid="weight-graph"
    @pointermove="move"
    @pointerup="release"
    @pointercancel="taken"
    @pointerleave="!grip && (view.place = null)"
  >
    <svg class="absolute inset-0 h-full w-full" role="group" aria-label="Width along the line">
      <rect :x="MARGIN.left" :y="MARGIN.top" :width="Math.max(0, size.width - MARGIN.left - MARGIN.right)" :height="Math.max(0, size.height - MARGIN.top - MARGIN.bottom)" rx="6" class="fill-paper stroke-hair" />
      <g v-for="t in widthTicks" :key="t.text">
        <line :x1="MARGIN.left" :x2="size.width - MARGIN.right" :y1="t.y" :y2="t.y" :stroke="t.zero ? '#c6bba9' : '#ece5d9'" :stroke-dasharray="t.zero ? '3 4' : undefined" />
        <text :x="MARGIN.left - 6" :y="t.y + 4" text-anchor="end" class="number fill-mute text-[11px]">{{ t.text }}</text>
      </g>
      <g v-for="t in lengthTicks" :key="t.text">
        <line :x1="t.x" :x2="t.x" :y1="MARGIN.top" :y2="size.height - MARGIN.bottom" stroke="#ece5d9" />
        <text :x="t.x" :y="size.height - 4" text-anchor="middle" class="number fill-mute text-[11px]">{{ t.text }}</text>
      </g>
      <path :d="ribbon" class="cursor-copy fill-ink" opacity="0.9" data-testid="ribbon" @pointerdown="pressRibbon" />
      <line v-if="place !== null" :x1="place" :x2="place" :y1="MARGIN.top" :y2="size.height - MARGIN.bottom" class="pointer-events-none stroke-plum" stroke-dasharray="2 3" />
      <g
        v-for="s in stops"
        :key="s.index"
        tabindex="0"
        role="button"
        :aria-label="`Width stop ${s.index + 1}: ${short((line.weight.stops[s.index]!.left + line.weight.stops[s.index]!.right) * line.weight.size / 2, 1)} px wide at ${Math.round(line.weight.stops[s.index]!.at * 100)} %`"
        :data-testid="`stop-${s.index}`"
        class="outline-none"
        @focus="view.stop = { line: line.id, index: s.index }"
        @keydown="key($event, s.index)"
        @dblclick="remove(s.index)"
      >
        <line :x1="s.x" :x2="s.x" :y1="s.left" :y2="s.right" class="stroke-plum" :stroke-width="s.chosen ? 2.4 : 1.6" />
        <line :x1="s.x" :x2="s.x" :y1="s.left" :y2="s.right" stroke="transparent" stroke-width="14" class="cursor-ew-resize" data-testid="stop-bar" @pointerdown="take($event, s.index, 'slide')" />
        <path :d="`M${s.x - 6} ${s.left}h12M${s.x - 6} ${s.right}h12`" class="stroke-plum" :stroke-width="s.chosen ? 3 : 2" />
        <rect :x="s.x - 9" :y="s.left - 8" width="18" height="13" fill="transparent" class="cursor-ns-resize" data-testid="jaw-left" @pointerdown="take($event, s.index, 'left')" />
        <rect :x="s.x - 9" :y="s.right - 5" width="18" height="13" fill="transparent" class="cursor-ns-resize" data-testid="jaw-right" @pointerdown="take($event, s.index, 'right')" />
        <circle :cx="s.x" :cy="y(0)" :r="s.chosen ? 4 : 3" class="pointer-events-none stroke-plum" :class="s.chosen ? 'fill-plum' : 'fill-paper'" stroke-width="1.5" />
      </g>
    </svg>
  </div>
</template>
