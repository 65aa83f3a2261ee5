import type { Arrangement } from './arrangement'
import type { EdgeStore } from './edge-store'
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

/** The chains of an arrangement: runs of live edges between vertices at which anything else begins, ends or crosses. */
export function chainsOf({ edges: s }: Arrangement): Chains {
  const kept = keptOf(s)
  const n = kept.length
  const vertices = new VertexIds(2 * n)
  const from = new Int32Array(s.count)
  const to = new Int32Array(s.count)
  for (let i = 0, last = -1; i < n; i++) {
    const e = kept[i]!
    // Most edges begin where the one before ended.
    const goesOn = last >= 0 && s.ax[e] === s.bx[last] && s.ay[e] === s.by[last]
    from[e] = goesOn ? to[last]! : vertices.of(s.ax[e]!, s.ay[e]!)
    to[e] = vertices.of(s.bx[e]!, s.by[e]!)
    last = e
  }
  const after = goingOn(s, kept, vertices.count, from, to)
  const start = new Int32Array(n + 1)
  const order = new Int32Array(n)
  const owners = new Int32Array(n)
  const led = new Uint8Array(s.count)
  for (let i = 0; i < n; i++) if (after[kept[i]!]! >= 0) led[after[kept[i]!]!] = 1
  const strung = new Uint8Array(s.count)
  let count = 0
  let used = 0
  const string = (first: number): void => {
    start[count] = used
    owners[count++] = s.owners[first]!
    for (let e = first; e >= 0 && !strung[e]; e = after[e]!) {
      order[used++] = e
      strung[e] = 1
    }
  }
  for (let i = 0; i < n; i++) if (!led[kept[i]!]) string(kept[i]!)
  // What is left are closed chains that meet nothing.
  for (let i = 0; i < n; i++) if (!strung[kept[i]!]) string(kept[i]!)
  start[count] = used
  return { vertices, from, to, count, start, edges: order, owners }
}

/** Edges that are boundaries of something. */
function keptOf(s: EdgeStore): Int32Array {
  const all = new Int32Array(s.count)
  let n = 0
  for (let e = 0; e < s.count; e++) if (s.alive[e] && s.owners[e] !== 0) all[n++] = e
  return all.subarray(0, n)
}

/** The edge that each edge goes on as; NONE where its chain ends. */
function goingOn(s: EdgeStore, kept: Int32Array, vertices: number, from: Int32Array, to: Int32Array): Int32Array {
  // The one edge that leads into and the one that leads out of each vertex, where there is but one of each.
  const into = new Int32Array(vertices).fill(NONE)
  const out = new Int32Array(vertices).fill(NONE)
  for (let i = 0; i < kept.length; i++) {
    const e = kept[i]!
    out[from[e]!] = out[from[e]!] === NONE ? e : BRANCH
    into[to[e]!] = into[to[e]!] === NONE ? e : BRANCH
  }
  const after = new Int32Array(s.count).fill(NONE)
  for (let v = 0; v < vertices; v++) {
    const a = into[v]!
    const b = out[v]!
    if (a >= 0 && b >= 0 && s.owners[a] === s.owners[b]) after[a] = b
  }
  return after
}
