import { arcOfPath, crossingsBetween } from '../geometry/known'
import type { Path } from '../geometry/path'

/** Where along `path` it crosses `other` or itself, shares of its arc length, ascending. */
export function placesAlong(path: Path, other: Path): number[] {
  const arc = arcOfPath(path)
  const found = crossingsBetween(path, other).flatMap((c) => (path === other ? [c.a, c.b] : [c.a]))
  return found.map(({ segment, t }) => arc.at(segment, t) / (arc.total || 1)).sort((a, b) => a - b)
}

/** Of several places along a line the one nearest to another. */
export const nearestTo = (at: number, places: readonly number[]): number =>
  places.reduce((best, p) => (Math.abs(p - at) < Math.abs(best - at) ? p : best))
