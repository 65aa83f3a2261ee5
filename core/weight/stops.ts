import type { Weight, WidthStop } from '../drawing/model'
import { withHandStops } from './own-stops'
import { Profile } from './profile'

/** Stops closer than this are one, as a share of the line. */
const SAME = 1e-4

/** Which half of a width a hand changes. */
export type Sides = 'both' | 'left' | 'right'

const onSides = (stop: WidthStop, sides: Sides, factor: number): WidthStop => ({
  ...stop,
  left: sides === 'right' ? stop.left : factor,
  right: sides === 'left' ? stop.right : factor,
})

/**
 * `weight` with a stop at `at` (0..1) that leaves the profile as it was there; and the stop's index. On an open line an
 * end that the new stop would come to govern gets a stop of its own, so that what is widened here stays here.
 */
export function addStop(weight: Weight, at: number, closed: boolean): { weight: Weight; index: number } {
  const place = Math.min(1, Math.max(0, at))
  const known = weight.stops.findIndex((s) => Math.abs(s.at - place) < SAME)
  if (known >= 0) return { weight, index: known }
  const profile = new Profile(weight.stops, closed)
  const stopAt = (u: number): WidthStop => ({ at: u, left: profile.sampleLeft(u).value, right: profile.sampleRight(u).value })
  const stop = stopAt(place)
  const stops = [...weight.stops, stop]
  if (!closed && place > SAME && stops.every((s) => s.at >= place)) stops.push(stopAt(0))
  if (!closed && place < 1 - SAME && stops.every((s) => s.at <= place)) stops.push(stopAt(1))
  stops.sort((a, b) => a.at - b.at)
  return { weight: withHandStops(weight, stops), index: stops.indexOf(stop) }
}

/** `weight` with a stop in the middle of the gap after stop `after`, or before it where it is the last; and its index. */
export function addStopBeside(weight: Weight, after: number, closed: boolean): { weight: Weight; index: number } {
  const here = weight.stops[after]?.at ?? 0
  const next = weight.stops[after + 1]?.at ?? 1
  const before = weight.stops[after - 1]?.at ?? 0
  return addStop(weight, next - here > SAME ? (here + next) / 2 : (before + here) / 2, closed)
}

/** `weight` with stop `index` as wide as `factor` (a multiple of half the size, not negative) on the named sides. */
export function widenStop(weight: Weight, index: number, sides: Sides, factor: number): Weight {
  const held = Math.max(0, factor)
  return withHandStops(weight, weight.stops.map((s, i) => (i === index ? onSides(s, sides, held) : s)))
}

/** `weight` with stop `index` moved to `at`, kept between its neighbours. */
export function slideStop(weight: Weight, index: number, at: number): Weight {
  const low = index > 0 ? weight.stops[index - 1]!.at + SAME : 0
  const high = index + 1 < weight.stops.length ? weight.stops[index + 1]!.at - SAME : 1
  const held = Math.min(high, Math.max(low, at))
  return withHandStops(weight, weight.stops.map((s, i) => (i === index ? { ...s, at: held } : s)))
}

/** `weight` with several stops `k` times as wide on the named sides. */
export const scaleStops = (weight: Weight, indices: ReadonlySet<number>, sides: Sides, k: number): Weight =>
  withHandStops(
    weight,
    weight.stops.map((s, i) => (!indices.has(i) ? s : { ...s, left: sides === 'right' ? s.left : s.left * Math.max(0, k), right: sides === 'left' ? s.right : s.right * Math.max(0, k) })),
  )

/** `weight` with several stops moved together by a share of the line, as far as the stops that stay and the ends let them. */
export function slideStops(weight: Weight, indices: ReadonlySet<number>, by: number): Weight {
  let held = by
  weight.stops.forEach((s, i) => {
    if (!indices.has(i)) return
    const [before, after] = [weight.stops[i - 1], weight.stops[i + 1]]
    if (before ? !indices.has(i - 1) : true) held = Math.max(held, (before ? before.at + SAME : 0) - s.at)
    if (after ? !indices.has(i + 1) : true) held = Math.min(held, (after ? after.at - SAME : 1) - s.at)
  })
  return withHandStops(weight, weight.stops.map((s, i) => (indices.has(i) ? { ...s, at: s.at + held } : s)))
}

/** `weight` without several stops; where none would be left one stays and becomes even. */
export function removeStops(weight: Weight, indices: ReadonlySet<number>): Weight {
  const kept = weight.stops.filter((_, i) => !indices.has(i))
  return withHandStops(weight, kept.length ? kept : [{ at: 0, left: 1, right: 1 }])
}

/** `weight` without stop `index`; the last one stays and becomes even. */
export const removeStop = (weight: Weight, index: number): Weight => removeStops(weight, new Set([index]))
