import Flatbush from 'flatbush'
import type { Cubic } from '../geometry/cubic'
import { flatten, pointAt, reach } from '../geometry/cubic'
import type { Vec } from '../geometry/point'

/** Flattened curves with an index, for asking how far a point is from them. */
export class NearIndex {
  private readonly edges: number[] = []
  private readonly index: Flatbush

  /** @param tolerance px by which the flattening may be off */
  constructor(curves: Iterable<Cubic>, tolerance: number) {
    for (const c of curves) {
      const points = flatten(c, tolerance)
      for (let i = 1; i < points.length; i++) {
        this.edges.push(points[i - 1]!.x, points[i - 1]!.y, points[i]!.x, points[i]!.y)
      }
    }
    const count = this.edges.length / 4
    this.index = new Flatbush(Math.max(1, count))
    for (let i = 0; i < Math.max(1, count); i++) {
      const [ax, ay, bx, by] = this.edges.slice(4 * i, 4 * i + 4)
      if (ax === undefined) this.index.add(0, 0, 0, 0)
      else this.index.add(Math.min(ax, bx!), Math.min(ay!, by!), Math.max(ax, bx!), Math.max(ay!, by!))
    }
    this.index.finish()
  }

  /** Distance from `p` to the nearest curve, px; looks no farther than `within`, and answers it when nothing is there. */
  distance(p: Vec, within: number): number {
    let best = within
    if (!this.edges.length) return best
    const { edges } = this
    this.index.search(p.x - within, p.y - within, p.x + within, p.y + within, (i: number) => {
      const [ax, ay, bx, by] = [edges[4 * i]!, edges[4 * i + 1]!, edges[4 * i + 2]!, edges[4 * i + 3]!]
      const [dx, dy] = [bx - ax, by - ay]
      const u = Math.min(1, Math.max(0, ((p.x - ax) * dx + (p.y - ay) * dy) / (dx * dx + dy * dy || 1)))
      best = Math.min(best, Math.hypot(p.x - ax - dx * u, p.y - ay - dy * u))
      return false
    })
    return best
  }
}

/** Points along every curve, about `spacing` px apart and at least nine a curve. */
function* probes(curves: readonly Cubic[], spacing: number): Generator<Vec> {
  for (const c of curves) {
    const n = Math.min(200, Math.max(8, Math.ceil(reach(c) / spacing)))
    for (let i = 0; i <= n; i++) yield pointAt(c, i / n)
  }
}

/**
 * Two-way Hausdorff distance between two sets of curves, px, measured at probes along both. Anything beyond
 * `scale` * 20 is answered as that.
 */
export function deviationBetween(a: readonly Cubic[], b: readonly Cubic[], scale: number): number {
  const within = scale * 20
  let worst = 0
  for (const [from, to] of [
    [a, b],
    [b, a],
  ] as const) {
    const index = new NearIndex(to, scale / 50)
    for (const p of probes(from, 2)) worst = Math.max(worst, index.distance(p, within))
  }
  return worst
}
