import type { Cubic } from '../geometry/cubic'
import { cubic, derivativeAt, nearestFrom, pointAt } from '../geometry/cubic'
import type { Vec } from '../geometry/point'
import { along, direction, distance, dot, length, rotate, subtract } from '../geometry/point'
import { GAUSS_16, GAUSS_5 } from '../geometry/quadrature'
import { interpolate, realRoots } from './roots'
import type { CurveSource } from './source'
import { smoothParts } from './source'

/** One fitted cubic, the part of the source that it stands for, and the largest distance measured, px. */
export interface Fitted {
  cubic: Cubic
  from: number
  to: number
  deviation: number
}

const MEASURES = 24

/** The source between two parameters, seen from its chord: chord start (0, 0), chord end (1, 0). */
interface ChordFrame {
  origin: Vec
  chord: Vec
  size: number
  /** Angles of the end tangents from the chord, radians; the far one is measured so that an arch has both positive. */
  theta0: number
  theta1: number
  area: number
  moment: number
}

/**
 * The cubic with the source's end points and end tangents that also has its area and first moment over the chord
 * (R. Levien, Fitting cubic Bezier curves, 2021). Of the few such cubics, and the one with even handles, the nearest.
 * Null where no cubic of sane handles exists, or none within `limit` px where that is all that is asked for.
 */
export function fitCubic(source: CurveSource, from: number, to: number, limit = Infinity): Fitted | null {
  const start = source.sample(from).at
  const end = source.sample(to).at
  const size = distance(start, end)
  const samples = measureSamples(source, from, to)
  const span = samples.reduce((m, s) => Math.max(m, distance(s.at, start)), size)
  if (span === 0) return { cubic: cubic(start, start, end, end), from, to, deviation: 0 }
  if (size < 1e-9 * span) return null
  const t0 = endTangent(source, from, to)
  const t1 = endTangent(source, to, from)
  if (!t0 || !t1) return null
  const frame = chordFrame(source, from, to, start, end, t0, { x: -t1.x, y: -t1.y })
  let best: Fitted | null = null
  for (const [d0, d1] of armLengths(frame)) {
    const c = cubic(start, along(start, t0, d0 * size), along(end, t1, d1 * size), end)
    const deviation = deviationFrom(samples, c, Math.min(limit, best?.deviation ?? Infinity))
    if (!best || deviation < best.deviation) best = { cubic: c, from, to, deviation }
  }
  return best && best.deviation <= limit ? best : null
}

/** Unit tangent at `u` pointing towards `towards`; a vanished derivative is replaced by its limit from inside. */
function endTangent(source: CurveSource, u: number, towards: number): Vec | null {
  const sign = Math.sign(towards - u)
  const here = source.sample(u)
  const far = source.sample(u + (towards - u) * 0.01)
  const speed = length(here.derivative)
  const d = speed > 1e-6 * length(far.derivative) ? here.derivative : source.sample(u + (towards - u) * 1e-5).derivative
  const unit = direction(d)
  return unit && { x: unit.x * sign, y: unit.y * sign }
}

function chordFrame(
  source: CurveSource,
  from: number,
  to: number,
  start: Vec,
  end: Vec,
  t0: Vec,
  t1: Vec,
): ChordFrame {
  const chord = subtract(end, start)
  const size = length(chord)
  const angle = Math.atan2(chord.y, chord.x)
  let area = 0
  let moment = 0
  const parts = smoothParts(source, from, to)
  const rule = parts.length > 3 ? GAUSS_5 : GAUSS_16
  for (const [low, high] of parts) {
    const half = (high - low) / 2
    const mid = (high + low) / 2
    rule.nodes.forEach((node, i) => {
      const { at, derivative } = source.sample(mid + half * node)
      const p = rotate(subtract(at, start), -angle)
      const d = rotate(derivative, -angle)
      const w = (rule.weights[i]! * half * d.x * p.y) / (size * size)
      area += w
      moment += (w * p.x) / size
    })
  }
  const a = rotate(t0, -angle)
  const b = rotate(t1, -angle)
  return { origin: start, chord, size, theta0: Math.atan2(a.y, a.x), theta1: Math.atan2(-b.y, b.x), area, moment }
}

/** Area and first moment over the chord of the cubic (0,0), d0 (c0, s0), (1 - d1 c1, d1 s1), (1,0). */
function momentOf(d0: number, d1: number, c0: number, s0: number, c1: number, s1: number): number {
  const c = cubic({ x: 0, y: 0 }, { x: d0 * c0, y: d0 * s0 }, { x: 1 - d1 * c1, y: d1 * s1 }, { x: 1, y: 0 })
  let sum = 0
  GAUSS_5.nodes.forEach((node, i) => {
    const t = (1 + node) / 2
    const p = pointAt(c, t)
    sum += (GAUSS_5.weights[i]! / 2) * p.x * p.y * derivativeAt(c, t).x
  })
  return sum
}

const NODES = [0, 0.25, 0.5, 0.75, 1, 1.25, 1.5]

/** Handle lengths, as shares of the chord, whose cubics have the frame's area and first moment. */
function armLengths({ theta0, theta1, area, moment }: ChordFrame): [number, number][] {
  const [c0, s0, c1, s1] = [Math.cos(theta0), Math.sin(theta0), Math.cos(theta1), Math.sin(theta1)]
  const even: [number, number] = [evenArm(theta0, theta1), evenArm(theta0, theta1)]
  if (Math.abs(s0) < 1e-6 && Math.abs(s1) < 1e-6) return [[1 / 3, 1 / 3]]
  // area = 3/20 (2 d0 s0 + 2 d1 s1 - d0 d1 sin(theta0 + theta1)) is linear in d1 for a given d0, so that
  // d1 = top / bottom; the moment, of second degree in d1, times bottom^2 is a polynomial in d0.
  const both = Math.sin(theta0 + theta1)
  const top = (d0: number): number => (20 / 3) * area - 2 * d0 * s0
  const bottom = (d0: number): number => 2 * s1 - d0 * both
  const xs: number[] = []
  const ys: number[] = []
  for (const node of NODES) {
    const d0 = Math.abs(bottom(node)) < 1e-3 ? node + 0.07 : node
    const b = bottom(d0)
    if (Math.abs(b) < 1e-9) continue
    xs.push(d0)
    ys.push((momentOf(d0, top(d0) / b, c0, s0, c1, s1) - moment) * b * b)
  }
  const arms: [number, number][] = [even]
  if (xs.length < 5) return arms
  for (const d0 of realRoots(interpolate(xs.slice(0, 5), ys.slice(0, 5)), 0, 2)) {
    const b = bottom(d0)
    if (Math.abs(b) < 1e-9) continue
    const d1 = top(d0) / b
    if (d0 > 1e-4 && d1 > 1e-4 && d0 < 2 && d1 < 2) arms.push([d0, d1])
  }
  return arms
}

/** Handle length of the circular arc with the mean of the two angles. */
function evenArm(theta0: number, theta1: number): number {
  const half = Math.abs(theta0 + theta1) / 2
  return half < 1e-3 || half > 2.6 ? 1 / 3 : (2 / 3) * (1 / (1 + Math.cos(half)))
}

interface Measure {
  at: Vec
  derivative: Vec
}

function measureSamples(source: CurveSource, from: number, to: number): Measure[] {
  const out: Measure[] = []
  const parts = smoothParts(source, from, to)
  const each = Math.max(2, Math.ceil(MEASURES / parts.length))
  parts.forEach(([low, high], k) => {
    for (let i = k === 0 ? 1 : 0; i < each; i++) out.push(source.sample(low + ((high - low) * i) / each))
  })
  return out
}

/**
 * Largest distance from the samples to the cubic. A sample whose nearest point is out of order or runs the other way
 * makes the fit worthless: the cubic has a loop or a cusp there. So does one farther away than `limit` px.
 */
function deviationFrom(samples: readonly Measure[], c: Cubic, limit: number): number {
  let worst = 0
  let t = 0
  const steps = 32
  const points: Vec[] = []
  for (let i = 0; i <= steps; i++) points.push(pointAt(c, i / steps))
  let k = 0
  for (const s of samples) {
    // Nearest of the cubic's points at or after the last one.
    let best = k
    let least = Infinity
    for (let i = k; i <= steps; i++) {
      const d = (points[i]!.x - s.at.x) ** 2 + (points[i]!.y - s.at.y) ** 2
      if (d < least) {
        least = d
        best = i
      }
    }
    k = Math.max(k, best - 1)
    const hit = nearestFrom(c, s.at, best / steps)
    if (hit.t < t - 0.02) return Infinity
    t = hit.t
    if (hit.t > 0.02 && hit.t < 0.98 && dot(derivativeAt(c, hit.t), s.derivative) < 0) return Infinity
    if (hit.distance > worst) worst = hit.distance
    if (worst > limit) return Infinity
  }
  return worst
}
