import type { Path, PathNode } from '../geometry/path'
import { withArm } from '../editing/edit-path'
import { ArcLength } from '../geometry/arc-length'
import type { Cubic } from '../geometry/cubic'
import { segmentBetween } from '../geometry/path'
import type { Vec } from '../geometry/point'
import { direction, lerp, subtract } from '../geometry/point'
import { crestAlong } from './cling'
import type { PencilMap } from './pencil-map'
import type { ClingOptions } from './settle'

/** Places along a segment are so many grains apart; shorter segments are left as they are. */
const STEP = 3
const FEWEST = 6
/** Places are put along the curve anew so often. */
const ROUNDS = 4
/** An arm is no shorter than this share of the chord. */
const LEAST_ARM = 0.02

/** Which ways out of its ends a segment keeps; it takes any where nothing is said. */
interface Kept {
  start?: Vec | null
  end?: Vec | null
}

/**
 * A path with some of its segments bent along the pencil beneath them: their ends stay, their handles are fitted. Smooth nodes
 * stay smooth; segments beside those that are named stay as they are but for a handle that turns with its node.
 */
export function segmentsAlong(path: Path, segments: readonly number[], pencil: PencilMap, options: ClingOptions): Path {
  const n = path.nodes.length
  const of = (p: Path, i: number): [PathNode, PathNode] => [p.nodes[i]!, p.nodes[(i + 1) % n]!]
  const named = new Set(segments)
  const drawn = (p: Path, i: number, kept: Kept): Path => {
    const [a, b] = of(p, i)
    const c = segmentAlong(segmentBetween(a, b), pencil, options, kept)
    return c ? withHandles(p, i, c) : p
  }
  // One alone may turn its ends; of several the ends that lead to others keep their way.
  const keptBy = (p: Path, i: number, joints: boolean): Kept => {
    if (segments.length < 2) return {}
    const [a, b] = of(p, i)
    const keeps = (node: PathNode, beyond: number): boolean => node.joint === 'smooth' && (joints || !named.has(beyond))
    return {
      start: keeps(a, (i - 1 + n) % n) && a.out ? direction(subtract(a.out, a.at)) : null,
      end: keeps(b, (i + 1) % n) && b.in ? direction(subtract(b.in, b.at)) : null,
    }
  }
  let out = path
  for (const i of segments) out = drawn(out, i, keptBy(out, i, false))
  // Their common nodes turned with the last; the others follow.
  if (segments.length > 1) for (const i of segments) out = drawn(out, i, keptBy(out, i, true))
  return out
}

function withHandles(path: Path, segment: number, { p1, p2 }: Cubic): Path {
  const nodes = path.nodes.slice()
  const next = (segment + 1) % nodes.length
  nodes[segment] = withArm(nodes[segment]!, 'out', p1)
  nodes[next] = withArm(nodes[next]!, 'in', p2)
  return { ...path, nodes }
}

/** A segment bent along the pencil within reach of it; null where there is none. */
function segmentAlong(c: Cubic, pencil: PencilMap, { reach, strength }: ClingOptions, kept: Kept): Cubic | null {
  const arc = new ArcLength([c])
  const n = Math.round(arc.total / (STEP * pencil.grain))
  if (n < FEWEST) return null
  const points = Array.from({ length: n + 1 }, (_, i) => arc.point((i / n) * arc.total))
  const ways = points.map(
    (_, i) => direction(subtract(points[Math.min(n, i + 1)]!, points[Math.max(0, i - 1)]!)) ?? { x: 1, y: 0 },
  )
  const found = crestAlong(points, ways, pencil, reach)
  if (!found) return null
  return bentThrough(
    c,
    points.map((p, i) => lerp(p, found.crest[i]!, strength * found.pull[i]!)),
    kept,
  )
}

/** A cubic with its ends kept that lies nearest to points, by least squares (P. J. Schneider, An algorithm for automatically fitting digitized curves, 1990). */
function bentThrough(c: Cubic, points: readonly Vec[], { start, end }: Kept): Cubic {
  let out = c
  let ts = points.map((_, i) => i / (points.length - 1))
  for (let round = 0; round < ROUNDS; round++) {
    // What a handle may be: any point (two unknowns), or one along its way (one).
    const unknowns: { b: 1 | 2; way: Vec }[] = [
      ...(start
        ? [{ b: 1 as const, way: start }]
        : [
            { b: 1 as const, way: { x: 1, y: 0 } },
            { b: 1 as const, way: { x: 0, y: 1 } },
          ]),
      ...(end
        ? [{ b: 2 as const, way: end }]
        : [
            { b: 2 as const, way: { x: 1, y: 0 } },
            { b: 2 as const, way: { x: 0, y: 1 } },
          ]),
    ]
    const k = unknowns.length
    const rows = Array.from({ length: k }, () => new Array<number>(k + 1).fill(0))
    points.forEach((p, i) => {
      const t = ts[i]!
      const s = 1 - t
      const weight = { 1: 3 * s * s * t, 2: 3 * s * t * t }
      const [a, d] = [s * s * s + weight[1], t * t * t + weight[2]]
      const left = { x: p.x - a * c.p0.x - d * c.p3.x, y: p.y - a * c.p0.y - d * c.p3.y }
      unknowns.forEach((u, j) => {
        const w = weight[u.b]
        unknowns.forEach((v, m) => (rows[j]![m]! += w * weight[v.b] * (u.way.x * v.way.x + u.way.y * v.way.y)))
        rows[j]![k]! += w * (u.way.x * left.x + u.way.y * left.y)
      })
    })
    const found = solved(rows)
    if (!found) return out
    const least = LEAST_ARM * Math.hypot(c.p3.x - c.p0.x, c.p3.y - c.p0.y)
    const arm = (b: 1 | 2, kept: Vec | null | undefined): Vec =>
      unknowns.reduce(
        (sum, u, j) =>
          u.b === b
            ? {
                x: sum.x + u.way.x * Math.max(kept ? least : -Infinity, found[j]!),
                y: sum.y + u.way.y * Math.max(kept ? least : -Infinity, found[j]!),
              }
            : sum,
        { x: 0, y: 0 },
      )
    const [p, q] = [arm(1, start), arm(2, end)]
    out = { p0: c.p0, p1: { x: c.p0.x + p.x, y: c.p0.y + p.y }, p2: { x: c.p3.x + q.x, y: c.p3.y + q.y }, p3: c.p3 }
    const arc = new ArcLength([out])
    ts = points.map((p, i) => (i === 0 ? 0 : i === points.length - 1 ? 1 : arc.nearest(p).t))
  }
  return out
}

/** The solution of a small system of equations, each row with its right side last; null where there is none (Gauss). */
function solved(rows: number[][]): number[] | null {
  const k = rows.length
  for (let i = 0; i < k; i++) {
    let best = i
    for (let j = i + 1; j < k; j++) if (Math.abs(rows[j]![i]!) > Math.abs(rows[best]![i]!)) best = j
    if (Math.abs(rows[best]![i]!) < 1e-12) return null
    ;[rows[i], rows[best]] = [rows[best]!, rows[i]!]
    for (let j = 0; j < k; j++) {
      if (j === i) continue
      const f = rows[j]![i]! / rows[i]![i]!
      for (let m = i; m <= k; m++) rows[j]![m]! -= f * rows[i]![m]!
    }
  }
  return rows.map((row, i) => row[k]! / row[i]!)
}
