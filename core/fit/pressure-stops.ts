import type { PenTrace, WidthStop } from '../model/model'
import { Profile } from '../weight/profile'
import { APART, fewStops } from './few-stops'
import { keptPoints } from '../geometry/kept-points'
import { loopOfTrace } from './loop-of-trace'
import { gathered, pressureWidths } from './pressure-widths'

/**
 * How far the stops' profile may lie from the pressure's where a trace does not say, as shares of the full width: the
 * first that few stops keep to.
 */
export const WIDTH_TOLERANCES = [0.06, 0.09, 0.12] as const
/** Few stops are no more than this: a hand can still tune them. */
const FEW = 8

const EVEN: readonly WidthStop[] = [{ at: 0, left: 1, right: 1 }]

/**
 * The widths of a trace as few width stops, whose profile lies within a tolerance of its widths: the trace's own, or the
 * closest that takes no more than eight stops. One even stop where neither pressure nor speed says anything.
 */
export function pressureStops(trace: PenTrace): WidthStop[] {
  const points = pressureWidths(trace.loop ? loopOfTrace(trace) : trace)
  if (!points || points.length < 2) return [...EVEN]
  const course = gathered(points, APART)
  if (trace.widthTolerance) return fewStops(course, trace.widthTolerance)
  let stops: WidthStop[] = []
  for (const tolerance of WIDTH_TOLERANCES) {
    stops = fewStops(course, tolerance)
    if (stops.length <= FEW) break
  }
  return stops
}

/** As `pressureStops`, at once and with more stops: for a stroke that is still being drawn. */
export function quickStops(trace: PenTrace): WidthStop[] {
  const points = pressureWidths(trace)
  if (!points || points.length < 2) return [...EVEN]
  const kept = keptPoints(
    points.map((p) => p.s),
    points.map((p) => p.w),
    WIDTH_TOLERANCES[0],
  )
  return kept.map((i) => ({ at: points[i]!.s, left: points[i]!.w, right: points[i]!.w }))
}

/** How far the profile of `stops` lies from the widths that a trace asks for at most, as a share of the full width. */
export function pressureDeviation(trace: PenTrace, stops: readonly WidthStop[]): number {
  const points = gathered(pressureWidths(trace) ?? [], APART)
  const profile = new Profile(stops, false)
  return Math.max(0, ...points.map((p) => Math.abs(profile.sampleLeft(p.s).value - p.w)))
}
