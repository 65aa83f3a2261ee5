import type { Cubic } from '../geometry/cubic'
import { nearest } from '../geometry/cubic'
import type { CubicFit } from './fit-cubic'
import { fitCubic, HOPELESS } from './fit-cubic'
import { MeasuredCurve } from './measured-curve'
import type { CurveSource } from './source'

/** One fitted cubic, the stretch of the source that it stands for, and the largest distance measured, px. */
export interface Fitted {
  cubic: Cubic
  from: number
  to: number
  deviation: number
}

/** A fit is measured at no fewer panels than this (four samples each). */
const FEWEST_PANELS = 4

/** A fit with a wider gap between samples (a share of its chord) is looked at again, so often at most. */
const WIDEST_GAP = 0.15
const MOST_LOOKS = 4

/** A stretch is taken when it would grow by no more than this share. */
const GAIN = 0.03

/** A fit is good enough from this excess on: what trials aim at. */
const ENOUGH = 0.9

/** Shortest stretch that is tried, as a share of a part. */
const SHORTEST = 1 / 4096

/** Where nothing fits, a stretch that stays within this share of the tolerance is passed over at once. */
const STILL = 1 / 8

/** Finer than this share of a curve's length nothing is fitted: doubles, and the grid to come, hold no more. */
const FINEST = 2 ** -24

/** Turns within less than this share of the tolerance do not matter. */
const GRAIN = 1 / 4

/** Chains of many short parts are cut at their joints only. */
const MANY_PARTS = 6

/**
 * The fewest cubics along `source`, each within `tolerance` px of it as measured. Each reaches as far as the tolerance
 * lets it, which is optimal where a longer stretch never fits better. Since the error grows with the sixth power of the
 * length, one trial foretells the next, and three or four find the end of a stretch.
 */
export function fitCurve(source: CurveSource, tolerance: number): Fitted[] {
  curve.load(source, tolerance * GRAIN)
  const out: Fitted[] = []
  let at = 0
  let guess = curve.lengthTo(curve.last)
  const fine = Math.max(tolerance, guess * FINEST)
  while (at < source.parts) {
    const fit = longest(at, guess, fine)
    out.push(fit)
    guess = curve.lengthTo(curve.stationUpTo(fit.to)) - curve.lengthTo(curve.stationUpTo(at))
    at = fit.to
  }
  return out
}

const curve = new MeasuredCurve()
const newFit = (): CubicFit => ({ points: new Float64Array(8), deviation: 0, gap: 0, chord: 0 })
const found = newFit()
const trial = newFit()

/** The longest good cubic found from `at`, by trying one about `guess` px long first. Places are stations' parameters. */
function longest(at: number, guess: number, tolerance: number): Fitted {
  const whole = curve.parts
  let good = at
  let bad = Infinity
  let goodExcess = 0
  let badExcess = 0
  let looks = 0
  /** Good trials in a row, or bad ones, negative. */
  let inARow = 0
  let to = nextEnd(at, at, Infinity, guess)
  for (let tries = 0; tries < 60; tries++) {
    const from = curve.stationUpTo(at)
    const end = curve.stationUpTo(to)
    if (curve.panelsIn(from, end) < FEWEST_PANELS && to - at > SHORTEST) {
      curve.refine(from, end)
      continue
    }
    const excess = fitCubic(curve, from, end, tolerance, trial)
    if (excess <= 1 && trial.gap > WIDEST_GAP * trial.chord && looks++ < MOST_LOOKS) {
      curve.refine(from, end, WIDEST_GAP * trial.chord)
      continue
    }
    if (excess <= 1) {
      good = to
      goodExcess = excess
      found.points.set(trial.points)
      found.deviation = trial.deviation
      if (good >= whole) break
    } else {
      bad = to
      badExcess = excess
      if (to - at < SHORTEST) break
    }
    if (goodExcess >= ENOUGH || (good > at && bad - good < SHORTEST)) break
    const start = curve.lengthTo(from)
    const goodLength = curve.lengthTo(curve.stationUpTo(good)) - start
    const badLength = bad === Infinity ? Infinity : curve.lengthTo(curve.stationUpTo(bad)) - start
    const atJoint = good > at && good === Math.floor(good) && bad < good + 1
    let next = atJoint
      ? beyondJoint(goodLength, goodExcess, badLength, badExcess)
      : foretold(goodLength, goodExcess, badLength, badExcess)
    if (good > at && next < goodLength * (1 + GAIN)) break
    // Where foretelling keeps to one side, halves get on faster.
    inARow = excess <= 1 === inARow > 0 ? inARow + Math.sign(inARow) : excess <= 1 ? 1 : -1
    if (good > at && bad < Infinity && Math.abs(inARow) > 2) next = (goodLength + badLength) / 2
    to = nextEnd(at, good, bad, next)
    if (to === good) break
  }
  if (good === at) return hermite(at, tolerance)
  return { cubic: cubicOf(found.points), from: at, to: good, deviation: found.deviation }
}

/** The length at which a fit is likely to be just good enough, between one that was (0: none) and one that was not. */
function foretold(good: number, goodExcess: number, bad: number, badExcess: number): number {
  if (bad === Infinity) return good * Math.min(2.5, goodExcess > 0 ? (ENOUGH / goodExcess) ** (1 / 6) : 2.5)
  if (badExcess >= HOPELESS) return (good + bad) / 2
  if (good === 0) return bad * Math.max(0.4, (ENOUGH / badExcess) ** (1 / 6))
  // Between the two the excess is taken for a power of the length.
  const low = Math.log(Math.max(goodExcess, 1e-6))
  const share = (Math.log(ENOUGH) - low) / (Math.log(badExcess) - low)
  return good * (bad / good) ** Math.min(0.9, Math.max(0.1, share))
}

/** As `foretold`, beyond a joint: where the curvature jumps the excess grows at once, and about evenly. */
const beyondJoint = (good: number, goodExcess: number, bad: number, badExcess: number): number =>
  good + ((bad - good) * Math.max(0, ENOUGH - goodExcess)) / (badExcess - goodExcess)

/**
 * The place nearest to `length` px from `at` that lies between good and bad: a joint, where there is one, else a
 * station, which is made where there is none. `good` where nothing is worth trying.
 */
function nextEnd(at: number, good: number, bad: number, length: number): number {
  const target = curve.stationAt(curve.lengthTo(curve.stationUpTo(at)) + length)
  const first = Math.floor(good) + 1
  const last = bad === Infinity ? curve.parts : Math.ceil(bad) - 1
  if (first <= last) return Math.min(last, Math.max(first, Math.round(curve.at(target))))
  if (good - at >= MANY_PARTS) return good
  const low = curve.stationUpTo(good) + 1
  const high = curve.stationUpTo(bad) - 1
  if (low <= high) return curve.at(Math.min(high, Math.max(low, target)))
  curve.refine(low - 1, low)
  return nextEnd(at, good, bad, length)
}

/** The cubic with the source's ends and directions: what is left where the source is not smooth at any scale. */
function hermite(from: number, tolerance: number): Fitted {
  const first = curve.stationUpTo(from)
  const last = Math.max(first + 1, curve.stationUpTo(from + SHORTEST), leaving(first, STILL * tolerance))
  const at = new Float64Array(2)
  curve.point(first, false, at)
  const p0 = { x: at[0]!, y: at[1]! }
  curve.point(last, true, at)
  const p3 = { x: at[0]!, y: at[1]! }
  const third = Math.hypot(p3.x - p0.x, p3.y - p0.y) / 3
  let p1 = { x: p0.x + (p3.x - p0.x) / 3, y: p0.y + (p3.y - p0.y) / 3 }
  let p2 = { x: p3.x - (p3.x - p0.x) / 3, y: p3.y - (p3.y - p0.y) / 3 }
  if (curve.direction(first, false, at)) p1 = { x: p0.x + at[0]! * third, y: p0.y + at[1]! * third }
  if (curve.direction(last, true, at)) p2 = { x: p3.x - at[0]! * third, y: p3.y - at[1]! * third }
  const cubic = { p0, p1, p2, p3 }
  let deviation = 0
  for (let k = 2 * first + 1; k < 2 * last; k++)
    deviation = Math.max(deviation, nearest(cubic, { x: curve.x[k]!, y: curve.y[k]! }).distance)
  return { cubic, from, to: curve.at(last), deviation }
}

/** The last station from `first` on up to which the curve lies within `distance` px of it. */
function leaving(first: number, distance: number): number {
  const [x, y] = [curve.x[2 * first]!, curve.y[2 * first]!]
  let k = 2 * first + 1
  while (k <= 2 * curve.last && Math.hypot(curve.x[k]! - x, curve.y[k]! - y) <= distance) k++
  return (k - 1) >> 1
}

const cubicOf = (p: Float64Array): Cubic => ({
  p0: { x: p[0]!, y: p[1]! },
  p1: { x: p[2]!, y: p[3]! },
  p2: { x: p[4]!, y: p[5]! },
  p3: { x: p[6]!, y: p[7]! },
})
