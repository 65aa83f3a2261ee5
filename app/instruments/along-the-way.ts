import type { Vec } from '#core/geometry/point'
import { distance, lerp } from '#core/geometry/point'

/** A sweep looks for lines this often along its way, screen px. */
const STEP = 4

/** Places between where a sweeping hand was and where it is, so that no line is leapt over; `to` is the last. */
export function placesOnTheWay(from: Vec, to: Vec, zoom: number): Vec[] {
  const steps = Math.max(1, Math.ceil((distance(from, to) * zoom) / STEP))
  return Array.from({ length: steps }, (_, i) => lerp(from, to, (i + 1) / steps))
}
