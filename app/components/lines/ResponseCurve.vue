<script setup lang="ts">
import { scaleLinear } from 'd3-scale'
import { line } from 'd3-shape'
import { computed, ref } from 'vue'
import { responseTo } from '#core/fit/pressure-widths'

/** How pressure counts, as a curve: its ends slide along, its middle bends it. */
const props = defineProps<{ exponent: number; least: number; most: number; disabled?: boolean }>()
const emit = defineEmits<{ look: [patch: Patch]; keep: [patch: Patch] }>()

interface Patch {
  response?: number
  least?: number
  most?: number
}

const WIDTH = 150
const HEIGHT = 92
const PAD = 9
/** The least and most pressure stay so far apart. */
const APART = 0.1
const STEP = 0.05

const STEPS = Array.from({ length: 51 }, (_, i) => i / 50)
const x = scaleLinear([0, 1], [PAD, WIDTH - PAD])
const y = scaleLinear([0, 1], [HEIGHT - PAD, PAD])

const respond = (p: number): number => responseTo(p, { response: props.exponent, least: props.least, most: props.most })
const curve = computed(() =>
  line<number>(
    (p) => x(p),
    (p) => y(respond(p)),
  )(STEPS)!,
)
const middle = computed(() => (props.least + props.most) / 2)

const clamp = (v: number, low: number, high: number): number => Math.min(high, Math.max(low, v))

type Grip = 'least' | 'middle' | 'most'
const grips = computed(() => [
  { id: 'least' as const, label: 'Least pressure that counts', x: props.least, y: 0, value: props.least },
  {
    id: 'middle' as const,
    label: 'Width at middle pressure',
    x: middle.value,
    y: respond(middle.value),
    value: respond(middle.value),
  },
  { id: 'most' as const, label: 'Pressure of full width', x: props.most, y: 1, value: props.most },
])

function patchTo(grip: Grip, px: number, py: number): Patch {
  if (grip === 'least') return { least: clamp(px, 0, props.most - APART) }
  if (grip === 'most') return { most: clamp(px, props.least + APART, 1) }
  // The curve passes through a half raised to the exponent in its middle.
  return { response: clamp(Math.log(clamp(py, 0.05, 0.95)) / Math.log(0.5), 0.1, 5) }
}

const svg = ref<SVGSVGElement>()
let held: Grip | null = null
let last: Patch = {}

function press(e: PointerEvent, grip: Grip): void {
  if (props.disabled) return
  held = grip
  last = {}
  ;(e.currentTarget as Element).setPointerCapture(e.pointerId)
}

function move(e: PointerEvent): void {
  if (!held || !svg.value) return
  const box = svg.value.getBoundingClientRect()
  last = patchTo(held, x.invert(e.clientX - box.left), y.invert(e.clientY - box.top))
  emit('look', last)
}

function release(): void {
  if (held && Object.keys(last).length) emit('keep', last)
  held = null
}

function key(e: KeyboardEvent, grip: Grip): void {
  const way = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1 }[e.key]
  if (!way || props.disabled) return
  e.preventDefault()
  e.stopPropagation()
  const g = grips.value.find((q) => q.id === grip)!
  emit('keep', patchTo(grip, g.x + way * STEP, g.y + way * STEP))
}
</script>

<template>
  <svg
    ref="svg"
    :width="WIDTH"
    :height="HEIGHT"
    class="shrink-0 touch-none rounded-lg border border-hair bg-raise"
    role="group"
    aria-label="Pressure curve: pressure across, width up"
    data-testid="response-curve"
  >
    <line :x1="x(0)" :y1="y(0)" :x2="x(1)" :y2="y(1)" class="stroke-hair" stroke-dasharray="3 3" />
    <path :d="curve" fill="none" class="stroke-ink" stroke-width="1.6" />
    <g
      v-for="g in grips"
      :key="g.id"
      :transform="`translate(${x(g.x)} ${y(g.y)})`"
      role="slider"
      tabindex="0"
      :aria-label="g.label"
      aria-valuemin="0"
      aria-valuemax="100"
      :aria-valuenow="Math.round(g.value * 100)"
      class="cursor-grab outline-none [&:focus-visible>circle:last-child]:stroke-ink"
      @pointerdown="press($event, g.id)"
      @pointermove="move"
      @pointerup="release"
      @pointercancel="release"
      @keydown="key($event, g.id)"
    >
      <circle class="grip" fill="transparent" />
      <circle r="4.4" class="fill-paper stroke-plum" stroke-width="1.8" />
    </g>
  </svg>
</template>
