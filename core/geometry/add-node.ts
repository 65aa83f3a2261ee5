import { split } from './cubic'
import type { Path } from './path'
import { segmentBetween } from './path'
import { lerp } from './point'

/** Nearer to an end of a segment than this (its parameter) no node is added: there is one. */
const AT_END = 1e-6

/** A path with one more node, at `t` of a segment; its shape stays as it is. */
export function withNodeAt(path: Path, segment: number, t: number): Path {
  const { nodes } = path
  const next = (segment + 1) % nodes.length
  const [a, b] = [nodes[segment]!, nodes[next]!]
  if (!(t > AT_END && t < 1 - AT_END)) return path
  const out = nodes.slice()
  if (!a.out && !b.in) {
    out.splice(segment + 1, 0, { at: lerp(a.at, b.at, t), in: null, out: null, joint: 'corner' })
    return { ...path, nodes: out }
  }
  const [before, after] = split(segmentBetween(a, b), t)
  out[segment] = { ...a, out: before.p1 }
  out[next] = { ...b, in: after.p2 }
  out.splice(segment + 1, 0, { at: before.p3, in: before.p2, out: after.p1, joint: 'smooth' })
  return { ...path, nodes: out }
}
