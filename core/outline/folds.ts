import type { Rib } from './rib'
import type { RibField, SideSign } from './ribs'
import { newRib } from './rib'

/** A part of one segment in which the width is smooth. A round taper's tip is entered by the square of the parameter. */
export interface Part {
  segment: number
  t0: number
  t1: number
  easeStart: boolean
  easeEnd: boolean
}

/** A part in which one side keeps its direction: where it folds, the bend is tighter than the half-width. */
export interface SidePart extends Part {
  folds: boolean
}

/** The segment's parameter at place u of a part, and its derivative. */
export function eased({ t0, t1, easeStart, easeEnd }: Part, u: number): { t: number; rate: number } {
  const span = t1 - t0
  // The ends are met exactly.
  if (u === 0 || u === 1) return { t: u === 0 ? t0 : t1, rate: (u === 0 ? easeStart : easeEnd) ? 0 : span }
  if (easeStart && easeEnd) return { t: t0 + span * u * u * (3 - 2 * u), rate: span * 6 * u * (1 - u) }
  if (easeStart) return { t: t0 + span * u * u, rate: 2 * span * u }
  if (easeEnd) return { t: t1 - span * (1 - u) * (1 - u), rate: 2 * span * (1 - u) }
  return { t: t0 + span * u, rate: span }
}

const PROBES = 16
const BISECTIONS = 48
/** Where an edge all but folds it has a sharp turn, and is cut. */
const SHARP = 0.35
const rib: Rib = newRib()

/**
 * How the edge of the ink runs at a place: 1 with the centreline, 0 at a fold, negative where it runs backwards, because
 * neighbouring ribs cross before they reach it. For ribs along the normals it is 1 + k h.
 */
function advance(field: RibField, segment: number, t: number, side: SideSign, fromBelow: boolean): number {
  field.rib(segment, t, side, fromBelow, rib)
  const forward = rib.cdx * rib.ny - rib.cdy * rib.nx
  return forward === 0 ? 1 : 1 + (rib.half * (rib.ndx * rib.ny - rib.ndy * rib.nx)) / forward
}

/** How far along its rib neighbouring ribs cross, px: the centre of curvature for ribs along the normals. */
export function turningRadius(field: RibField, segment: number, t: number, side: SideSign): number {
  field.rib(segment, t, side, false, rib)
  const spread = rib.ndx * rib.ny - rib.ndy * rib.nx
  // Where the centreline stands still the ribs turn about the centre itself.
  return spread === 0 ? 0 : -(rib.cdx * rib.ny - rib.cdy * rib.nx) / spread
}

/** Cuts a part where one side starts or stops folding. */
export function cutAtFolds(field: RibField, part: Part, side: SideSign): SidePart[] {
  const { segment, t0, t1 } = part
  if (field.isOpen(segment)) return [{ ...part, folds: false }]
  const edge = 1e-6 * (t1 - t0)
  const at = (t: number): number =>
    advance(field, segment, Math.min(t1 - edge, Math.max(t0 + edge, t)), side, t > (t0 + t1) / 2)
  const ts: number[] = []
  const values: number[] = []
  for (let i = 0; i <= PROBES; i++) {
    ts.push(eased(part, i / PROBES).t)
    values.push(at(ts[i]!))
  }
  const cuts: number[] = []
  for (let i = 0; i < PROBES; i++) {
    if (values[i]! < 0 !== values[i + 1]! < 0) cuts.push(rootBetween(at, ts[i]!, ts[i + 1]!))
  }
  // A fold, or the end of one, may hide between two probes.
  for (let i = 1; i < PROBES; i++) {
    const sign = values[i]! < 0 ? -1 : 1
    const [a, b, c] = [sign * values[i - 1]!, sign * values[i]!, sign * values[i + 1]!]
    if (!(b <= a && b <= c && b < 0.8 && a >= 0 && c >= 0)) continue
    const low = lowestBetween((t) => sign * at(t), ts[i - 1]!, ts[i + 1]!)
    if (sign * at(low) < 0) cuts.push(rootBetween(at, ts[i - 1]!, low), rootBetween(at, low, ts[i + 1]!))
    else if (sign * at(low) < SHARP) cuts.push(low)
  }
  const marks = [t0, ...cuts.sort((a, b) => a - b).filter((t) => t > t0 + edge && t < t1 - edge), t1].filter(
    (t, i, all) => i === 0 || t - all[i - 1]! > 1e-12,
  )
  if (marks.length < 2) return [{ ...part, folds: false }]
  marks[marks.length - 1] = t1
  return marks.slice(1).map((b, i) => ({
    segment,
    t0: marks[i]!,
    t1: b,
    easeStart: part.easeStart && i === 0,
    easeEnd: part.easeEnd && i + 2 === marks.length,
    folds: at((marks[i]! + b) / 2) < 0,
  }))
}

/** A place at which `f` changes sign between two that differ in it. */
export function rootBetween(f: (t: number) => number, low: number, high: number): number {
  const sign = f(low) < 0
  for (let i = 0; i < BISECTIONS; i++) {
    const mid = (low + high) / 2
    if (f(mid) < 0 === sign) low = mid
    else high = mid
  }
  return (low + high) / 2
}

/** The place of the least value between two, by golden section. */
export function lowestBetween(f: (t: number) => number, low: number, high: number): number {
  const share = (Math.sqrt(5) - 1) / 2
  let a = high - share * (high - low)
  let b = low + share * (high - low)
  let fa = f(a)
  let fb = f(b)
  for (let i = 0; i < 36; i++) {
    if (fa < fb) {
      high = b
      b = a
      fb = fa
      a = high - share * (high - low)
      fa = f(a)
    } else {
      low = a
      a = b
      fa = fb
      b = low + share * (high - low)
      fb = f(b)
    }
  }
  return fa < fb ? a : b
}
