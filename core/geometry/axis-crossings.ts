import { extremes } from './bounds'
import type { Cubic } from './cubic'

/** Steps of a search, at most; and how near it comes, as a parameter. */
const STEPS = 60
const NEAR = 1e-15

/** One coordinate of a cubic at `t`. */
function coordinate(a: number, b: number, c: number, d: number, t: number): number {
  const s = 1 - t
  return s * s * s * a + 3 * s * s * t * b + 3 * s * t * t * c + t * t * t * d
}

/**
 * Parameters in (from, to), rising, at which a cubic crosses the upright line x = value, or the level line y = value. The
 * same curve and line give the same parameters whatever the range, but for those at its very ends; touching is no crossing.
 */
export function axisCrossings(curve: Cubic, axis: 'x' | 'y', value: number, from: number, to: number): number[] {
  const [a, b, c, d] = [curve.p0[axis], curve.p1[axis], curve.p2[axis], curve.p3[axis]]
  if (Math.min(a, b, c, d) > value || Math.max(a, b, c, d) < value) return []
  const stations = [0, ...extremes(a, b, c, d).sort((s, t) => s - t), 1]
  const out: number[] = []
  for (let i = 1; i < stations.length; i++) {
    const low = stations[i - 1]!
    const high = stations[i]!
    const rises = coordinate(a, b, c, d, low) < value
    if (coordinate(a, b, c, d, high) < value === rises) continue
    const t = rootBetween(a, b, c, d, value, low, high, rises)
    if (t > from && t < to) out.push(t)
  }
  return out
}

/** Where a coordinate that only rises or only falls between two parameters comes to a value: Newton within a bracket. */
function rootBetween(
  a: number,
  b: number,
  c: number,
  d: number,
  value: number,
  from: number,
  to: number,
  rises: boolean,
): number {
  let [low, high] = [from, to]
  let t = (low + high) / 2
  for (let k = 0; k < STEPS; k++) {
    const off = coordinate(a, b, c, d, t) - value
    if (off === 0) return t
    if (off < 0 === rises) low = t
    else high = t
    const s = 1 - t
    const slope = 3 * (s * s * (b - a) + 2 * s * t * (c - b) + t * t * (d - c))
    const next = t - off / slope
    const inside = next > low && next < high
    const step = (inside ? next : (low + high) / 2) - t
    t += step
    if (Math.abs(step) < NEAR) break
  }
  return t
}
