import { useResizeObserver } from '@vueuse/core'
import { scaleLinear } from 'd3-scale'
import type { ComputedRef, InjectionKey, Ref } from 'vue'
import { computed, inject, provide, ref, watch } from 'vue'
import type { Line } from '#core/model/model'
import { LineWidth } from '#core/weight/half-widths'
import { arcOf } from '~/instruments/line-marks'
import { useStudioStore } from '~/stores/studio'
import { useViewStore } from '~/stores/view'

const MARGIN = { left: 42, right: 12, top: 8, bottom: 18 }
/** Half-width at the graph's edge as a multiple of the widest place. */
const HEADROOM = 1.3
const CLOSEST = 0.01

/** A place in the graph: share of the line's length, and half-width in px (positive on the left). */
export interface GraphPoint {
  at: number
  half: number
}

/** The scales of the weight graph about one line, over which others are laid. */
export interface Graph {
  line: ComputedRef<Line>
  total: ComputedRef<number>
  /** The frame of the plot, px of the graph. */
  frame: ComputedRef<{ left: number; right: number; top: number; bottom: number }>
  /** Where a share of a line's length lies; of the line in hand where none is named. */
  x: (at: number, line?: Line) => number
  /** Where a half-width of a line lies, px, positive to the left. */
  y: (half: number, line?: Line) => number
  ticks: ComputedRef<{ length: { text: string; x: number }[]; width: { text: string; y: number; zero: boolean }[] }>
  pointAt: (e: { clientX: number; clientY: number }) => GraphPoint
  zoomed: ComputedRef<boolean>
  zoomAt: (e: { clientX: number }, factor: number) => void
  slideBy: (px: number) => void
  showAll: () => void
}

const KEY: InjectionKey<Graph> = Symbol('graph')
export const useGraph = (): Graph => inject(KEY)!

export const wholeWidth = (line: Line): LineWidth =>
  new LineWidth(line.weight, 'centre', arcOf(line).total, line.path.closed)

/** Half the greatest width of a line, px, by its stops. */
const widestHalf = ({ weight }: Line): number =>
  (Math.max(...weight.stops.map((s) => Math.max(s.left, s.right))) * weight.size) / 2

export function provideGraph(
  box: Ref<HTMLElement | undefined>,
  line: ComputedRef<Line>,
  others: ComputedRef<readonly Line[]>,
): Graph {
  const studio = useStudioStore()
  const view = useViewStore()
  const size = ref({ width: 600, height: 120 })
  const window = ref<[number, number]>([0, 1])
  useResizeObserver(
    box,
    ([entry]) => (size.value = { width: entry!.contentRect.width, height: entry!.contentRect.height }),
  )
  watch(
    () => line.value.id,
    () => (window.value = [0, 1]),
  )

  const inPx = computed(() => studio.preferences.graphIn === 'px')
  const total = computed(() => arcOf(line.value).total)
  /** What the length axis measures for a share of a line: px, or the share itself. */
  const along = (at: number, of: Line): number => (inPx.value ? at * arcOf(of).total : at)
  /** What the width axis measures for a half-width: px, or a multiple of half the line's size. */
  const across = (half: number, of: Line): number =>
    inPx.value || !of.weight.size ? half : half / (of.weight.size / 2)

  const now = computed(() => {
    const all = [line.value, ...others.value]
    return {
      length: Math.max(...all.map((l) => along(1, l))) || 1,
      reach: Math.max(inPx.value ? 0.5 : 0.2, ...all.map((l) => across(widestHalf(l), l))) * HEADROOM,
    }
  })
  const kept = ref<{ length: number; reach: number } | null>(null)
  // Scales stay as they are while a hand drags, so that the graph does not run away from it.
  watch(
    () => view.graphHeld,
    (is) => (kept.value = is ? now.value : null),
    { flush: 'sync' },
  )
  const span = computed(() => kept.value ?? now.value)

  const frame = computed(() => ({
    left: MARGIN.left,
    right: Math.max(MARGIN.left, size.value.width - MARGIN.right),
    top: MARGIN.top,
    bottom: Math.max(MARGIN.top, size.value.height - MARGIN.bottom),
  }))
  const xScale = computed(() =>
    scaleLinear(
      window.value.map((w) => w * span.value.length),
      [frame.value.left, frame.value.right],
    ),
  )
  const yScale = computed(() =>
    scaleLinear([span.value.reach, -span.value.reach], [frame.value.top, frame.value.bottom]),
  )

  const ticks = computed(() => {
    const decimals = inPx.value ? 1 : 2
    const of = (t: number, digits: number): string => String(Number(t.toFixed(digits)))
    return {
      length: xScale.value
        .ticks(6)
        .map((t) => ({ text: inPx.value ? of(t, 1) : `${of(t * 100, 1)} %`, x: xScale.value(t) })),
      width: yScale.value
        .ticks(5)
        .map((t) => ({ text: (t > 0 ? '+' : '') + of(t, decimals), y: yScale.value(t), zero: t === 0 })),
    }
  })

  function pointAt(e: { clientX: number; clientY: number }): GraphPoint {
    const r = box.value!.getBoundingClientRect()
    const length = xScale.value.invert(e.clientX - r.left)
    const width = yScale.value.invert(e.clientY - r.top)
    return {
      at: Math.min(1, Math.max(0, inPx.value ? length / (total.value || 1) : length)),
      half: inPx.value || !line.value.weight.size ? width : (width * line.value.weight.size) / 2,
    }
  }

  function show(from: number, width: number): void {
    const w = Math.min(1, Math.max(CLOSEST, width))
    const a = Math.min(1 - w, Math.max(0, from))
    window.value = [a, a + w]
  }

  const graph: Graph = {
    line,
    total,
    frame,
    x: (at, of = line.value) => xScale.value(along(at, of)),
    y: (half, of = line.value) => yScale.value(across(half, of)),
    ticks,
    pointAt,
    zoomed: computed(() => window.value[1] - window.value[0] < 1),
    zoomAt: (e, factor) => {
      const r = box.value!.getBoundingClientRect()
      const at = xScale.value.invert(e.clientX - r.left) / span.value.length
      const [a, b] = window.value
      show(at - (at - a) / factor, (b - a) / factor)
    },
    slideBy: (px) => {
      const [a, b] = window.value
      show(a + (px / (frame.value.right - frame.value.left || 1)) * (b - a), b - a)
    },
    showAll: () => (window.value = [0, 1]),
  }
  provide(KEY, graph)
  return graph
}
