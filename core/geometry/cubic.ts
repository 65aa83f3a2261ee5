import type { Vec } from './point'
import { add, along, cross, direction, distance, dot, length, lerp, scale, subtract } from './point'

/** A cubic Bezier segment by its four control points. */
export interface Cubic {
  p0: Vec
  p1: Vec
  p2: Vec
  p3: Vec
}

/** A cubic by its control points, px. */
export const cubic = (p0: Vec, p1: Vec, p2: Vec, p3: Vec): Cubic => ({ p0, p1, p2, p3 })

/** The straight segment from `a` to `b` as a cubic of even speed. */
export const straight = (a: Vec, b: Vec): Cubic => ({ p0: a, p1: lerp(a, b, 1 / 3), p2: lerp(a, b, 2 / 3), p3: b })

/** The point at t, 0..1 (de Casteljau's sum in powers of t and 1 - t). */
export function pointAt(c: Cubic, t: number): Vec {
  const s = 1 - t
  const a = s * s * s
  const b = 3 * s * s * t
  const d = 3 * s * t * t
  const e = t * t * t
  return {
    x: a * c.p0.x + b * c.p1.x + d * c.p2.x + e * c.p3.x,
    y: a * c.p0.y + b * c.p1.y + d * c.p2.y + e * c.p3.y,
  }
}

/** First derivative with respect to t. */
export function derivativeAt(c: Cubic, t: number): Vec {
  const s = 1 - t
  const a = 3 * s * s
  const b = 6 * s * t
  const d = 3 * t * t
  return {
    x: a * (c.p1.x - c.p0.x) + b * (c.p2.x - c.p1.x) + d * (c.p3.x - c.p2.x),
    y: a * (c.p1.y - c.p0.y) + b * (c.p2.y - c.p1.y) + d * (c.p3.y - c.p2.y),
  }
}

/** Second derivative with respect to t. */
export function secondDerivativeAt(c: Cubic, t: number): Vec {
  const s = 1 - t
  return {
    x: 6 * s * (c.p2.x - 2 * c.p1.x + c.p0.x) + 6 * t * (c.p3.x - 2 * c.p2.x + c.p1.x),
    y: 6 * s * (c.p2.y - 2 * c.p1.y + c.p0.y) + 6 * t * (c.p3.y - 2 * c.p2.y + c.p1.y),
  }
}

/** Below this share of the curve's size a derivative counts as vanished. */
const STILL = 1e-7

/** Size of the control polygon, px. */
export const reach = (c: Cubic): number => distance(c.p0, c.p1) + distance(c.p1, c.p2) + distance(c.p2, c.p3)

/**
 * The unit tangent at t. Where the derivative vanishes (a retracted handle, a cusp) it is the limit from inside the
 * segment; null when the whole segment is one point.
 */
export function tangentAt(c: Cubic, t: number): Vec | null {
  const size = reach(c)
  const d = derivativeAt(c, t)
  if (length(d) > STILL * size) return direction(d)
  const second = secondDerivativeAt(c, t)
  if (length(second) > STILL * size) return direction(t < 0.9999 ? second : scale(second, -1))
  return direction(subtract(c.p3, c.p0))
}

/** Signed curvature, 1/px: positive where the tangent turns from x towards y. Infinite at a cusp. */
export function curvatureAt(c: Cubic, t: number): number {
  const d = derivativeAt(c, t)
  const speed = length(d)
  return cross(d, secondDerivativeAt(c, t)) / (speed * speed * speed)
}

/**
 * Lower bound of the speed |C'| over the whole curve, px: the least that the hodograph's control points advance along
 * the chord; 0 where that says nothing.
 */
export function leastSpeed({ p0, p1, p2, p3 }: Cubic): number {
  const x = p3.x - p0.x
  const y = p3.y - p0.y
  const l = Math.sqrt(x * x + y * y)
  if (l === 0) return 0
  const a = (p1.x - p0.x) * x + (p1.y - p0.y) * y
  const b = (p2.x - p1.x) * x + (p2.y - p1.y) * y
  const c = (p3.x - p2.x) * x + (p3.y - p2.y) * y
  return Math.max(0, (3 * Math.min(a, b, c)) / l)
}

/** Upper bound of the curvature's size over the whole curve, 1/px; Infinity where the bound on the speed says nothing. */
export function mostCurvature(c: Cubic): number {
  const { p0, p1, p2, p3 } = c
  const ax = p1.x - p0.x
  const ay = p1.y - p0.y
  const bx = p2.x - p1.x
  const by = p2.y - p1.y
  const cx = p3.x - p2.x
  const cy = p3.y - p2.y
  // C' x C'' = 18 (s^2 a x b + s t a x c + t^2 b x c): its Bernstein coefficients bound it.
  const most = 18 * Math.max(Math.abs(ax * by - ay * bx), Math.abs(ax * cy - ay * cx) / 2, Math.abs(bx * cy - by * cx))
  const least = leastSpeed(c)
  return least > 0 ? most / (least * least * least) : Infinity
}

/** The two parts of `c` before and after t (de Casteljau). */
export function split(c: Cubic, t: number): [Cubic, Cubic] {
  const a = lerp(c.p0, c.p1, t)
  const b = lerp(c.p1, c.p2, t)
  const d = lerp(c.p2, c.p3, t)
  const e = lerp(a, b, t)
  const f = lerp(b, d, t)
  const g = lerp(e, f, t)
  return [cubic(c.p0, a, e, g), cubic(g, f, d, c.p3)]
}

/** The same curve from its end to its start. */
export const reverse = (c: Cubic): Cubic => cubic(c.p3, c.p2, c.p1, c.p0)

/** The part of `c` from t0 to t1; runs backwards when t0 > t1. The whole curve comes back untouched. */
export function subcurve(c: Cubic, t0: number, t1: number): Cubic {
  if (t0 > t1) return reverse(subcurve(c, t1, t0))
  if (t0 === 0 && t1 === 1) return c
  const k = (t1 - t0) / 3
  const p0 = t0 === 0 ? c.p0 : pointAt(c, t0)
  const p3 = t1 === 1 ? c.p3 : pointAt(c, t1)
  return cubic(p0, along(p0, derivativeAt(c, t0), k), along(p3, derivativeAt(c, t1), -k), p3)
}

/** `c` with its ends moved to `start` and `end`; each handle moves with its end. */
export function moveEnds(c: Cubic, start: Vec, end: Vec): Cubic {
  return cubic(start, add(c.p1, subtract(start, c.p0)), add(c.p2, subtract(end, c.p3)), end)
}

/** Px that control points may be off where a curve still counts as its chord, travelled at an even pace. */
const EVEN = 1e-9

/** Whether a curve is its chord at an even pace, as `straight` makes it. */
export const isEven = ({ p0, p1, p2, p3 }: Cubic): boolean =>
  Math.abs(3 * p1.x - 2 * p0.x - p3.x) < EVEN &&
  Math.abs(3 * p1.y - 2 * p0.y - p3.y) < EVEN &&
  Math.abs(3 * p2.x - p0.x - 2 * p3.x) < EVEN &&
  Math.abs(3 * p2.y - p0.y - 2 * p3.y) < EVEN

/** Whether all control points lie within `tolerance` px of the chord, none beyond its ends by more. */
export function isStraight(c: Cubic, tolerance: number): boolean {
  const chord = subtract(c.p3, c.p0)
  const l = length(chord)
  if (l <= tolerance) return reach(c) <= 2 * tolerance
  for (const p of [c.p1, c.p2]) {
    const q = subtract(p, c.p0)
    if (Math.abs(cross(chord, q)) > tolerance * l) return false
    const u = dot(chord, q)
    if (u < -tolerance * l || u > l * (l + tolerance)) return false
  }
  return true
}

/**
 * How many chords of even parameter steps stay within `tolerance` px of the curve, at most 4,096: by the bound on the
 * second derivative (F. Sabin's chord height bound, h <= |C''| dt^2 / 8).
 */
function flattenCount(c: Cubic, tolerance: number): number {
  const ax = Math.max(Math.abs(c.p0.x - 2 * c.p1.x + c.p2.x), Math.abs(c.p1.x - 2 * c.p2.x + c.p3.x))
  const ay = Math.max(Math.abs(c.p0.y - 2 * c.p1.y + c.p2.y), Math.abs(c.p1.y - 2 * c.p2.y + c.p3.y))
  const bound = 6 * Math.hypot(ax, ay)
  return Math.max(1, Math.min(4096, Math.ceil(Math.sqrt(bound / (8 * tolerance)))))
}

/** Points along `c` from t = 0 to 1, both ends included, within `tolerance` px of the curve. */
export function flatten(c: Cubic, tolerance: number): Vec[] {
  const n = flattenCount(c, tolerance)
  const out: Vec[] = [c.p0]
  for (let i = 1; i < n; i++) out.push(pointAt(c, i / n))
  out.push(c.p3)
  return out
}

/** Parameter and distance (px) of the point of `c` nearest to `p`: coarse search, then Newton on (C - p) . C' = 0. */
export function nearest(c: Cubic, p: Vec, steps = 16): { t: number; distance: number } {
  let t = 0
  let best = Infinity
  for (let i = 0; i <= steps; i++) {
    const q = pointAt(c, i / steps)
    const d = (q.x - p.x) ** 2 + (q.y - p.y) ** 2
    if (d < best) {
      best = d
      t = i / steps
    }
  }
  return nearestFrom(c, p, t)
}

/** As `nearest`, started at `t`. */
export function nearestFrom(c: Cubic, p: Vec, t: number): { t: number; distance: number } {
  let bestT = t
  let best = distance(pointAt(c, t), p)
  for (let i = 0; i < 6; i++) {
    const q = subtract(pointAt(c, t), p)
    const d = derivativeAt(c, t)
    const slope = dot(d, d) + dot(q, secondDerivativeAt(c, t))
    const step = dot(q, d) / (slope > 1e-12 ? slope : dot(d, d) || 1)
    t = Math.min(1, Math.max(0, t - step))
    const now = distance(pointAt(c, t), p)
    if (now < best) {
      best = now
      bestT = t
    }
    if (Math.abs(step) < 1e-10) break
  }
  return { t: bestT, distance: best }
}
