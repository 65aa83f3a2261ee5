import type { End } from '../geometry/ends'
import type { Taper, Weight } from '../model/model'

/** A taper that a hand draws in runs out to a point. */
const DRAWN: Taper = { length: 0, unit: 'px', tip: 0, ease: 'round' }

/** Shorter than this a taper is none, px. */
const SHORTEST = 0.5

const FIELD = { first: 'start', last: 'end' } as const

/** The taper at an end of a line, if it has one. */
export const taperAtEnd = (weight: Weight, end: End): Taper | null => weight[FIELD[end]]

/** `weight` with a taper at an end, or none. */
export const withTaper = (weight: Weight, end: End, taper: Taper | null): Weight => ({ ...weight, [FIELD[end]]: taper })

/** The same, set by hand. */
const withHandTaper = (weight: Weight, end: End, taper: Taper | null): Weight => ({
  ...withTaper(weight, end, taper),
  pinned: true,
})

/** `weight` with the taper at an end `length` px long on a line of `total` px, in the unit it has; without it where that is nothing. */
export function withTaperLength(weight: Weight, end: End, length: number, total: number): Weight {
  if (!(length >= SHORTEST)) return withHandTaper(weight, end, null)
  const taper = taperAtEnd(weight, end) ?? DRAWN
  const held = Math.min(length, total)
  return withHandTaper(weight, end, { ...taper, length: taper.unit === '%' ? (held / total) * 100 : held })
}

/** `weight` with the taper at an end running out to a share 0..1 of the width there; unchanged where there is no taper. */
export function withTip(weight: Weight, end: End, tip: number): Weight {
  const taper = taperAtEnd(weight, end)
  return taper ? withHandTaper(weight, end, { ...taper, tip: Math.min(1, Math.max(0, tip)) }) : weight
}
