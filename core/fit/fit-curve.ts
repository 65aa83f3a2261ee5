import type { Cubic } from '../geometry/cubic'
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
const FEWEST_PANELS = 6

/** A fit with a wider gap between samples (a share of its chord) is looked at again, so often at most. */
const WIDEST_GAP = 0.1
const MOST_LOOKS = 4

/** A stretch is taken when it reaches so nearly as far as the tolerance would let it. */
const NEARLY = 0.94

/** Shortest stretch that is tried, as a share of a part. */
const SHORTEST = 1 / 4096

/** Where nothing fits, a stretch that stays within this share of the tolerance is passed over at once. */
const STILL = 1 / 8

/** Turns within less than this share of the tolerance do not matter. */
const GRAIN = 1 / 4

/**
 * The fewest cubics along `source`, each within `tolerance` px of it as measured. Each reaches as far as the tolerance
 * lets it, which is optimal where a longer stretch never fits better. Since the error grows with the sixth power of the
 * length, one trial foretells the next, and three or four find the end of a stretch.
 */
export function fitCurve(source: CurveSource, tolerance: number): Fitted[] {
  const curve = new MeasuredCurve(source, tolerance * GRAIN)
  const out: Fitted[] = []
  let at = 0
  let guess = source.parts
  while (at < source.parts) {
    const fit = longest(curve, at, guess, tolerance)
    out.push(fit)
    guess = fit.to - at
    at = fit.to
  }
  return out
}

/** Chains of many short parts are cut at their joints, where directions are means of both sides'. */
const MANY_PARTS = 6

/** The longest good cubic found from `at`, by trying `guess` first. */
function longest(curve: MeasuredCurve, at: number, guess: number, tolerance: number): Fitted {
  const whole = curve.parts
  const found: CubicFit = { points: new Float64Array(8), deviation: 0, gap: 0 }
  const trial: CubicFit = { points: new Float64Array(8), deviation: 0, gap: 0 }
  let good = at
  let bad = Infinity
  let looks = 0
  let to = Math.min(whole, at + guess)
  for (let tries = 0; tries < 60; tries++) {
    while (curve.panelsIn(at, to) < FEWEST_PANELS && to - at > SHORTEST) curve.refine(at, to)
    const excess = fitCubic(curve, at, to, tolerance, trial)
    const length = to - at
    // The error goes with length^6; a little is left as a margin.
    const foretold = excess > 0 ? length * Math.min(2, Math.max(0.4, 0.985 * excess ** (-1 / 6))) : 2 * length
    if (excess <= 1 && trial.gap > WIDEST_GAP && looks++ < MOST_LOOKS) {
      curve.refine(at, to)
      continue
    }
    if (excess <= 1) {
      good = to
      found.points.set(trial.points)
      found.deviation = trial.deviation
      if (good >= whole || good >= at + NEARLY * (bad - at)) break
      to = at + foretold
      if (to < good + (1 - NEARLY) * length && bad < Infinity) break
      to = Math.min(whole, bad < Infinity ? Math.min(to, (good + 3 * bad) / 4) : Math.max(to, at + 1.03 * length))
    } else {
      bad = to
      if (length < SHORTEST) break
      to = excess >= HOPELESS ? (good > at ? (good + bad) / 2 : at + length / 2) : at + foretold
      if (to <= good) to = (good + bad) / 2
      if (good > at && bad - good < (1 - NEARLY) * (good - at)) break
    }
    to = settled(at, to, good, bad, whole)
    if (to === good) break
  }
  if (good === at) return hermite(curve, at, Math.max(Math.min(whole, at + SHORTEST), curve.leaves(at, STILL * tolerance)))
  const p = found.points
  return {
    cubic: {
      p0: { x: p[0]!, y: p[1]! },
      p1: { x: p[2]!, y: p[3]! },
      p2: { x: p[4]!, y: p[5]! },
      p3: { x: p[6]!, y: p[7]! },
    },
    from: at,
    to: good,
    deviation: found.deviation,
  }
}

/** Moves the end of a trial onto the nearest joint of a chain of many parts, where that is still between good and bad. */
function settled(at: number, to: number, good: number, bad: number, whole: number): number {
  if (to - at < MANY_PARTS) return to
  const joint = Math.min(whole, Math.round(to))
  if (joint > good && joint < bad) return joint
  return good
}

/** The cubic with the source's ends and directions: what is left where the source is not smooth at any scale. */
function hermite(curve: MeasuredCurve, from: number, to: number): Fitted {
  const at = new Float64Array(2)
  curve.point(from, false, at)
  const p0 = { x: at[0]!, y: at[1]! }
  curve.point(to, true, at)
  const p3 = { x: at[0]!, y: at[1]! }
  const third = Math.hypot(p3.x - p0.x, p3.y - p0.y) / 3
  let p1 = { x: p0.x + (p3.x - p0.x) / 3, y: p0.y + (p3.y - p0.y) / 3 }
  let p2 = { x: p3.x - (p3.x - p0.x) / 3, y: p3.y - (p3.y - p0.y) / 3 }
  if (curve.direction(from, to, at)) p1 = { x: p0.x + at[0]! * third, y: p0.y + at[1]! * third }
  if (curve.direction(to, from, at)) p2 = { x: p3.x - at[0]! * third, y: p3.y - at[1]! * third }
  return { cubic: { p0, p1, p2, p3 }, from, to, deviation: third }
}
