import { extremes } from './bounds'
import type { Cubic } from './cubic'

const BISECTIONS = 60

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
    let low = stations[i - 1]!
    let high = stations[i]!
    const rises = coordinate(a, b, c, d, low) < value
    if (coordinate(a, b, c, d, high) < value === rises) continue
    for (let k = 0; k < BISECTIONS; k++) {
      const mid = (low + high) / 2
      if (coordinate(a, b, c, d, mid) < value === rises) low = mid
      else high = mid
    }
    const t = (low + high) / 2
    if (t > from && t < to) out.push(t)
  }
  return out
}
