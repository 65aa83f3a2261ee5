import type { WidthStop } from '../model/model'
import { Profile } from './profile'

/** Stops lie no nearer to each other than this, as a share of the line. */
const APART = 0.012
/** No course gets more stops than this. */
const MOST = 48

/** The widths of both sides along a line, as factors, at ascending places 0..1; of a closed line the first is not repeated. */
export interface WidthCourse {
  at: ArrayLike<number>
  left: ArrayLike<number>
  right: ArrayLike<number>
}

/**
 * Few stops whose profile carries a course within `tolerance` (a factor): they stand at its ends and its extremes, where a
 * hand would set them, and where the profile between those is farthest off; what the others do without is taken out again.
 *
 * @param held stops that stay, at the places at which they are
 */
export function fewestStops(
  course: WidthCourse,
  closed: boolean,
  tolerance: number,
  held: readonly WidthStop[] = [],
): WidthStop[] {
  const { at, left, right } = course
  const n = at.length
  const isFree = (u: number, among: readonly WidthStop[]): boolean => among.every((s) => gap(s.at, u, closed) > APART)
  const stopAt = (i: number): WidthStop => ({ at: at[i]!, left: left[i]!, right: right[i]! })
  let stops = [...held]
  const put = (i: number): boolean => {
    if (i < 0 || stops.length >= MOST || !isFree(at[i]!, stops)) return false
    stops = [...stops, stopAt(i)].sort((a, b) => a.at - b.at)
    return true
  }
  if (!closed) [0, n - 1].forEach(put)
  for (const i of extremes(left, closed, tolerance)) put(i)
  for (const i of extremes(right, closed, tolerance)) put(i)
  if (!stops.length) put(0)
  // The worst place of each stretch between two stops gets one, until none is off.
  for (let more = true; more;) {
    const now = stops
    more = false
    for (const i of worstBetween(now, course, closed, tolerance)) if (isFree(at[i]!, now) && put(i)) more = true
  }
  const isHeld = new Set(held)
  for (let k = stops.length - 1; k >= 0; k--) {
    if (stops.length < 2 || isHeld.has(stops[k]!)) continue
    const without = stops.filter((_, j) => j !== k)
    if (!worstBetween(without, course, closed, tolerance).length) stops = without
  }
  return stops
}

/** How far two places lie from each other, as a share of the line; round the seam of a closed one. */
function gap(a: number, b: number, closed: boolean): number {
  const d = Math.abs(a - b)
  return closed ? Math.min(d, 1 - d) : d
}

/** Where the profile through stops comes off a course by more than `tolerance`: the worst place of each stretch between two stops. */
function worstBetween(
  stops: readonly WidthStop[],
  { at, left, right }: WidthCourse,
  closed: boolean,
  tolerance: number,
): number[] {
  const profile = new Profile(stops, closed)
  const out = new Float64Array(4)
  const worst: number[] = []
  let stretch = 0
  let most = tolerance
  let here = -1
  for (let i = 0; i < at.length; i++) {
    if (stretch < stops.length && at[i]! >= stops[stretch]!.at) {
      if (here >= 0) worst.push(here)
      while (stretch < stops.length && at[i]! >= stops[stretch]!.at) stretch++
      most = tolerance
      here = -1
    }
    profile.sampleBoth(at[i]!, false, out)
    const off = Math.max(Math.abs(out[0]! - left[i]!), Math.abs(out[1]! - right[i]!))
    if (off <= most) continue
    most = off
    here = i
  }
  if (here >= 0) worst.push(here)
  return worst
}

/** Where values turn from rising to falling or back, by more than `least` from the turn before. */
function extremes(values: ArrayLike<number>, closed: boolean, least: number): number[] {
  const n = values.length
  const found: number[] = []
  let from = 0
  let way = 0
  let far = 0
  const last = closed ? n + 1 : n
  for (let k = 1; k < last; k++) {
    const [v, top] = [values[k % n]!, values[far % n]!]
    if (way >= 0 && v > top) far = k
    else if (way <= 0 && v < top) far = k
    const now = values[far % n]! - values[from % n]!
    if (!way && Math.abs(now) > least) way = Math.sign(now)
    if (way && (values[far % n]! - v) * way > least) {
      if (closed || far > 0) found.push(far % n)
      from = far
      way = -way
      far = k
    }
  }
  return found
}
