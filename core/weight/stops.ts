import type { Weight, WidthStop } from '../model/model'
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
export const addStop = (weight: Weight, at: number, closed: boolean): { weight: Weight; index: number } =>
  addSwell(weight, at, closed, 0)

/**
 * As `addStop`, and on either side, `reach` (a share of the line) away, a stop that keeps the width as it was there, unless a
 * stop is nearer anyway: what is widened at `at` then widens nothing beyond. A reach of 0 adds the one stop alone.
 */
export function addSwell(
  weight: Weight,
  at: number,
  closed: boolean,
  reach: number,
): { weight: Weight; index: number } {
  const place = Math.min(1, Math.max(0, at))
  const known = weight.stops.findIndex((s) => Math.abs(s.at - place) < SAME)
  if (known >= 0) return { weight, index: known }
  const profile = new Profile(weight.stops, closed)
  const stopAt = (u: number): WidthStop => ({
    at: u,
    left: profile.sampleLeft(u).value,
    right: profile.sampleRight(u).value,
  })
  const stop = stopAt(place)
  const stops = [...weight.stops, stop]
  if (reach > 0) {
    const isNear = (s: WidthStop, u: number): boolean =>
      u < place ? s.at >= u - SAME && s.at < place : s.at <= u + SAME && s.at > place
    for (const u of [place - reach, place + reach])
      if (u > SAME && u < 1 - SAME && !weight.stops.some((s) => isNear(s, u))) stops.push(stopAt(u))
  }
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
  return withHandStops(
    weight,
    weight.stops.map((s, i) => (i === index ? onSides(s, sides, held) : s)),
  )
}

/**
 * `weight` with several stops widened by one of them: `lead` gets `factor`, the others are `k` times as wide as they were.
 * Where the lead is a stop of another line, it is null.
 */
export function widenStops(
  weight: Weight,
  indices: ReadonlySet<number>,
  lead: number | null,
  sides: Sides,
  factor: number,
  k: number,
): Weight {
  const scaled = changedSides(weight, indices, sides, (w, i) => (i === lead ? w : w * k))
  return lead === null ? scaled : widenStop(scaled, lead, sides, factor)
}

/** `weight` with several stops wider by `by` (a multiple of half the size) on the named sides. */
export const growStops = (weight: Weight, indices: ReadonlySet<number>, sides: Sides, by: number): Weight =>
  changedSides(weight, indices, sides, (w) => w + by)

const changedSides = (
  weight: Weight,
  indices: ReadonlySet<number>,
  sides: Sides,
  change: (w: number, index: number) => number,
): Weight =>
  withHandStops(
    weight,
    weight.stops.map((s, i) => {
      if (!indices.has(i)) return s
      const held = (w: number): number => Math.max(0, change(w, i))
      return {
        ...s,
        left: sides === 'right' ? s.left : held(s.left),
        right: sides === 'left' ? s.right : held(s.right),
      }
    }),
  )

/** `weight` with stop `index` moved to `at`, kept between its neighbours. */
export const slideStop = (weight: Weight, index: number, at: number): Weight =>
  slideStops(weight, new Set([index]), at - weight.stops[index]!.at)

/** `weight` with several stops moved together by a share of the line, as far as the stops that stay and the ends let them. */
export function slideStops(weight: Weight, indices: ReadonlySet<number>, by: number): Weight {
  let held = by
  weight.stops.forEach((s, i) => {
    if (!indices.has(i)) return
    const [before, after] = [weight.stops[i - 1], weight.stops[i + 1]]
    if (!before || !indices.has(i - 1)) held = Math.max(held, (before ? before.at + SAME : 0) - s.at)
    if (!after || !indices.has(i + 1)) held = Math.min(held, (after ? after.at - SAME : 1) - s.at)
  })
  return withHandStops(
    weight,
    weight.stops.map((s, i) => (indices.has(i) ? { ...s, at: s.at + held } : s)),
  )
}

/** `weight` without several stops; where none would be left one stays and becomes even. */
export function removeStops(weight: Weight, indices: ReadonlySet<number>): Weight {
  const kept = weight.stops.filter((_, i) => !indices.has(i))
  return withHandStops(weight, kept.length ? kept : [{ at: 0, left: 1, right: 1 }])
}
