import type { Path } from '../geometry/path'
import { flatten } from '../geometry/cubic'
import { cubicsOfPath } from '../geometry/path'
import type { Vec } from '../geometry/point'
import { direction, distance, lerp, subtract } from '../geometry/point'

/** Where a ray meets an edge: how far away, px, and the way of that edge. */
export interface Hit {
  distance: number
  edge: Vec
}

/** Contours as polygons, for rays. */
export class FlatRings {
  readonly rings: readonly (readonly Vec[])[]
  /** Ends of edges, one after the other: x, y of both. */
  private readonly edges: Float64Array

  /** @param grain how far polygons may lie from the curves, px */
  constructor(contours: readonly Path[], grain: number) {
    this.rings = contours.map((c) =>
      cubicsOfPath({ ...c, closed: true }).flatMap((q) => flatten(q, grain).slice(0, -1)),
    )
    this.edges = Float64Array.from(
      this.rings.flatMap((ring) =>
        ring.flatMap((p, i) => [p.x, p.y, ring[(i + 1) % ring.length]!.x, ring[(i + 1) % ring.length]!.y]),
      ),
    )
  }

  /** The first edge from a point in a direction (of length 1); null where there is none. */
  ray({ x, y }: Vec, way: Vec): Hit | null {
    const e = this.edges
    let nearest = Infinity
    let at = -1
    for (let i = 0; i < e.length; i += 4) {
      const [dx, dy] = [e[i + 2]! - e[i]!, e[i + 3]! - e[i + 1]!]
      const across = way.x * dy - way.y * dx
      if (across > -1e-12 && across < 1e-12) continue
      const [tx, ty] = [e[i]! - x, e[i + 1]! - y]
      const d = (tx * dy - ty * dx) / across
      if (d <= 1e-9 || d >= nearest) continue
      const share = (tx * way.y - ty * way.x) / across
      if (share < -1e-9 || share > 1 + 1e-9) continue
      nearest = d
      at = i
    }
    if (at < 0) return null
    return { distance: nearest, edge: direction({ x: e[at + 2]! - e[at]!, y: e[at + 3]! - e[at + 1]! }) ?? way }
  }
}

/** Points of a ring about as far apart, `count` of them. */
export function spreadRound(ring: readonly Vec[], count: number): Vec[] {
  const lengths = [0]
  for (let i = 0; i < ring.length; i++) lengths.push(lengths[i]! + distance(ring[i]!, ring[(i + 1) % ring.length]!))
  const total = lengths[ring.length]!
  const out: Vec[] = []
  for (let k = 0, i = 0; k < count; k++) {
    const at = (total * k) / count
    while (lengths[i + 1]! < at) i++
    const share = (at - lengths[i]!) / (lengths[i + 1]! - lengths[i]! || 1)
    out.push(lerp(ring[i]!, ring[(i + 1) % ring.length]!, share))
  }
  return out
}

/** Corners of a ring that point outwards more sharply than `angle`, radians between their edges. */
export function sharpTips(ring: readonly Vec[], angle: number): Vec[] {
  const n = ring.length
  return ring.filter((p, i) => {
    const [a, b] = [direction(subtract(ring[(i + n - 1) % n]!, p)), direction(subtract(ring[(i + 1) % n]!, p))]
    return a !== null && b !== null && a.x * b.x + a.y * b.y > Math.cos(angle)
  })
}
