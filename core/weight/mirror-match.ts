import type { Line, Weight } from '../model/model'
import type { Path } from '../geometry/path'
import type { Vec } from '../geometry/point'
import { arcOfPath } from '../geometry/known'
import { distance } from '../geometry/point'
import { flipEnds, flipSides } from './shelf'
import { pastedWeight } from './copy-weight'
import { remembered } from '../remembered'

/** A line to mirror at, through two points of the page, px. */
export interface Axis {
  a: Vec
  b: Vec
}

/** Two lines that mirror each other; `reversed` when the second runs the other way round than the mirrored first. */
export interface MirrorPair {
  from: string
  to: string
  reversed: boolean
  /** How far apart they are when mirrored onto each other, on average, px. */
  off: number
}

/** Lines are compared at so many places. */
const PLACES = 9
/** Lengths of a pair differ by no more than this share. */
const LENGTHS = 0.35

/** A point on the other side of an axis. */
export function mirrored(p: Vec, { a, b }: Axis): Vec {
  const dx = b.x - a.x
  const dy = b.y - a.y
  const k = (2 * ((p.x - a.x) * dx + (p.y - a.y) * dy)) / (dx * dx + dy * dy)
  return { x: 2 * a.x + k * dx - p.x, y: 2 * a.y + k * dy - p.y }
}

/** On which side of an axis a point lies: positive to the left of the way from `a` to `b`. */
export const sideOfAxis = (p: Vec, { a, b }: Axis): number => (p.x - a.x) * (b.y - a.y) - (p.y - a.y) * (b.x - a.x)

/** A path by places along it, px; two runs of places are on average no closer than their means. */
interface Measured {
  places: Vec[]
  middle: Vec
  total: number
}

/** Found once as long as the path stays the same object: an axis is tried at many places. */
const measuredPath = remembered((path: Path): Measured => {
  const arc = arcOfPath(path)
  const places = Array.from({ length: PLACES }, (_, i) =>
    arc.point((arc.total * i) / (path.closed ? PLACES : PLACES - 1)),
  )
  return { places, middle: mean(places), total: arc.total }
})

const measured = ({ path }: Line): Measured => measuredPath(path)

const mean = (of: readonly Vec[]): Vec => ({
  x: of.reduce((s, p) => s + p.x, 0) / of.length,
  y: of.reduce((s, p) => s + p.y, 0) / of.length,
})

/**
 * The counterpart of each line of `sources` among `lines`: the one that lies nearest to its mirror image, `reach` px off
 * on average at most. Every line is in one pair at most, the closest pairs first; a line across the axis has none.
 */
export function mirrorPairs(sources: readonly Line[], lines: readonly Line[], axis: Axis, reach: number): MirrorPair[] {
  const known = lines
    .map((line) => ({ line, ...measured(line) }))
    .filter(({ total }) => total > 0)
    .sort((a, b) => a.middle.x - b.middle.x)
  const candidates: MirrorPair[] = []
  for (const source of sources) {
    const { places: own, middle: from, total } = measured(source)
    if (!total) continue
    const image = own.map((p) => mirrored(p, axis))
    const middle = mirrored(from, axis)
    const side = sideOfAxis(from, axis)
    for (let i = firstFrom(known, middle.x - reach); i < known.length && known[i]!.middle.x <= middle.x + reach; i++) {
      const { line, places, middle: there, total: theirs } = known[i]!
      if (Math.abs(there.y - middle.y) > reach) continue
      if (
        line.id === source.id ||
        line.path.closed !== source.path.closed ||
        Math.abs(theirs - total) > LENGTHS * Math.max(theirs, total)
      )
        continue
      if (side * sideOfAxis(there, axis) > 0) continue
      const fit = comparison(image, places, source.path.closed)
      if (fit.off <= reach) candidates.push({ from: source.id, to: line.id, ...fit })
    }
  }
  const taken = new Set<string>()
  return candidates
    .sort((p, q) => p.off - q.off)
    .filter(({ from, to }) => {
      if (taken.has(from) || taken.has(to)) return false
      taken.add(from).add(to)
      return true
    })
}

/** The first of lines in order of their middles that lies at `x` or right of it. */
function firstFrom(known: readonly Measured[], x: number): number {
  let [low, high] = [0, known.length]
  while (low < high) {
    const mid = (low + high) >> 1
    if (known[mid]!.middle.x < x) low = mid + 1
    else high = mid
  }
  return low
}

/** How far two runs of places are apart, the second forwards or backwards; closed ones only as their whole. */
function comparison(a: readonly Vec[], b: readonly Vec[], closed: boolean): { off: number; reversed: boolean } {
  const n = a.length
  const off = (of: (i: number) => number): number => a.reduce((sum, p, i) => sum + distance(p, b[of(i)]!), 0) / n
  const forwards = off((i) => i)
  const backwards = off((i) => (closed ? (n - i) % n : n - 1 - i))
  return backwards < forwards ? { off: backwards, reversed: true } : { off: forwards, reversed: false }
}

/** The weight of a line as its counterpart has it, put on `onto`. */
export function mirroredWeight(onto: Weight, from: Weight, reversed: boolean): Weight {
  const whole = pastedWeight(onto, from, 'all')
  return { ...(reversed ? flipEnds(whole) : flipSides(whole)), pinned: from.pinned }
}
