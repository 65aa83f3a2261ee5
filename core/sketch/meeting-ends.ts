import type { Path } from '../geometry/path'
import { grown, isWithin } from '../geometry/bounds'
import { arcOfPath, boxOfPath } from '../geometry/known'
import type { Vec } from '../geometry/point'
import { add, along as ahead, direction, distance, subtract } from '../geometry/point'

/** An end looks ahead for a line up to so many reaches, in steps of this share of one. */
const AHEAD = 1.6
const STEP = 0.1
/** A line that is not ahead of an end takes it within this share of the reach. */
const ASIDE = 0.5
/** Of its own line an end meets what lies farther along it than so many reaches. */
const AWAY = 4
/** A line's way is looked at so many reaches before its end; what it comes to lies no farther from that than so many. */
const BACK = 1.1
const MOST = 2

/**
 * Paths whose open ends lie on the line beside which they come to rest within `reach`: a crest swerves where another line
 * joins it, and so an end stops short of that line's middle, or lies off it once both are smooth.
 */
export function meetingEnds(paths: readonly Path[], reach: number): Path[] {
  return paths.map((path, i) => {
    if (path.closed || path.nodes.length < 2) return path
    return [true, false].reduce((p, first) => {
      const to = restOf(path, i, first, paths, reach)
      return to ? withEndAt(p, first, to) : p
    }, path)
  })
}

/** Where an end of a path comes to rest on another line; null where it does already, or none is near. */
function restOf(path: Path, own: number, first: boolean, paths: readonly Path[], reach: number): Vec | null {
  const mine = arcOfPath(path)
  const back = Math.min(BACK * reach, mine.total / 3)
  const along = (s: number): Vec => mine.point(first ? s : mine.total - s)
  const p = along(0)
  // Near the other line it swerves: where it was going tells better where they meet.
  const foot = along(back)
  const out = direction(subtract(foot, along(Math.min(mine.total, 2 * back))))
  if (!out) return null
  const others = paths.filter(
    (o, i) => i !== own && o.nodes.length > 1 && isWithin(p, grown(boxOfPath(o), AHEAD * reach)),
  )
  const near = (q: Vec): { at: Vec; off: number } | null => {
    let best: { at: Vec; off: number } | null = null
    const keep = (at: Vec, off: number): void => {
      if (!best || off < best.off) best = { at, off }
    }
    for (const o of others) {
      const arc = arcOfPath(o)
      const hit = arc.nearest(q)
      keep(arc.point(hit.length), hit.distance)
    }
    if (mine.total > 2 * AWAY * reach) {
      const hit = mine.nearest(q)
      const far = first ? hit.length : mine.total - hit.length
      if (far > AWAY * reach) keep(mine.point(hit.length), hit.distance)
    }
    return best
  }
  const here = near(p)
  if (!here || here.off > AHEAD * reach) return null
  for (let t = back / reach / 2; t <= back / reach + AHEAD; t += STEP) {
    const hit = near(ahead(foot, out, t * reach))
    if (hit && hit.off <= STEP * reach) return distance(hit.at, p) <= MOST * reach ? hit.at : null
  }
  return here.off <= ASIDE * reach && here.off > 0 ? here.at : null
}

/** A path with an end moved, its handle with it. */
function withEndAt(path: Path, first: boolean, to: Vec): Path {
  const nodes = path.nodes.slice()
  const i = first ? 0 : nodes.length - 1
  const n = nodes[i]!
  const d = subtract(to, n.at)
  nodes[i] = { ...n, at: to, in: n.in && add(n.in, d), out: n.out && add(n.out, d) }
  return { ...path, nodes }
}
