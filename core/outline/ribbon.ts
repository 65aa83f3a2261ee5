import { fitCurve } from '../fit/fit-curve'
import type { Fitted } from '../fit/fit-cubic'
import type { Cubic } from '../geometry/cubic'
import { flattenCount, moveEnds, nearestFrom, pointAt } from '../geometry/cubic'
import type { Vec } from '../geometry/point'
import { cross, distance, lerp, subtract } from '../geometry/point'
import type { Arc, Loop } from '../shapes/loop'
import { allBackwards, polyline, reverseLoop, segment, whole } from '../shapes/loop'
import type { Section, SideSign, WeighedSegment } from './sides'
import { SideCurve } from './sides'

/** A stretch of one segment in which the width is smooth and neither side turns round. */
interface Stretch {
  t0: number
  t1: number
  leftFolds: boolean
  rightFolds: boolean
}

/** Looked at this many places, a side that turns round within a stretch is not missed in practice. */
const FOLD_PROBES = 24

/** What the ribbon over one piece of a segment is made of. */
export interface RibbonPiece {
  start: Section
  end: Section
  loops: Loop[]
}

/**
 * The ribbon over t0..t1 of a segment: loops that all run with the ink on their left, so that their union by the
 * non-zero rule is the union of the cross-sections. Where a bend is tighter than the half-width, the cross-sections turn
 * about points inside the ribbon and the side runs backwards; there the ribbon is cut into triangles on either side of
 * the turning points, each laid the right way round.
 */
export function ribbonPiece(
  line: WeighedSegment,
  t0: number,
  t1: number,
  previous: Section | null,
  easeStart: boolean,
  easeEnd: boolean,
  tolerance: number,
): RibbonPiece | null {
  const first = line.section(t0, false)
  const last = line.section(t1, true)
  if (!first || !last) return null
  const start = previous && sameSection(previous, first) ? { ...first, ...sharedPoints(previous) } : first
  const stretches = cutAtFolds(line, t0, t1)
  const loops: Loop[] = []
  let from = start
  stretches.forEach((s, i) => {
    const to = i + 1 === stretches.length ? last : line.section(s.t1, true)!
    const ease = { start: easeStart && i === 0, end: easeEnd && i + 1 === stretches.length }
    const left = fitSide(line, 1, s, from.left, to.left, ease, tolerance)
    const right = fitSide(line, -1, s, from.right, to.right, ease, tolerance)
    if (!s.leftFolds && !s.rightFolds) {
      loops.push([
        ...left.cubics.map(whole),
        ...polyline(to.left, to.centre, to.right),
        ...allBackwards(right.cubics),
        ...polyline(from.right, from.centre, from.left),
      ])
    } else {
      const steps = foldSteps(line, s, left.cubics, right.cubics, tolerance)
      loops.push(...half(steps, left, s.leftFolds, from.centre, to.centre))
      const rightHalf = half(steps, right, s.rightFolds, from.centre, to.centre)
      loops.push(...(s.rightFolds ? rightHalf : rightHalf.map(reverseLoop)))
    }
    from = to
  })
  return { start, end: last, loops }
}

const sharedPoints = (s: Section): Pick<Section, 'left' | 'centre' | 'right'> => ({
  left: s.left,
  centre: s.centre,
  right: s.right,
})

const sameSection = (a: Section, b: Section): boolean =>
  distance(a.left, b.left) + distance(a.centre, b.centre) + distance(a.right, b.right) < 1e-7

/** Cuts t0..t1 where either side starts or stops running backwards. */
function cutAtFolds(line: WeighedSegment, t0: number, t1: number): Stretch[] {
  const cuts = new Set([t0, t1])
  for (const side of [1, -1] as const) {
    let before = t0
    let sign = line.advance(t0, side, false) >= 0
    for (let i = 1; i <= FOLD_PROBES; i++) {
      const t = i === FOLD_PROBES ? t1 : t0 + ((t1 - t0) * i) / FOLD_PROBES
      const now = line.advance(t, side, true) >= 0
      if (now !== sign) cuts.add(bisectFold(line, side, before, t, sign))
      before = t
      sign = now
    }
  }
  const sorted = [...cuts].sort((a, b) => a - b).filter((t, i, all) => i === 0 || t - all[i - 1]! > 1e-9)
  sorted[sorted.length - 1] = t1
  return sorted.slice(1).map((t, i) => {
    const a = sorted[i]!
    const mid = (a + t) / 2
    return {
      t0: a,
      t1: t,
      leftFolds: line.advance(mid, 1, false) < 0,
      rightFolds: line.advance(mid, -1, false) < 0,
    }
  })
}

function bisectFold(line: WeighedSegment, side: SideSign, low: number, high: number, signAtLow: boolean): number {
  for (let i = 0; i < 48; i++) {
    const mid = (low + high) / 2
    if (line.advance(mid, side, false) >= 0 === signAtLow) low = mid
    else high = mid
  }
  return (low + high) / 2
}

interface FittedSide {
  curve: SideCurve
  fits: Fitted[]
  cubics: Cubic[]
}

/** Cubics along a side, their outer ends exactly on the sections' points. */
function fitSide(
  line: WeighedSegment,
  side: SideSign,
  s: Stretch,
  from: Vec,
  to: Vec,
  ease: { start: boolean; end: boolean },
  tolerance: number,
): FittedSide {
  const curve = new SideCurve(line, side, s.t0, s.t1, ease.start, ease.end)
  const fits = fitCurve(curve, 0, 1, tolerance)
  const cubics = fits.map((f, i) =>
    moveEnds(
      f.cubic,
      i === 0 ? from : fits[i - 1]!.cubic.p3,
      i + 1 === fits.length ? to : f.cubic.p3,
    ),
  )
  return { curve, fits, cubics }
}

/** A place where a folding stretch is cut across: centre and the place on each side's fitted cubics. */
interface Step {
  u: number
  centre: Vec
}

function foldSteps(line: WeighedSegment, s: Stretch, left: Cubic[], right: Cubic[], tolerance: number): Step[] {
  const count = (cs: Cubic[]): number => cs.reduce((sum, c) => sum + flattenCount(c, tolerance / 2), 0)
  const n = Math.min(256, Math.max(8, count(left), count(right), flattenCount(line.cubic, tolerance / 2)))
  const out: Step[] = []
  for (let i = 0; i <= n; i++) {
    const t = s.t0 + ((s.t1 - s.t0) * i) / n
    out.push({ u: i / n, centre: pointAt(line.cubic, t) })
  }
  return out
}

/**
 * The half of the ribbon between the centreline and one side. Cells of a folding half have the ink on their left; a
 * half that does not fold has it on the left for the left side and on the right for the right side.
 */
function half(steps: Step[], side: FittedSide, folds: boolean, from: Vec, to: Vec): Loop[] {
  const centres = steps.map((s, i) => (i === 0 ? from : i + 1 === steps.length ? to : s.centre))
  if (!folds) {
    return [
      [
        ...side.cubics.map(whole),
        segment(side.cubics[side.cubics.length - 1]!.p3, to),
        ...polyline(...[...centres].reverse()),
        segment(from, side.cubics[0]!.p0),
      ],
    ]
  }
  return foldedCells(centres, sidePlaces(steps, side), side.cubics)
}

/** A place on the chain of a side's cubics. */
interface Place {
  index: number
  t: number
  at: Vec
}

function sidePlaces(steps: Step[], side: FittedSide): Place[] {
  const { fits, cubics, curve } = side
  return steps.map(({ u }, k) => {
    if (k === 0) return { index: 0, t: 0, at: cubics[0]!.p0 }
    if (k + 1 === steps.length) return { index: cubics.length - 1, t: 1, at: cubics[cubics.length - 1]!.p3 }
    const v = sourceParameter(curve, u)
    let index = fits.findIndex((f) => v <= f.to)
    if (index < 0) index = fits.length - 1
    const fit = fits[index]!
    const hit = nearestFrom(cubics[index]!, curve.sample(v).at, (v - fit.from) / (fit.to - fit.from))
    return { index, t: hit.t, at: pointAt(cubics[index]!, hit.t) }
  })
}

/** The side curve's parameter at share `u` of the stretch: they differ where a round taper eases it. */
function sourceParameter(curve: SideCurve, u: number): number {
  const { t: first } = curve.parameter(0)
  const { t: last } = curve.parameter(1)
  const wanted = first + (last - first) * u
  let low = 0
  let high = 1
  for (let i = 0; i < 40; i++) {
    const mid = (low + high) / 2
    if (curve.parameter(mid).t < wanted) low = mid
    else high = mid
  }
  return (low + high) / 2
}

/**
 * The cells between neighbouring cross-sections of a folding half. Two neighbours cross at a turning point: what lies
 * between the centreline and that point is a triangle, what lies between it and the side another, turned over. A
 * cross-section is cut at the turning points of both its cells, so that what the cells share cancels exactly.
 */
function foldedCells(centres: readonly Vec[], places: readonly Place[], cubics: readonly Cubic[]): Loop[] {
  const cells = places.length - 1
  const turning: (Vec | null)[] = []
  for (let k = 0; k < cells; k++) turning.push(crossingOf(centres[k]!, places[k]!.at, centres[k + 1]!, places[k + 1]!.at))
  const loops: Loop[] = []
  for (let k = 0; k < cells; k++) {
    const e = turning[k]
    const near = crossSection(centres[k]!, places[k]!.at, turning[k - 1], e)
    const far = crossSection(centres[k + 1]!, places[k + 1]!.at, e, turning[k + 1])
    const edge = alongSide(cubics, places[k]!, places[k + 1]!)
    if (!e) {
      loops.push(keepPositive([...edge, ...polyline(...far.reverse()), ...polyline(centres[k + 1]!, centres[k]!), ...polyline(...near)]))
      continue
    }
    const [i, j] = [near.indexOf(e), far.indexOf(e)]
    const inner = [...near.slice(0, i + 1), ...far.slice(0, j).reverse(), centres[k]!]
    const outer = [...far.slice(j).reverse(), ...near.slice(i + 1)]
    loops.push(keepPositive(polyline(...inner)), keepPositive([...edge, ...polyline(...outer)]))
  }
  return loops
}

/** A cross-section from the centre to the side, through the turning points on it. */
function crossSection(centre: Vec, side: Vec, e: Vec | null | undefined, f: Vec | null | undefined): Vec[] {
  const between = [e, f].filter((p): p is Vec => !!p)
  between.sort((p, q) => distance(centre, p) - distance(centre, q))
  return [centre, ...between, side]
}

function alongSide(cubics: readonly Cubic[], a: Place, b: Place): Arc[] {
  const out: Arc[] = []
  for (let i = a.index; i <= b.index; i++) {
    const t0 = i === a.index ? a.t : 0
    const t1 = i === b.index ? b.t : 1
    if (t0 !== t1) out.push({ curve: cubics[i]!, t0, t1 })
  }
  return out
}

function crossingOf(p0: Vec, p1: Vec, q0: Vec, q1: Vec): Vec | null {
  const d = subtract(p1, p0)
  const e = subtract(q1, q0)
  const det = cross(d, e)
  if (det === 0) return null
  const w = subtract(q0, p0)
  const t = cross(w, e) / det
  const u = cross(w, d) / det
  return t > 0 && t < 1 && u > 0 && u < 1 ? lerp(p0, p1, t) : null
}

/** The loop turned so that its area, by the chords of its arcs, is positive. */
function keepPositive(loop: Loop): Loop {
  let sum = 0
  for (const { curve, t0, t1 } of loop) sum += cross(pointAt(curve, t0), pointAt(curve, t1))
  return sum < 0 ? reverseLoop(loop) : loop
}
