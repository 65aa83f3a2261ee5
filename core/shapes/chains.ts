import type { Arrangement } from './arrange'
import { VertexIds } from './vertex-ids'

/**
 * The edges of an arrangement strung into chains: between its ends a chain passes only vertices at which nothing else
 * meets, and all its edges belong to the same groups in the same direction.
 */
export interface Chains {
  vertices: VertexIds
  /** Vertex at the start and at the end of each edge of the arrangement. */
  from: Int32Array
  to: Int32Array
  count: number
  /** Edges of chain c, in its direction: edges[start[c]] .. edges[start[c + 1] - 1]. */
  start: Int32Array
  edges: Int32Array
  /** Owner list of each chain. */
  owners: Int32Array
}

/** At a vertex: no edge yet, or a mark that it ends chains. */
const NONE = -1
const BRANCH = -2

export function chainsOf({ edges: s }: Arrangement): Chains {
  const all = new Int32Array(s.count)
  let alive = 0
  for (let e = 0; e < s.count; e++) if (s.alive[e] && s.owners[e] !== 0) all[alive++] = e
  const kept = all.subarray(0, alive)
  const vertices = new VertexIds(2 * kept.length)
  const from = new Int32Array(s.count)
  const to = new Int32Array(s.count)
  let last = -1
  for (const e of kept) {
    // Most edges begin where the one before ended.
    const goesOn = last >= 0 && s.ax[e] === s.bx[last] && s.ay[e] === s.by[last]
    from[e] = goesOn ? to[last]! : vertices.of(s.ax[e]!, s.ay[e]!)
    to[e] = vertices.of(s.bx[e]!, s.by[e]!)
    last = e
  }
  // The one edge that leads into and the one that leads out of each vertex, where there is but one of each.
  const into = new Int32Array(vertices.count).fill(NONE)
  const out = new Int32Array(vertices.count).fill(NONE)
  for (const e of kept) {
    const a = from[e]!
    const b = to[e]!
    out[a] = out[a] === NONE ? e : BRANCH
    into[b] = into[b] === NONE ? e : BRANCH
  }
  const branches = (v: number): boolean =>
    into[v]! < 0 || out[v]! < 0 || s.owners[into[v]!] !== s.owners[out[v]!]
  const start = new Int32Array(kept.length + 1)
  const order = new Int32Array(kept.length)
  const owners = new Int32Array(kept.length)
  const strung = new Uint8Array(s.count)
  let count = 0
  let used = 0
  const string = (first: number): void => {
    start[count] = used
    owners[count] = s.owners[first]!
    let e = first
    for (;;) {
      order[used++] = e
      strung[e] = 1
      const v = to[e]!
      if (branches(v) || strung[out[v]!]) break
      e = out[v]!
    }
    count++
  }
  for (const e of kept) if (branches(from[e]!)) string(e)
  // What is left are closed chains that meet nothing.
  for (const e of kept) if (!strung[e]) string(e)
  start[count] = used
  return { vertices, from, to, count, start, edges: order, owners }
}
