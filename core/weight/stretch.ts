import type { Weight, WidthStop } from '../model/model'
import { withHandStops } from './own-stops'
import { Profile } from './profile'

/** Stops closer than this are one, as a share of the line. */
const SAME = 1e-4
/** Where the course between two stops would be off by more than this, it gets one more: so often. */
const NEAR = 0.02
const ROUNDS = 2

/**
 * `weight` with all widths between two shares of the line `factor` times as wide, and as they were from `soft` (a share) beyond
 * on either side.
 *
 * @param from 0..1, before `to`; on a loop `to` may be past 1 by as much as it goes on over the start
 */
export function scaledStretch(
  weight: Weight,
  { from, to }: { from: number; to: number },
  factor: number,
  soft: number,
  closed: boolean,
): Weight {
  const profile = new Profile(weight.stops, closed)
  const within = (u: number): number => (closed ? ((u % 1) + 1) % 1 : Math.min(1, Math.max(0, u)))
  const isIn = (at: number): boolean => [at, at + 1].some((u) => u >= from - SAME && u <= to + SAME)
  const held = Math.max(0, factor)
  const stopAt = (u: number, k: number): WidthStop => ({
    at: within(u),
    left: profile.sampleLeft(within(u)).value * k,
    right: profile.sampleRight(within(u)).value * k,
  })
  const stops = weight.stops.map((s) => (isIn(s.at) ? { ...s, left: s.left * held, right: s.right * held } : s))
  const add = (u: number, k: number): void => {
    if (!closed && (u < -SAME || u > 1 + SAME)) return
    if (!stops.some((s) => Math.abs(s.at - within(u)) < SAME)) stops.push(stopAt(u, k))
  }
  add(from, held)
  add(to, held)
  for (const u of [from - soft, to + soft]) if (!isIn(within(u))) add(u, 1)
  // What is as wide as its end all the way there keeps that end.
  if (!closed) for (const u of [0, 1]) if (!isIn(u)) add(u, 1)
  for (let round = 0; round < ROUNDS; round++) {
    const now = new Profile(stops, closed)
    const sorted = stops.map((s) => s.at).sort((a, b) => a - b)
    for (const [i, at] of sorted.entries()) {
      const next = sorted[i + 1] ?? (closed ? sorted[0]! + 1 : at)
      const u = within((at + next) / 2)
      const isSoft = [u - 1, u, u + 1].some((v) => (v > from - soft && v < from) || (v > to && v < to + soft))
      if (isSoft || next - at < SAME) continue
      // Between two stops the course is what it was, but for the factor.
      const wanted = stopAt(u, isIn(u) ? held : 1)
      if (
        Math.abs(now.sampleLeft(u).value - wanted.left) > NEAR ||
        Math.abs(now.sampleRight(u).value - wanted.right) > NEAR
      )
        stops.push(wanted)
    }
  }
  return withHandStops(
    weight,
    stops.sort((a, b) => a.at - b.at),
  )
}
