import type { Path } from '../geometry/path'
import type { PenTrace, Weight } from '../model/model'
import { pathByTrace } from './fit-trace'
import { pressureStops } from './pressure-stops'

/** The weight of a stroke: as it is, or by the pen's pressure where that is wanted and says anything. */
export const weightByTrace = (weight: Weight, stops: Weight['stops'], wanted: boolean): Weight =>
  wanted && stops.length > 1 ? { ...weight, stops, start: null, end: null } : weight

/** Path and weight of a stroke that a hand drew. */
export const lineFromTrace = (trace: PenTrace, weight: Weight, pressure: boolean): { path: Path; weight: Weight } => ({
  path: pathByTrace(trace),
  weight: weightByTrace(weight, pressureStops(trace), pressure),
})
