import { remembered } from '../remembered'
import { arcOfPath, boxOfPath } from './known'
import type { Path } from './path'
import type { Vec } from './point'
import { add, cross, direction, distance, dot, scale, subtract } from './point'

/** From what a point is drawn to, to the point. */
export interface Guide {
  from: Vec
  at: Vec
}

/** A point as it is drawn to what lies near, and by which guides. */
export interface Aligned {
  at: Vec
  guides: Guide[]
}

/**
 * A point level with, or upright above or below, an end, a node or the middle of a segment that lies near; as far from one of
 * them as that is from another on the same level; or in line with the end of an open path. Null where nothing is within reach.
 *
 * @param reach how far the point may be drawn, px
 * @param span how near things must lie, px
 */
export function alignedWith(
  p: Vec,
  paths: readonly Path[],
  { reach, span }: { reach: number; span: number },
): Aligned | null {
  const near = paths.filter((path) => liesNear(path, p, span))
  const refs = near.flatMap(placesOf).filter((r) => distance(r, p) <= span)
  const ahead = inLine(p, near, reach)
  if (ahead) return ahead
  const level = nearestBy(refs, (r) => Math.abs(r.y - p.y), reach)
  const upright = nearestBy(refs, (r) => Math.abs(r.x - p.x), reach)
  const spaced =
    level && !upright
      ? evenly(
          p,
          refs.filter((r) => r.y === level.y).map((r) => r.x),
          reach,
          'x',
        )
      : null
  const stacked =
    upright && !level
      ? evenly(
          p,
          refs.filter((r) => r.x === upright.x).map((r) => r.y),
          reach,
          'y',
        )
      : null
  if (!level && !upright) return null
  const at = { x: upright?.x ?? spaced ?? p.x, y: level?.y ?? stacked ?? p.y }
  return { at, guides: [level, upright].flatMap((from) => (from ? [{ from, at }] : [])) }
}

/**
 * By how much things that are moved are drawn aside so that one of their points comes level with, and one upright above or below,
 * an end, a node or the middle of a segment that lies near; null where none is within reach.
 *
 * @param points where they are now
 */
export function movedToAlign(
  points: readonly Vec[],
  paths: readonly Path[],
  { reach, span }: { reach: number; span: number },
): { by: Vec; guides: Guide[] } | null {
  let level: { p: Vec; from: Vec } | null = null
  let upright: { p: Vec; from: Vec } | null = null
  const off = (pair: { p: Vec; from: Vec } | null, axis: 'x' | 'y'): number =>
    pair ? Math.abs(pair.from[axis] - pair.p[axis]) : Infinity
  for (const p of points) {
    for (const path of paths) {
      if (!liesNear(path, p, span)) continue
      for (const from of placesOf(path)) {
        if (distance(from, p) > span) continue
        const pair = { p, from }
        if (off(pair, 'y') <= reach && off(pair, 'y') < off(level, 'y')) level = pair
        if (off(pair, 'x') <= reach && off(pair, 'x') < off(upright, 'x')) upright = pair
      }
    }
  }
  if (!level && !upright) return null
  const by = { x: upright ? upright.from.x - upright.p.x : 0, y: level ? level.from.y - level.p.y : 0 }
  return { by, guides: [level, upright].flatMap((pair) => (pair ? [{ from: pair.from, at: add(pair.p, by) }] : [])) }
}

function liesNear(path: Path, p: Vec, span: number): boolean {
  const box = boxOfPath(path)
  return p.x >= box.minX - span && p.x <= box.maxX + span && p.y >= box.minY - span && p.y <= box.maxY + span
}

const placesOf = remembered((path: Path): Vec[] => {
  const arc = arcOfPath(path)
  const middles = arc.cubics.map((_, i) => arc.point((arc.starts[i]! + arc.starts[i + 1]!) / 2))
  return [...path.nodes.map((n) => n.at), ...middles]
})

function nearestBy(refs: readonly Vec[], off: (r: Vec) => number, reach: number): Vec | null {
  let best: Vec | null = null
  for (const r of refs) if (off(r) <= reach && (!best || off(r) < off(best))) best = r
  return best
}

/** A place as far from one of some places as that is from another; null where none is within reach. */
function evenly(p: Vec, places: readonly number[], reach: number, axis: 'x' | 'y'): number | null {
  let best: number | null = null
  for (const a of places)
    for (const b of places) {
      const c = 2 * b - a
      if (a === b || Math.abs(c - p[axis]) > reach) continue
      if (best === null || Math.abs(c - p[axis]) < Math.abs(best - p[axis])) best = c
    }
  return best
}

/** The nearest place straight ahead of an open end. */
function inLine(p: Vec, paths: readonly Path[], reach: number): Aligned | null {
  let best: Aligned | null = null
  for (const path of paths.filter((q) => !q.closed && q.nodes.length > 1)) {
    const arc = arcOfPath(path)
    for (const s of [0, arc.total]) {
      const from = arc.point(s)
      const tangent = arc.tangent(s)
      const way = tangent && direction(s ? tangent : scale(tangent, -1))
      if (!way) continue
      const d = subtract(p, from)
      const along = dot(d, way)
      if (along <= reach || Math.abs(cross(way, d)) > reach) continue
      const at = add(from, scale(way, along))
      if (!best || distance(at, p) < distance(best.at, p)) best = { at, guides: [{ from, at }] }
    }
  }
  return best
}
