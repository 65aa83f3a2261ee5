import type { Path, PathNode } from './path'
import type { Vec } from './point'
import { along, direction, distance, subtract } from './point'

/** How a node's handles go together: turning as one, each by itself, or drawn in. */
export type HandleKind = 'linked' | 'free' | 'retracted'

/** How a node's handles go together now. */
export function handleKindOf(node: PathNode): HandleKind {
  if (!node.in && !node.out) return 'retracted'
  return node.joint === 'smooth' ? 'linked' : 'free'
}

/** Handles that a node gets where it has none reach so far towards its neighbours. */
const REACH = 1 / 3

/** A path with the handles of one node made so: linked ones lie on one line and keep their lengths. */
export function withHandleKind(path: Path, index: number, kind: HandleKind): Path {
  const nodes = path.nodes.slice()
  const node = nodes[index]
  if (!node) return path
  if (kind === 'retracted') nodes[index] = { at: node.at, in: null, out: null, joint: 'corner' }
  else if (kind === 'free') nodes[index] = { ...grown(path, index), joint: 'corner' }
  else nodes[index] = linked(grown(path, index))
  return { ...path, nodes }
}

/** The node with handles towards its neighbours where it has none at all. */
function grown(path: Path, index: number): PathNode {
  const node = path.nodes[index]!
  if (node.in || node.out) return node
  const n = path.nodes.length
  const before = index > 0 ? path.nodes[index - 1] : path.closed ? path.nodes[n - 1] : undefined
  const after = index + 1 < n ? path.nodes[index + 1] : path.closed ? path.nodes[0] : undefined
  const way = before && after && direction(subtract(after.at, before.at))
  const arm = (to: PathNode | undefined, sign: 1 | -1): Vec | null => {
    if (!to) return null
    const length = distance(node.at, to.at) * REACH
    const towards = way ? along(node.at, way, sign * length) : along(node.at, subtract(to.at, node.at), REACH)
    return length > 0 ? towards : null
  }
  return { ...node, in: arm(before, -1), out: arm(after, 1) }
}

/** The node with its handles on one line, in the direction that is the mean of theirs. */
function linked(node: PathNode): PathNode {
  if (!node.in || !node.out) return node
  const a = direction(subtract(node.at, node.in))
  const b = direction(subtract(node.out, node.at))
  const way = a && b && (direction({ x: a.x + b.x, y: a.y + b.y }) ?? b)
  if (!way) return node
  return {
    ...node,
    in: along(node.at, way, -distance(node.at, node.in)),
    out: along(node.at, way, distance(node.at, node.out)),
    joint: 'smooth',
  }
}
