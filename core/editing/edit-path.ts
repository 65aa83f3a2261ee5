import type { Path, PathNode } from '../geometry/path'
import type { CubicFit } from '../fit/fit-cubic'
import { fitCubic } from '../fit/fit-cubic'
import { MeasuredCurve } from '../fit/measured-curve'
import { CubicChain } from '../fit/source'
import type { Cubic } from '../geometry/cubic'
import { cubic, nearest, pointAt, reach } from '../geometry/cubic'
import { segmentBetween } from '../geometry/path'
import type { Vec } from '../geometry/point'
import { add, along, distance, lerp, scale } from '../geometry/point'

/**
 * A path without one of its nodes. The two segments that met there become the one that is nearest to both and has their end
 * tangents; straight ones become straight.
 */
export function withoutNode(path: Path, index: number): Path {
  const { nodes, closed } = path
  const n = nodes.length
  const left = nodes.filter((_, i) => i !== index)
  const isEnd = !closed && (index === 0 || index === n - 1)
  if (isEnd || n < 3)
    return { ...path, nodes: left.map((node, i) => (closed ? node : openedEnd(node, i, left.length))) }
  const [a, gone, b] = [nodes[(index + n - 1) % n]!, nodes[index]!, nodes[(index + 1) % n]!]
  const straight = !a.out && !gone.in && !gone.out && !b.in
  const arms = straight ? { out: null, in: null } : joined(a, gone, b)
  return {
    ...path,
    nodes: left.map((node) => ({ ...node, ...(node === a && { out: arms.out }), ...(node === b && { in: arms.in }) })),
  }
}

/** A node that has become the end of an open path has no handle beyond it. */
function openedEnd(node: PathNode, i: number, n: number): PathNode {
  if (i > 0 && i < n - 1) return node
  return { ...node, in: i === 0 ? null : node.in, out: i === n - 1 ? null : node.out, joint: 'corner' }
}

/**
 * Handles of the one segment from a to b that stands for the two by way of `gone`: of the cubic with their area and moment,
 * and the one that splitting at `gone` would have made them of, the nearer.
 */
function joined(a: PathNode, gone: PathNode, b: PathNode): { out: Vec; in: Vec } {
  const chain = [segmentBetween(a, gone), segmentBetween(gone, b)] as const
  const size = reach(chain[0]) + reach(chain[1])
  const curve = new MeasuredCurve().load(new CubicChain(chain), size * 1e-4)
  const fit: CubicFit = { points: new Float64Array(8), deviation: 0, gap: 0, chord: 0 }
  fitCubic(curve, 0, curve.last, size, fit)
  const p = fit.points
  const before = distance(chain[0].p2, gone.at)
  const after = distance(gone.at, chain[1].p1)
  const t = before + after > 0 ? before / (before + after) : 0.5
  const candidates = [unsplit(chain, t > 0 && t < 1 ? t : 0.5)]
  if (Number.isFinite(fit.deviation))
    candidates.unshift(cubic(a.at, { x: p[2]!, y: p[3]! }, { x: p[4]!, y: p[5]! }, b.at))
  const off = candidates.map((c) => farthest(chain, c))
  const best = candidates[off.indexOf(Math.min(...off))]!
  return { out: best.p1, in: best.p2 }
}

/** The cubic that falls into two with the same outer handles when it is split at t. */
const unsplit = ([before, after]: readonly [Cubic, Cubic], t: number): Cubic =>
  cubic(before.p0, lerp(before.p0, before.p1, 1 / t), lerp(after.p3, after.p2, 1 / (1 - t)), after.p3)

/** How far a chain strays from a cubic, px, by probes. */
const farthest = (chain: readonly Cubic[], c: Cubic): number =>
  Math.max(...chain.flatMap((part) => [0.2, 0.4, 0.6, 0.8, 1].map((u) => nearest(c, pointAt(part, u)).distance)))

/**
 * A path whose point at `t` of a segment is moved by `d`, by the least change of the segment's two handles. Smooth nodes
 * at its ends stay smooth: their other handles turn along.
 */
export function pulledSegment(path: Path, segment: number, t: number, d: Vec): Path {
  const nodes = path.nodes.slice()
  const next = (segment + 1) % nodes.length
  const [a, b] = [nodes[segment]!, nodes[next]!]
  const c = segmentBetween(a, b)
  const s = 1 - t
  const [b1, b2] = [3 * s * s * t, 3 * s * t * t]
  const k = b1 * b1 + b2 * b2
  if (!(k > 0)) return path
  nodes[segment] = withArm(a, 'out', add(c.p1, scale(d, b1 / k)))
  // A loop of one segment has both its handles at one node.
  nodes[next] = withArm(nodes[next]!, 'in', add(c.p2, scale(d, b2 / k)))
  return { ...path, nodes }
}

/** A node with a handle moved; the other one of a smooth node turns along and keeps its length. */
export function withArm(n: PathNode, side: 'in' | 'out', to: Vec): PathNode {
  const far = side === 'in' ? 'out' : 'in'
  const other = n[far]
  const next: PathNode = { ...n, [side]: to }
  if (n.joint !== 'smooth' || !other) return next
  const arm = Math.hypot(other.x - n.at.x, other.y - n.at.y)
  const length = Math.hypot(to.x - n.at.x, to.y - n.at.y)
  return length > 0 ? { ...next, [far]: along(n.at, { x: to.x - n.at.x, y: to.y - n.at.y }, -arm / length) } : next
}

/** A node with a handle moved; alone, it no longer turns the other one along. */
export const withHandle = (n: PathNode, side: 'in' | 'out', to: Vec, alone: boolean): PathNode =>
  alone && n.joint === 'smooth' && n.in && n.out ? { ...n, [side]: to, joint: 'corner' } : withArm(n, side, to)

/** A path with another node in one place. */
export const withNode = (path: Path, index: number, node: PathNode): Path => ({
  ...path,
  nodes: path.nodes.map((n, i) => (i === index ? node : n)),
})

/** The segments that end at a node. */
export function segmentsBeside({ nodes, closed }: Path, index: number): number[] {
  const n = nodes.length
  const before = index > 0 ? [index - 1] : closed && n > 1 ? [n - 1] : []
  return [...before, ...(index < n - 1 || closed ? [index] : [])]
}
