import { cubic, straight } from '../geometry/cubic'
import { along, distance } from '../geometry/point'
import type { Fitted } from './fit-cubic'
import { fitCubic } from './fit-cubic'
import type { CurveSource } from './source'

const DEEPEST = 14

/**
 * Cubics along the smooth curve `source` from `from` to `to`, each within `tolerance` px of it as measured. Where one
 * does not do, the range is cut into as many even parts as the sixth-order convergence of the fit asks for.
 */
export function fitCurve(source: CurveSource, from: number, to: number, tolerance: number): Fitted[] {
  const out: Fitted[] = []
  fitInto(out, source, from, to, tolerance, 0)
  return out
}

function fitInto(out: Fitted[], source: CurveSource, from: number, to: number, tolerance: number, depth: number): void {
  const whole = fitCubic(source, from, to)
  if (whole && whole.deviation <= tolerance) {
    out.push(whole)
    return
  }
  if (depth >= DEEPEST) {
    out.push(hermite(source, from, to))
    return
  }
  const excess = whole && Number.isFinite(whole.deviation) ? whole.deviation / tolerance : 64
  const parts = Math.max(2, Math.min(4, Math.ceil(excess ** (1 / 6))))
  for (let i = 0; i < parts; i++) {
    const a = from + ((to - from) * i) / parts
    const b = i + 1 === parts ? to : from + ((to - from) * (i + 1)) / parts
    fitInto(out, source, a, b, tolerance, depth + 1)
  }
}

/** The end of a longest cubic is found to this share of its length. */
const PRECISION = 1 / 128
/** Shortest pieces that are tried: so many to a smooth part, and so many more to the whole. */
const FINEST = { part: 8, whole: 4096 }

/**
 * As `fitCurve`, each cubic reaching as far as the tolerance lets it: fewer cubics for more work. For chains and traces,
 * whose joints make the error uneven along the curve. The reach is found by doubling from the last cubic's and halving
 * back, so that the work grows with the length of the curve and not with its square.
 */
export function fitLongest(source: CurveSource, from: number, to: number, tolerance: number): Fitted[] {
  const out: Fitted[] = []
  // Where nothing fits, so much is passed over at once: the fit gets on, whatever the curve.
  const least = (to - from) / (FINEST.whole + FINEST.part * (source.joints?.length ?? 0))
  let at = from
  let step = to - from
  while (to - at > 1e-6 * least) {
    const fit = longestFrom(source, at, to, step, least, tolerance) ?? hermite(source, at, Math.min(to, at + least))
    out.push(fit)
    step = fit.to - at
    at = fit.to
  }
  return out
}

/** The longest cubic found from `at` by trying `step` first; null where none longer than `least` is within the tolerance. */
function longestFrom(source: CurveSource, at: number, to: number, step: number, least: number, tolerance: number): Fitted | null {
  let best: Fitted | null = null
  let low = at
  let high = Math.min(to, at + step)
  const reaches = (end: number): boolean => {
    const fit = fitCubic(source, at, end, tolerance)
    if (!fit) return false
    best = fit
    low = end
    return true
  }
  while (reaches(high)) {
    if (high === to) return best
    high = Math.min(to, at + 2 * (high - at))
  }
  while (high - low > Math.max(PRECISION * (low - at), least)) {
    const mid = (low + high) / 2
    if (!reaches(mid)) high = mid
  }
  return best
}

/** The cubic with the source's ends and derivatives: what is left where the source is not smooth at any scale. */
function hermite(source: CurveSource, from: number, to: number): Fitted {
  const a = source.sample(from)
  const b = source.sample(to)
  const third = (to - from) / 3
  const mid = source.sample((from + to) / 2).at
  const curve = cubic(a.at, along(a.at, a.derivative, third), along(b.at, b.derivative, -third), b.at)
  const chord = straight(a.at, b.at)
  const size = distance(a.at, b.at)
  const sane = distance(curve.p1, a.at) <= 2 * size && distance(curve.p2, b.at) <= 2 * size
  return { cubic: sane ? curve : chord, from, to, deviation: distance(mid, a.at) }
}
