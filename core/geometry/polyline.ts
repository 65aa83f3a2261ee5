import type { Vec } from './point'
import { distance } from './point'

/** The number of the point that lies nearest to another, the first of those as near; 0 where there is none. */
export function nearestIndex(points: readonly Vec[], { x, y }: Vec): number {
  let best = 0
  let least = Infinity
  for (let i = 0; i < points.length; i++) {
    const far = (points[i]!.x - x) ** 2 + (points[i]!.y - y) ** 2
    if (far < least) [best, least] = [i, far]
  }
  return best
}

/** The length of the way through points, px. */
export function polylineLength(points: readonly Vec[]): number {
  let sum = 0
  for (let i = 1; i < points.length; i++) sum += distance(points[i - 1]!, points[i]!)
  return sum
}
