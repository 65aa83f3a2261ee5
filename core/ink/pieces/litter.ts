import type { Hold, Line } from '../../model/model'
import type { Path } from '../../geometry/path'
import type { Vec } from '../../geometry/point'
import { areaOfCubics } from '../../geometry/area'
import { isWithin } from '../../geometry/bounds'
import type { Cubic } from '../../geometry/cubic'
import { cubicsOfPath } from '../../geometry/path'
import { windingAt } from '../../geometry/winding-at'
import { toPaths } from '../../arrangement/contours'
import type { EndContact } from '../../relations/end-contacts'
import { beyondFence } from './fence'
import type { Region } from '../outlines/outlines'
import type { PieceHit } from './piece-at'
import { placeBy } from './trim-place'
import type { Trimmed } from './trim-stage'
import { isWhole } from './trim-stage'
import { remembered } from '../../remembered'

/** Px squared. */
const areaOf = remembered(({ contours }: Region): number => contours.reduce((n, c) => n + areaOfCubics(c), 0))

/** The middle of a region's bounds, px. */
export const middleOf = ({ box }: Region): Vec => ({ x: (box.minX + box.maxX) / 2, y: (box.minY + box.maxY) / 2 })

/** The ink of a line, where that is less than `least` px squared and lies on no other ink: it prints as dirt. */
export function speckOf(line: Line, shown: Trimmed['shown'], least: number): Region | null {
  const region = shown.get(line.id)?.region
  if (!region?.contours.length || areaOf(region) >= least) return null
  // What lies on other ink is part of that.
  const p = middleOf(region)
  return [...shown.values()].some(
    (o) => o.item !== line && isWithin(p, o.region.box) && windingAt(o.region.contours, p) !== 0,
  )
    ? null
    : region
}

/** A region, by its outer contour and the stretches of lines that bound it. */
export interface Bounded {
  outer: Path
  hold: readonly Hold[]
}

/** What counts as litter: what sticks in by so many sizes of its line at most, and specks of so many px squared at most. */
export interface LitterLimits {
  most: number
  least: number
}

/** Loose ends that stick into regions beyond the lines that bound these, and specks that lie in them; each as what trimming takes away. */
export function* litterIn(
  regions: readonly Bounded[],
  { most, least }: LitterLimits,
  stack: Trimmed,
  lines: readonly Line[],
  endsOf: (id: string) => readonly EndContact[],
  tolerance: number,
): Generator<number, PieceHit[]> {
  const hits: PieceHit[] = []
  const gone = new Set(stack.trims.flatMap((t) => (t.piece && isWhole(t.trim) ? [t.trim.line] : [])))
  for (const [i, { outer, hold }] of regions.entries()) {
    yield i / regions.length
    const edge = [cubicsOfPath({ ...outer, closed: true })]
    hits.push(...lines.flatMap((line) => (gone.has(line.id) ? [] : speckIn(line, edge, stack.shown, least))))
    const bounds = new Set(hold.map((h) => h.line))
    for (const [id, within] of onBothSides(hold)) {
      const fence = new Set([...bounds].filter((b) => b !== id))
      const open = (line: Line): boolean => line.id === id && lines.includes(line)
      const beyond = yield* beyondFence(stack, fence, most, open, endsOf, tolerance)
      hits.push(
        ...beyond.filter(({ trim: { place } }) => within.some(([from, to]) => place.at >= from && place.at <= to)),
      )
    }
  }
  return hits
}

function speckIn(line: Line, edge: readonly Cubic[][], shown: Trimmed['shown'], least: number): PieceHit[] {
  const region = speckOf(line, shown, least)
  const p = region && middleOf(region)
  return p && windingAt(edge, p) !== 0
    ? [
        {
          contours: toPaths(region.contours.map((c) => [...c])),
          trim: { line: line.id, place: placeBy(line, p), over: [], bounds: [] },
          taken: null,
        },
      ]
    : []
}

/** Where lines have a region on both sides: that is where they stick into it. */
function onBothSides(hold: readonly Hold[]): Map<string, [number, number][]> {
  const out = new Map<string, [number, number][]>()
  for (const a of hold) {
    for (const b of hold) {
      if (a.line !== b.line || a.side !== 'left' || b.side !== 'right') continue
      const [from, to] = [Math.max(a.from, b.from), Math.min(a.to, b.to)]
      if (to > from) out.set(a.line, [...(out.get(a.line) ?? []), [from, to]])
    }
  }
  return out
}
