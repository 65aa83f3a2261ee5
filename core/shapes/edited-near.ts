import { withNodeAt } from '../geometry/add-node'
import { arcOfPath } from '../geometry/known'
import type { Path, PathNode } from '../geometry/path'
import { mapNode, segmentBetween } from '../geometry/path'
import type { Vec } from '../geometry/point'
import { add, along, direction, distance, subtract } from '../geometry/point'
import { nearestIndex } from '../geometry/polyline'
import { ArcLength } from '../geometry/arc-length'
import type { Hanging } from '../model/model'
import type { Put } from './hanging'

/** A node this near to a place, as a share of the reach of an edit, is the one there. */
const AS_GOOD_AS = 0.05

/** Nodes beside an edited one lie, together, along no more of the outline than this. */
const MOST_OF = 0.9

/** A closed contour with a node where it is nearest to a point. */
export function nodeAdded(contour: Path, at: Vec): Path {
  const hit = arcOfPath({ ...contour, closed: true }).nearest(at)
  return withNodeAt(contour, hit.segment, hit.t)
}

/**
 * A closed contour after an edit that was made when its nodes lay elsewhere. The stretch that the edit was about, from the node
 * before the edited one to the one after it, is found again by its length, gets the nodes that it had, and is edited as it was.
 *
 * @param at where the edited node belongs now
 * @param to what became of it, as it was made; null where it was taken out
 */
export function editedNear(contour: Path, at: Vec, to: PathNode | null, was: Hanging['was'], put: Put): Path {
  const stretch = was && stretchLike(contour, at, was, put)
  if (!stretch) return editedAlone(nodeAdded(contour, at), at, to, put)
  const [before, node, after] = stretch.nodes
  const nodes = to ? [before, edited(node, was[1], to, put), after] : [before, after]
  return { ...contour, nodes: [...nodes, ...stretch.rest] }
}

/** The nodes of a contour as they were about an edit: the three, and all others, from after the last to before the first. */
function stretchLike(
  contour: Path,
  at: Vec,
  was: NonNullable<Hanging['was']>,
  { scale, reach }: Put,
): { nodes: [PathNode, PathNode, PathNode]; rest: PathNode[] } | null {
  const arc = arcOfPath({ ...contour, closed: true })
  const [back, on] = [lengthBetween(was[0], was[1]) * scale, lengthBetween(was[1], was[2]) * scale]
  if (!(back > 0 && on > 0 && back + on < MOST_OF * arc.total)) return null
  const here = arc.nearest(at).length
  const places = [here - back, here, here + on].map((s) => arc.point((s + arc.total) % arc.total))
  let path = contour
  const near = (p: Vec): number =>
    nearestIndex(
      path.nodes.map((n) => n.at),
      p,
    )
  for (const p of places) if (distance(path.nodes[near(p)]!.at, p) > AS_GOOD_AS * reach) path = nodeAdded(path, p)
  const [i, j, k] = places.map(near) as [number, number, number]
  const count = path.nodes.length
  const [toNode, toAfter] = [(j - i + count) % count, (k - i + count) % count]
  if (!(0 < toNode && toNode < toAfter)) return null
  const turned = [...path.nodes.slice(i), ...path.nodes.slice(0, i)]
  const [before, node, after] = [turned[0]!, turned[toNode]!, turned[toAfter]!]
  return {
    nodes: [
      { ...before, out: asLong(before, 'out', was[0], scale) },
      { ...node, in: asLong(node, 'in', was[1], scale), out: asLong(node, 'out', was[1], scale) },
      { ...after, in: asLong(after, 'in', was[2], scale) },
    ],
    rest: turned.slice(toAfter + 1),
  }
}

const lengthBetween = (a: PathNode, b: PathNode): number => new ArcLength([segmentBetween(a, b)]).total

/** A handle that goes where the node's own does, as long as that of another node. */
function asLong(node: PathNode, side: 'in' | 'out', like: PathNode, scale: number): Vec | null {
  const [own, other] = [node[side], like[side]]
  const way = own && direction(subtract(own, node.at))
  return way && other ? along(node.at, way, scale * distance(other, like.at)) : own
}

/** A node as an edit leaves it that made `to` of `was`: moved, and its handles with it, by what that was. */
function edited(node: PathNode, was: PathNode, to: PathNode, { toNow }: Put): PathNode {
  const moved = (p: Vec, from: Vec, into: Vec): Vec => add(p, subtract(toNow(into), toNow(from)))
  const handle = (side: 'in' | 'out'): Vec | null =>
    node[side] || to[side] ? moved(node[side] ?? node.at, was[side] ?? was.at, to[side] ?? to.at) : null
  return { at: moved(node.at, was.at, to.at), in: handle('in'), out: handle('out'), joint: to.joint }
}

/** The node next to a place as an edit made it, where nothing is known of those that lay beside it. */
function editedAlone(contour: Path, at: Vec, to: PathNode | null, { toNow }: Put): Path {
  const i = nearestIndex(
    contour.nodes.map((n) => n.at),
    at,
  )
  if (!to) return contour.nodes.length < 3 ? contour : { ...contour, nodes: contour.nodes.toSpliced(i, 1) }
  return { ...contour, nodes: contour.nodes.with(i, mapNode(to, toNow)) }
}
