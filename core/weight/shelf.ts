import type { Taper, Weight, WidthStop } from '../model/model'
import { withOwnStops, withStopsChanged } from './own-stops'

/** A named course of widths that can be put on any line; the line keeps its size. */
export interface ShelfProfile {
  id: string
  name: string
  stops: WidthStop[]
  start: Taper | null
  end: Taper | null
}

const even = (at: number, w: number): WidthStop => ({ at, left: w, right: w })

/** The profiles that ship with the application. */
export const SHELF: readonly ShelfProfile[] = [
  { id: 'even', name: 'Even', stops: [even(0, 1)], start: null, end: null },
  { id: 'both', name: 'Both ends tapered', stops: [even(0, 0), even(0.5, 1), even(1, 0)], start: null, end: null },
  { id: 'end', name: 'End tapered', stops: [even(0, 1), even(0.45, 0.86), even(1, 0)], start: null, end: null },
  { id: 'start', name: 'Start tapered', stops: [even(0, 0), even(0.55, 0.86), even(1, 1)], start: null, end: null },
  {
    id: 'swelling',
    name: 'Swelling',
    stops: [even(0, 0.3), even(0.3, 0.55), even(0.68, 1.15), even(1, 0.35)],
    start: null,
    end: null,
  },
]

/** `weight` with the course of `profile`, size kept. */
export const withProfile = (weight: Weight, profile: ShelfProfile): Weight => ({
  ...withOwnStops(
    weight,
    profile.stops.map((s) => ({ ...s })),
  ),
  start: profile.start && { ...profile.start },
  end: profile.end && { ...profile.end },
})

/** The same weight from the other end of the line: places mirrored, sides as seen along the line kept. */
export const flipEnds = (weight: Weight): Weight => ({
  ...withStopsChanged(weight, (stops) => stops.map((s) => ({ ...s, at: 1 - s.at })).reverse()),
  start: weight.end,
  end: weight.start,
})

/** Left and right changed over. */
export const flipSides = (weight: Weight): Weight =>
  withStopsChanged(weight, (stops) => stops.map((s) => ({ ...s, left: s.right, right: s.left })))

/** Whether the weight follows `profile` as it is on the shelf. */
export function follows(weight: Weight, profile: ShelfProfile): boolean {
  return (
    JSON.stringify([weight.unlit ?? weight.stops, weight.start, weight.end]) ===
    JSON.stringify([profile.stops, profile.start, profile.end])
  )
}

/**
 * A shelf that two windows changed from one `base`: mine in my order, with what they changed and I did not, without what
 * they took off unless I changed it, and what they added at the end.
 */
export function mergedShelf(
  base: readonly ShelfProfile[],
  mine: readonly ShelfProfile[],
  theirs: readonly ShelfProfile[],
): ShelfProfile[] {
  const was = new Map(base.map((p) => [p.id, p]))
  const is = new Map(theirs.map((p) => [p.id, p]))
  const changed = (p: ShelfProfile): boolean => JSON.stringify(p) !== JSON.stringify(was.get(p.id))
  const kept = mine.flatMap((p) => (changed(p) ? [p] : (is.get(p.id) ?? [])))
  const known = new Set([...base, ...mine].map((p) => p.id))
  return [...kept, ...theirs.filter((p) => !known.has(p.id))]
}
