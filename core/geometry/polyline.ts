import type { Vec } from './point'
import { distance } from './point'

/** The length of the way through points, px. */
export function polylineLength(points: readonly Vec[]): number {
  let sum = 0
  for (let i = 1; i < points.length; i++) sum += distance(points[i - 1]!, points[i]!)
  return sum
}
