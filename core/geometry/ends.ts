import { crossingsOf } from './crossings'
import { straight } from './cubic'
import { arcOfPath } from './known'
import { partOfPath } from './part-of-path'
import { reversePath } from './path'
import type { Vec } from './point'
import { along, distance, lerp } from './point'
import type { Path } from './path'

/** Which end of an open line. */
export type End = 'first' | 'last'

/** How far an end is lengthened at most until it meets a line, px. */
const FARTHEST = 5000

/** Nearer than this an end lies on a line already, px. */
const ON_IT = 1e-3

/** An open path with one end lengthened straight on until it meets one of `others`; null where it meets none. */
export function extendedPath(path: Path, end: End, others: readonly Path[]): Path | null {
  return atLast(path, end, (p) => {
    const hit = ahead(p, others, FARTHEST)
    return hit && lengthened(p, hit)
  })
}

/**
 * An open path with one end brought onto the middle of a line of `others` that is within `reach` px: shortened to the
 * crossing where it overshoots, lengthened where it stops short, or else moved there. Null where no line is near.
 */
export function tuckedPath(path: Path, end: End, others: readonly Path[], reach: number): Path | null {
  return atLast(path, end, (p) => {
    const arc = arcOfPath(p)
    const crossings = others
      .flatMap((o) => crossingsOf(arc.cubics, arcOfPath(o).cubics))
      .map((c) => arc.at(c.a.segment, c.a.t))
    const over = Math.max(...crossings.filter((s) => arc.total - s <= reach && s > ON_IT), -1)
    if (over >= 0) return arc.total - over < ON_IT ? p : partOfPath(p, 0, over / arc.total)
    const hit = ahead(p, others, reach)
    if (hit) return lengthened(p, hit)
    const tip = p.nodes[p.nodes.length - 1]!.at
    const near = others
      .map((o) => ({ arc: arcOfPath(o), hit: arcOfPath(o).nearest(tip) }))
      .sort((a, b) => a.hit.distance - b.hit.distance)[0]
    return near && near.hit.distance <= reach ? withTipAt(p, near.arc.point(near.hit.length)) : null
  })
}

/** Works on the last end; the first one is the last of the path turned round. */
function atLast(path: Path, end: End, work: (path: Path) => Path | null): Path | null {
  if (path.closed || path.nodes.length < 2) return null
  if (end === 'last') return work(path)
  const done = work(reversePath(path))
  return done && reversePath(done)
}

/** The first place that a path would come to if it went straight on from its end. */
function ahead(path: Path, others: readonly Path[], most: number): Vec | null {
  const arc = arcOfPath(path)
  const tangent = arc.tangent(arc.total)
  if (!tangent) return null
  const tip = path.nodes[path.nodes.length - 1]!.at
  const ray = straight(tip, along(tip, tangent, most))
  const hits = others.flatMap((o) => crossingsOf([ray], arcOfPath(o).cubics)).filter((c) => c.a.t * most > ON_IT)
  return hits.sort((a, b) => a.a.t - b.a.t)[0]?.at ?? null
}

/** The path gone straight on to `to`: a straight last segment grows, a curved one gets another after it. */
function lengthened(path: Path, to: Vec): Path {
  const nodes = path.nodes.slice()
  const last = nodes.length - 1
  const tip = nodes[last]!
  if (!nodes[last - 1]!.out && !tip.in) nodes[last] = { ...tip, at: to }
  else {
    nodes[last] = { ...tip, out: lerp(tip.at, to, 1 / 3), joint: tip.in ? 'smooth' : 'corner' }
    nodes.push({ at: to, in: lerp(tip.at, to, 2 / 3), out: null, joint: 'corner' })
  }
  return { ...path, nodes }
}

/** The path with its last node, and the handle that leads to it, moved to `to`. */
function withTipAt(path: Path, to: Vec): Path {
  const nodes = path.nodes.slice()
  const tip = nodes[nodes.length - 1]!
  if (distance(tip.at, to) < ON_IT) return path
  const moved = tip.in && { x: tip.in.x + to.x - tip.at.x, y: tip.in.y + to.y - tip.at.y }
  nodes[nodes.length - 1] = { ...tip, at: to, in: moved }
  return { ...path, nodes }
}
