import type { Path } from './path'
import type { ArcLength } from './arc-length'
import { derivativeAt, pointAt } from './cubic'
import { arcOfPath, boxOfPath, crossingsBetween } from './known'
import type { Vec } from './point'
import { cross, distance, subtract } from './point'

/** What a point can be drawn to, the strongest first. */
export const SNAP_KINDS = ['end', 'node', 'crossing', 'middle', 'tangent', 'line', 'align', 'grid'] as const
export type SnapKind = (typeof SNAP_KINDS)[number]

export interface Snap {
  at: Vec
  kind: SnapKind
  /** Unit tangent of the line there, for places on one line. */
  along: Vec | null
}

export interface SnapOptions {
  /** How far a place may draw the point to it, px. */
  reach: number
  kinds: ReadonlySet<SnapKind>
  /** Spacing of the grid, px. */
  grid: number
  /** Where the segment that ends at the point begins: tangents are taken from there. */
  from?: Vec | null
}

/**
 * The place near `p` that it should be drawn to: ends and nodes of `paths`, their crossings, the middles of their
 * segments, places where a straight line from `from` would touch one, the nearest place of a line, and the grid. Among
 * places within reach the strongest kind wins, then the nearest. Null with nothing near.
 */
export function snapOf(p: Vec, paths: readonly Path[], { reach, kinds, grid, from = null }: SnapOptions): Snap | null {
  const near = paths.filter((path) => boxHolds(path, p, reach) && arcOfPath(path).nearest(p).distance <= reach)
  const places = [
    ...near.flatMap((path) => placesOf(path, p, from, reach)),
    ...near.flatMap((a, i) =>
      near
        .slice(i)
        .flatMap((b) => crossingsBetween(a, b).map((c): Snap => ({ at: c.at, kind: 'crossing', along: null }))),
    ),
  ]
  if (grid > 0)
    places.push({
      at: { x: Math.round(p.x / grid) * grid, y: Math.round(p.y / grid) * grid },
      kind: 'grid',
      along: null,
    })
  let best: Snap | null = null
  for (const place of places) {
    if (!kinds.has(place.kind) || distance(place.at, p) > reach) continue
    if (!best || stronger(place, best, p)) best = place
  }
  return best
}

function stronger(a: Snap, b: Snap, p: Vec): boolean {
  const [i, k] = [SNAP_KINDS.indexOf(a.kind), SNAP_KINDS.indexOf(b.kind)]
  return i !== k ? i < k : distance(a.at, p) < distance(b.at, p)
}

function boxHolds(path: Path, p: Vec, reach: number): boolean {
  const box = boxOfPath(path)
  return p.x >= box.minX - reach && p.x <= box.maxX + reach && p.y >= box.minY - reach && p.y <= box.maxY + reach
}

function placesOf(path: Path, p: Vec, from: Vec | null, reach: number): Snap[] {
  const arc = arcOfPath(path)
  const last = path.nodes.length - 1
  const places = path.nodes.map(({ at }, i): Snap => ({
    at,
    kind: !path.closed && (i === 0 || i === last) ? 'end' : 'node',
    along: null,
  }))
  if (!arc.total) return places
  const at = (length: number, kind: SnapKind): Snap => ({ at: arc.point(length), kind, along: arc.tangent(length) })
  const hit = arc.nearest(p)
  places.push(at(hit.length, 'line'))
  for (let i = 0; i < arc.cubics.length; i++) places.push(at((arc.starts[i]! + arc.starts[i + 1]!) / 2, 'middle'))
  if (from && distance(from, p) > reach)
    for (const length of touchingFrom(arc, from, hit.segment)) places.push(at(length, 'tangent'))
  return places
}

const STEPS = 16

/** Arc lengths within one segment at which its tangent passes through `from`, px. */
function touchingFrom(arc: ArcLength, from: Vec, segment: number): number[] {
  const c = arc.cubics[segment]!
  const side = (t: number): number => cross(subtract(pointAt(c, t), from), derivativeAt(c, t))
  const out: number[] = []
  for (let i = 0; i < STEPS; i++) {
    let [low, high] = [i / STEPS, (i + 1) / STEPS]
    const sign = Math.sign(side(low))
    // A straight segment runs through its own extension everywhere: that is no touching.
    if (sign === 0 || sign === Math.sign(side(high))) continue
    for (let k = 0; k < 40; k++) {
      const mid = (low + high) / 2
      if (Math.sign(side(mid)) === sign) low = mid
      else high = mid
    }
    out.push(arc.at(segment, (low + high) / 2))
  }
  return out
}
