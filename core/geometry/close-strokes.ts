import type { Path, PathNode } from './path'
import { reversePath } from './path'
import { distance, lerp } from './point'

/** Ends nearer to each other than this become one node, px. */
const TOUCHING = 0.5

/**
 * One closed contour of a figure that was drawn in several strokes: from stroke to stroke by the nearest ends, straight
 * across the gaps. Closed strokes among them are taken as they are if there is but one.
 */
export function closedFigure(strokes: readonly Path[]): Path | null {
  const left = strokes.filter((s) => s.nodes.length > 1)
  const first = left.shift()
  if (!first) return null
  if (first.closed && !left.length) return first
  let nodes: PathNode[] = opened(first)
  while (left.length) {
    const tail = nodes[nodes.length - 1]!.at
    const near = left.map((s, i) => {
      const own = opened(s)
      const [a, b] = [distance(tail, own[0]!.at), distance(tail, own[own.length - 1]!.at)]
      return { i, turned: b < a, gap: Math.min(a, b) }
    })
    const next = near.reduce((best, n) => (n.gap < best.gap ? n : best))
    const [stroke] = left.splice(next.i, 1)
    nodes = chained(nodes, opened(next.turned ? reversePath(stroke!) : stroke!))
  }
  const last = nodes[nodes.length - 1]!
  if (nodes.length > 2 && distance(last.at, nodes[0]!.at) < TOUCHING) {
    nodes = [{ ...nodes[0]!, in: last.in }, ...nodes.slice(1, -1)]
  }
  return { nodes, closed: true }
}

/** The nodes of a stroke without handles beyond its ends; a closed one comes back to its first node. */
function opened({ nodes, closed }: Path): PathNode[] {
  const all = closed ? [...nodes, nodes[0]!] : [...nodes]
  const last = all.length - 1
  return all.map((n, i) => ({
    ...n,
    in: i === 0 ? null : n.in,
    out: i === last ? null : n.out,
    joint: i === 0 || i === last ? 'corner' : n.joint,
  }))
}

function chained(a: readonly PathNode[], b: readonly PathNode[]): PathNode[] {
  const [end, start] = [a[a.length - 1]!, b[0]!]
  if (distance(end.at, start.at) >= TOUCHING) return [...a, ...b]
  const at = lerp(end.at, start.at, 0.5)
  return [...a.slice(0, -1), { at, in: end.in, out: start.out, joint: 'corner' }, ...b.slice(1)]
}
