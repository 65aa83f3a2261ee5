import type { WidthStop } from '../model/model'
import { Profile } from '../weight/profile'
import type { WidthPoint } from './pressure-widths'

/** Stops keep this far apart, and points closer than this are one, as a share of the line. */
export const APART = 0.004
/** No course needs more stops than this. */
const MOST = 60
/** Steps by which a stop's width is tried, in tolerances, and its place, in shares of the way to its neighbour. */
const WIDTH_STEPS = [0.5, -0.5, 0.2, -0.2]
const PLACE_STEPS = [0.3, -0.3, 0.1, -0.1]
const ROUNDS = 2
/** So many points stand for a course while stops are looked for; all of them are measured in the end. */
const ENOUGH = 110

interface Knot {
  at: number
  w: number
}

/**
 * Few width stops whose profile lies within `tolerance` (a width factor) of a course of points along a line: stops are set
 * where the profile is farthest off, moved to where they serve best, and taken out again where the others do without.
 */
export function fewStops(points: readonly WidthPoint[], tolerance: number): WidthStop[] {
  const some = thinnedTo(points, ENOUGH)
  let knots: Knot[] = [
    { at: 0, w: points[0]!.w },
    { at: 1, w: points[points.length - 1]!.w },
  ]
  // What was left out while looking may still be off: it is looked at with the rest then.
  for (const course of some.length < points.length ? [some, points] : [some]) {
    while (knots.length < MOST) {
      const apart = knots
      const worst = farthest(
        knots,
        course.filter((p) => apart.every((k) => Math.abs(k.at - p.s) >= APART)),
      )
      if (worst.off <= tolerance) break
      const knot = { at: worst.point.s, w: worst.point.w }
      knots = settled(
        [...knots, knot].sort((a, b) => a.at - b.at),
        course,
        tolerance,
      )
    }
  }
  knots = pruned(knots, some, points, tolerance)
  return knots.map(({ at, w }) => ({ at, left: w, right: w }))
}

const stopsOf = (knots: readonly Knot[]): WidthStop[] => knots.map(({ at, w }) => ({ at, left: w, right: w }))

/** How far the profile through knots lies from a course at most, and where. */
function farthest(knots: readonly Knot[], course: readonly WidthPoint[]): { off: number; point: WidthPoint } {
  const profile = new Profile(stopsOf(knots), false)
  let off = -1
  let point: WidthPoint = course[0] ?? { s: 0, w: 0 }
  for (const p of course) {
    const d = Math.abs(profile.sampleLeft(p.s).value - p.w)
    if (d <= off) continue
    off = d
    point = p
  }
  return { off, point }
}

/** So many points of a course, evenly spread. */
function thinnedTo(points: readonly WidthPoint[], count: number): readonly WidthPoint[] {
  if (points.length <= count) return points
  return Array.from({ length: count }, (_, i) => points[Math.round((i * (points.length - 1)) / (count - 1))]!)
}

/** Knots moved one by one to where their surroundings are met best. */
function settled(knots: readonly Knot[], course: readonly WidthPoint[], tolerance: number): Knot[] {
  let now = [...knots]
  for (let round = 0; round < ROUNDS; round++) {
    const before = now
    now.forEach((_, i) => (now = bestAt(now, i, course, tolerance)))
    if (now === before) break
  }
  return now
}

/** Knots with the one at `i` where the profile about it is least off: its spans and the next ones heed it, no others. */
function bestAt(knots: Knot[], i: number, course: readonly WidthPoint[], tolerance: number): Knot[] {
  // The ends stay as the hand pressed them.
  if (i === 0 || i === knots.length - 1) return knots
  const from = knots[i - 2]?.at ?? 0
  const to = knots[i + 2]?.at ?? 1
  const here = course.filter((p) => p.s >= from && p.s <= to)
  const off = (all: readonly Knot[]): number => farthest(all.slice(Math.max(0, i - 3), i + 4), here).off
  let best = knots
  let least = off(knots)
  const attempt = (knot: Knot): void => {
    const next = best.map((k, j) => (j === i ? knot : k))
    const now = off(next)
    if (now < least - 1e-6) {
      best = next
      least = now
    }
  }
  for (const step of WIDTH_STEPS) attempt({ ...best[i]!, w: Math.max(0, best[i]!.w + step * tolerance) })
  for (const step of PLACE_STEPS) {
    const { at } = best[i]!
    const gap = step > 0 ? best[i + 1]!.at - at : at - best[i - 1]!.at
    const moved = at + step * gap
    if (moved - best[i - 1]!.at >= APART && best[i + 1]!.at - moved >= APART) attempt({ ...best[i]!, at: moved })
  }
  return best
}

/** Without the knots that the others do without. */
function pruned(
  knots: readonly Knot[],
  some: readonly WidthPoint[],
  all: readonly WidthPoint[],
  tolerance: number,
): Knot[] {
  let now = [...knots]
  for (let i = 1; i + 1 < now.length;) {
    const without = settled(
      now.filter((_, j) => j !== i),
      some,
      tolerance,
    )
    if (farthest(without, all).off <= tolerance) {
      now = without
      i = Math.max(1, i - 1)
    } else i++
  }
  return now
}
