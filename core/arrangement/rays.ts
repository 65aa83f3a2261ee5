import type { Vec } from '../geometry/point'
import type { Chains } from './chains'

/** Edges meet a ray at one place when no farther apart than this, grid units: vertices are whole units apart. */
const TIE = 1e-6

/**
 * For each of some points (grid units) the half-chain whose left face a ray from it towards -x first comes to; -1 where
 * nothing lies there. One pass over the edges: each looks up which rays it may meet among them in order of y.
 */
export function halvesLeftOf(chains: Chains, points: readonly Vec[]): Int32Array {
  const { x, y } = chains.vertices
  const rays = Int32Array.from(points.keys()).sort((i, k) => points[i]!.y - points[k]!.y)
  const heights = Float64Array.from(rays, (i) => points[i]!.y)
  const best = new Int32Array(points.length).fill(-1)
  const nearest = new Float64Array(points.length).fill(-Infinity)
  const leaning = new Float64Array(points.length).fill(-Infinity)
  for (let c = 0; c < chains.count; c++) {
    for (let i = chains.start[c]!; i < chains.start[c + 1]!; i++) {
      const a = chains.from[chains.edges[i]!]!
      const b = chains.to[chains.edges[i]!]!
      const top = Math.min(y[a]!, y[b]!)
      const bottom = Math.max(y[a]!, y[b]!)
      if (top === bottom) continue
      const slope = (x[b]! - x[a]!) / (y[b]! - y[a]!)
      for (let k = firstFrom(heights, top); k < heights.length && heights[k]! < bottom; k++) {
        const ray = rays[k]!
        const at = x[a]! + (heights[k]! - y[a]!) * slope
        if (at >= points[ray]!.x - TIE || at < nearest[ray]! - TIE) continue
        // Edges that leave one vertex of the ray: the one that leans to the right is the nearer.
        if (at <= nearest[ray]! + TIE && slope <= leaning[ray]!) continue
        nearest[ray] = at
        leaning[ray] = slope
        // What lies to the right of an edge that goes up in y is on its other side.
        best[ray] = 2 * c + (y[b]! > y[a]! ? 1 : 0)
      }
    }
  }
  return best
}

/** Index of the first of the ascending values that is not below `v`. */
function firstFrom(values: Float64Array, v: number): number {
  let low = 0
  let high = values.length
  while (low < high) {
    const mid = (low + high) >> 1
    if (values[mid]! < v) low = mid + 1
    else high = mid
  }
  return low
}
