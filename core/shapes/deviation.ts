import Flatbush from 'flatbush'
import type { Cubic } from '../geometry/cubic'
import { flatten, pointAt, reach } from '../geometry/cubic'

/** Flattened curves with an index, for asking how far a point is from them. */
export class NearIndex {
  private readonly edges: Float64Array
  private readonly index: Flatbush | null

  /** @param tolerance px by which the flattening may be off */
  constructor(curves: Iterable<Cubic>, tolerance: number) {
    const edges: number[] = []
    for (const c of curves) {
      const points = flatten(c, tolerance)
      for (let i = 1; i < points.length; i++) edges.push(points[i - 1]!.x, points[i - 1]!.y, points[i]!.x, points[i]!.y)
    }
    this.edges = Float64Array.from(edges)
    const count = edges.length / 4
    this.index = count ? new Flatbush(count) : null
    for (let i = 0; i < edges.length; i += 4) {
      this.index!.add(
        Math.min(edges[i]!, edges[i + 2]!),
        Math.min(edges[i + 1]!, edges[i + 3]!),
        Math.max(edges[i]!, edges[i + 2]!),
        Math.max(edges[i + 1]!, edges[i + 3]!),
      )
    }
    this.index?.finish()
  }

  /** Distance from (x, y) to the nearest curve, px; looks no farther than `within`, and answers it when nothing is there. */
  distance(x: number, y: number, within: number): number {
    const { edges } = this
    let best = within * within
    this.index?.search(x - within, y - within, x + within, y + within, (i: number) => {
      const ax = edges[4 * i]!
      const ay = edges[4 * i + 1]!
      const dx = edges[4 * i + 2]! - ax
      const dy = edges[4 * i + 3]! - ay
      const u = Math.min(1, Math.max(0, ((x - ax) * dx + (y - ay) * dy) / (dx * dx + dy * dy || 1)))
      const ox = x - ax - dx * u
      const oy = y - ay - dy * u
      best = Math.min(best, ox * ox + oy * oy)
      return false
    })
    return Math.sqrt(best)
  }
}

/** The largest distance found within `near` px is looked for this much farther away before it is given up. */
const FARTHER = 20
/** Probes are so many scales apart; so many to a curve at least and at most. */
const APART = 13
const LEAST = 12
const MOST = 200

/**
 * Two-way Hausdorff distance between two sets of curves, px, measured at probes along both, about `scale` * 13 apart and at
 * least thirteen to a curve: so it is the same for the same curves, scaled. Anything beyond `scale` * 20 is answered as that.
 */
export function deviationBetween(a: readonly Cubic[], b: readonly Cubic[], scale: number): number {
  let worst = 0
  for (const [from, to] of [
    [a, b],
    [b, a],
  ] as const) {
    const index = new NearIndex(to, scale / 50)
    for (const c of from) {
      const n = Math.min(MOST, Math.max(LEAST, Math.ceil(reach(c) / (APART * scale))))
      for (let i = 0; i <= n; i++) {
        const p = pointAt(c, i / n)
        let d = index.distance(p.x, p.y, scale)
        if (d >= scale) d = index.distance(p.x, p.y, scale * FARTHER)
        worst = Math.max(worst, d)
      }
    }
  }
  return worst
}
