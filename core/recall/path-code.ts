import type { Path, PathNode } from '../geometry/path'
import type { Vec } from '../geometry/point'

/** Numbers of a path before its nodes, and of a node: its place and handles, NaN for none, and its joint. */
const HEAD = 2
const NODE = 7

const JOINTS: readonly PathNode['joint'][] = ['corner', 'smooth']

/** A path as numbers: whether it is closed, how many nodes, and these. */
export function encodedPath({ closed, nodes }: Path): Float64Array {
  const out = new Float64Array(HEAD + NODE * nodes.length)
  out[0] = Number(closed)
  out[1] = nodes.length
  let at = HEAD
  for (const node of nodes) {
    for (const p of [node.at, node.in, node.out]) {
      out[at++] = p ? p.x : NaN
      out[at++] = p ? p.y : NaN
    }
    out[at++] = JOINTS.indexOf(node.joint)
  }
  return out
}

/** The path that begins at a place among numbers, and where it ends. */
export function decodedPath(code: Float64Array, at: number): { path: Path; end: number } {
  const n = code[at + 1]!
  const point = (i: number): Vec | null => (Number.isNaN(code[i]!) ? null : { x: code[i]!, y: code[i + 1]! })
  const nodes = Array.from({ length: n }, (_, k): PathNode => {
    const i = at + HEAD + NODE * k
    return { at: point(i)!, in: point(i + 2), out: point(i + 4), joint: JOINTS[code[i + 6]!]! }
  })
  return { path: { closed: code[at] === 1, nodes }, end: at + HEAD + NODE * n }
}
