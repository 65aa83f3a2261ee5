import type { Cubic } from './cubic'
import { cubic, isStraight, straight, tangentAt } from './cubic'
import type { Vec } from './point'
import { cross, distance, dot } from './point'

/** Handles are absolute points; null is a retracted handle. */
export interface PathNode {
  at: Vec
  in: Vec | null
  out: Vec | null
  joint: 'corner' | 'smooth'
}

export interface Path {
  nodes: PathNode[]
  closed: boolean
}

/** The segment between two nodes; two retracted handles make a straight line of even speed. */
export function segmentBetween(a: PathNode, b: PathNode): Cubic {
  if (!a.out && !b.in) return straight(a.at, b.at)
  return cubic(a.at, a.out ?? a.at, b.in ?? b.at, b.at)
}

/** The cubics of a path in order; a closed path of n nodes has n, an open one n - 1. */
export function cubicsOfPath(path: Path): Cubic[] {
  const { nodes, closed } = path
  const out: Cubic[] = []
  const n = nodes.length
  const last = closed && n > 1 ? n : n - 1
  for (let i = 0; i < last; i++) out.push(segmentBetween(nodes[i]!, nodes[(i + 1) % n]!))
  return out
}

/** Turn between unit tangents `a` and `b`, radians, signed from x towards y. */
export const turn = (a: Vec, b: Vec): number => Math.atan2(cross(a, b), dot(a, b))

/** Tangents that differ by less than this (radians) meet smoothly. */
export const SMOOTH_ANGLE = 0.01

/**
 * A path through `cubics`, which follow one another. Straight segments lose their handles; a joint is smooth where the
 * tangents agree within SMOOTH_ANGLE and both sides are curved.
 */
export function pathOfCubics(cubics: readonly Cubic[], closed: boolean, straightness = 1e-9): Path {
  const n = cubics.length
  if (n === 0) return { nodes: [], closed }
  const flat = cubics.map((c) => isStraight(c, straightness))
  const nodes: PathNode[] = []
  const count = closed ? n : n + 1
  for (let i = 0; i < count; i++) {
    const before = i > 0 ? i - 1 : closed ? n - 1 : -1
    const after = i < n ? i : -1
    const at = after >= 0 ? cubics[after]!.p0 : cubics[before]!.p3
    nodes.push({
      at,
      in: before >= 0 && !flat[before] ? cubics[before]!.p2 : null,
      out: after >= 0 && !flat[after] ? cubics[after]!.p1 : null,
      joint: before >= 0 && after >= 0 && meetsSmoothly(cubics[before]!, cubics[after]!) ? 'smooth' : 'corner',
    })
  }
  return { nodes, closed }
}

function meetsSmoothly(a: Cubic, b: Cubic): boolean {
  const ta = tangentAt(a, 1)
  const tb = tangentAt(b, 0)
  return !!ta && !!tb && Math.abs(turn(ta, tb)) < SMOOTH_ANGLE
}

/** The same path travelled the other way. */
export function reversePath(path: Path): Path {
  return {
    closed: path.closed,
    nodes: path.nodes.map((n) => ({ at: n.at, in: n.out, out: n.in, joint: n.joint })).reverse(),
  }
}

/** A node and its handles put through `map`. */
export const mapNode = (n: PathNode, map: (p: Vec) => Vec): PathNode => ({
  at: map(n.at),
  in: n.in && map(n.in),
  out: n.out && map(n.out),
  joint: n.joint,
})

/** Every point of `path` put through `map` (nodes and handles). */
export const mapPath = (path: Path, map: (p: Vec) => Vec): Path => ({
  closed: path.closed,
  nodes: path.nodes.map((n) => mapNode(n, map)),
})

/** Length of the control polygon: an upper bound of the path's length, px. */
export function controlLength(cubics: readonly Cubic[]): number {
  let sum = 0
  for (const c of cubics) sum += distance(c.p0, c.p1) + distance(c.p1, c.p2) + distance(c.p2, c.p3)
  return sum
}

/** Number with at most `digits` decimals, no trailing zeros and no minus zero. */
export function short(value: number, digits: number): string {
  const text = value.toFixed(digits)
  const trimmed = text.includes('.') ? text.replace(/\.?0+$/, '') : text
  return trimmed === '-0' ? '0' : trimmed
}

/** SVG path data of one path (M, L, C, Z; absolute). `digits` decimals; enough for doubles when omitted. */
export function pathData(path: Path, digits?: number): string {
  const n = (v: number): string => (digits === undefined ? String(v) : short(v, digits))
  const at = (p: Vec): string => `${n(p.x)} ${n(p.y)}`
  const { nodes, closed } = path
  if (!nodes.length) return ''
  const parts = [`M${at(nodes[0]!.at)}`]
  const last = closed && nodes.length > 1 ? nodes.length : nodes.length - 1
  for (let i = 0; i < last; i++) {
    const a = nodes[i]!
    const b = nodes[(i + 1) % nodes.length]!
    if (!a.out && !b.in) {
      if (i < nodes.length - 1) parts.push(`L${at(b.at)}`)
    } else {
      parts.push(`C${at(a.out ?? a.at)} ${at(b.in ?? b.at)} ${at(b.at)}`)
    }
  }
  if (closed) parts.push('Z')
  return parts.join('')
}
