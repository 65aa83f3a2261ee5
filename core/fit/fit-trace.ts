import type { Path, PenTrace, TraceSample, WidthStop } from '../drawing/model'
import { InputError } from '../errors'
import type { Cubic } from '../geometry/cubic'
import { cubic } from '../geometry/cubic'
import { pathOfCubics } from '../geometry/path'
import type { Vec } from '../geometry/point'
import { distance } from '../geometry/point'
import { fitCurve } from './fit-curve'
import { pressureStops } from './pressure-stops'
import { CubicChain } from './source'

export interface TraceOptions {
  /** 0 as drawn .. 1 very steady. */
  steadiness: number
  /** How far the path may lie from the steadied trace, px, above 0. */
  tolerance: number
}

/** Standard deviation of the steadying at steadiness 1, px of arc length. */
const STEADIEST = 24
/** Turns sharper than this over the window on either side are corners, radians. */
const CORNER_TURN = 1.2
const CORNER_WINDOW = 5

/**
 * A hand's trace as a path of few nodes and the stops of its pressure. The ends stay where the hand put them; sharp
 * turns stay corners; in between the trace is steadied by a Gaussian over its arc length. A trace that never leaves one
 * place gives a path of one node.
 *
 * @throws InputError for an empty trace or a sample that is not a number
 */
export function fitTrace(trace: PenTrace, { steadiness, tolerance }: TraceOptions): { path: Path; stops: WidthStop[] } {
  if (!trace.samples.length) throw new InputError('samples', 'The trace has no samples: draw again.')
  trace.samples.forEach((s, i) => {
    if (![s.x, s.y, s.t, s.pressure].every(Number.isFinite)) {
      throw new InputError(`samples[${i}]`, `Sample ${i} of the trace is not a number.`)
    }
  })
  const points = evenlySpaced(trace.samples)
  const stops = pressureStops(trace)
  if (points.length < 2) {
    return { path: { nodes: [{ at: points[0]!, in: null, out: null, joint: 'corner' }], closed: false }, stops }
  }
  const cuts = [0, ...cornersOf(points), points.length - 1]
  const cubics: Cubic[] = []
  for (let i = 0; i + 1 < cuts.length; i++) {
    const steady = steadied(points.slice(cuts[i], cuts[i + 1]! + 1), steadiness * STEADIEST)
    const chain = throughPoints(thinned(steady, Math.round(Math.min(6, Math.max(1, tolerance * 5)))))
    const fits = fitCurve(new CubicChain(chain), tolerance)
    cubics.push(...fits.map((f) => f.cubic))
  }
  return { path: pathOfCubics(cubics, false, Math.min(0.01, tolerance / 10)), stops }
}

/** Points about a pixel apart along the samples, ends kept. */
function evenlySpaced(samples: readonly TraceSample[]): Vec[] {
  const spacing = 1
  const out: Vec[] = [{ x: samples[0]!.x, y: samples[0]!.y }]
  let last = out[0]!
  let carried = 0
  for (const s of samples.slice(1)) {
    const step = distance(last, s)
    let at = spacing - carried
    while (at <= step) {
      out.push({ x: last.x + ((s.x - last.x) * at) / step, y: last.y + ((s.y - last.y) * at) / step })
      at += spacing
    }
    carried = step - (at - spacing)
    last = { x: s.x, y: s.y }
  }
  if (carried > 1e-6) {
    const end = { x: last.x, y: last.y }
    if (out.length > 1 && carried < spacing / 2) out[out.length - 1] = end
    else out.push(end)
  }
  return out
}

/** Indices of the points at which the trace turns sharply: the sharpest of each cluster. */
function cornersOf(points: readonly Vec[]): number[] {
  const w = CORNER_WINDOW
  const turns = points.map((p, i) => {
    if (i < w || i + w >= points.length) return 0
    const a = points[i - w]!
    const b = points[i + w]!
    const inX = p.x - a.x
    const inY = p.y - a.y
    const outX = b.x - p.x
    const outY = b.y - p.y
    return Math.abs(Math.atan2(inX * outY - inY * outX, inX * outX + inY * outY))
  })
  return turns.flatMap((t, i) => {
    if (t < CORNER_TURN) return []
    for (let k = i - w; k <= i + w; k++) if (turns[k]! > t || (turns[k] === t && k < i)) return []
    return [i]
  })
}

/** Gaussian smoothing with both ends held: beyond an end the trace is mirrored through it. */
function steadied(points: readonly Vec[], sigma: number): Vec[] {
  const n = points.length
  const held = Math.min(sigma, n / 6)
  if (held < 0.3) return [...points]
  const reach = Math.ceil(held * 3)
  const weights = Array.from({ length: 2 * reach + 1 }, (_, k) => Math.exp(-(((k - reach) / held) ** 2) / 2))
  const sum = weights.reduce((a, b) => a + b, 0)
  const at = (i: number): Vec => {
    if (i < 0) return mirrored(points[0]!, points[Math.min(n - 1, -i)]!)
    if (i >= n) return mirrored(points[n - 1]!, points[Math.max(0, 2 * (n - 1) - i)]!)
    return points[i]!
  }
  return points.map((_, i) => {
    let x = 0
    let y = 0
    for (let k = 0; k < weights.length; k++) {
      const p = at(i + k - reach)
      x += weights[k]! * p.x
      y += weights[k]! * p.y
    }
    return { x: x / sum, y: y / sum }
  })
}

/** Every `step`-th point and the last. */
function thinned(points: readonly Vec[], step: number): Vec[] {
  const last = points.length - 1
  return points.filter((_, i) => i === last || (i % step === 0 && last - i >= step / 2) || i === 0)
}

const mirrored = (about: Vec, p: Vec): Vec => ({ x: 2 * about.x - p.x, y: 2 * about.y - p.y })

/** A smooth chain through points (E. Catmull and R. Rom, A class of local interpolating splines, 1974). */
function throughPoints(points: readonly Vec[]): Cubic[] {
  const n = points.length
  const slope = (i: number): Vec => {
    const a = points[Math.max(0, i - 1)]!
    const b = points[Math.min(n - 1, i + 1)]!
    const k = i === 0 || i === n - 1 ? 1 : 0.5
    return { x: (b.x - a.x) * k, y: (b.y - a.y) * k }
  }
  return points.slice(1).map((q, i) => {
    const p = points[i]!
    const a = slope(i)
    const b = slope(i + 1)
    return cubic(p, { x: p.x + a.x / 3, y: p.y + a.y / 3 }, { x: q.x - b.x / 3, y: q.y - b.y / 3 }, q)
  })
}
