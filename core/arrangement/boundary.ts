import type { PlanarMap } from './planar-map'

/** A stretch of one curve, from t0 to t1 in the direction of travel, and the vertex at which it ends. */
export interface Run {
  curve: number
  t0: number
  t1: number
  end: number
}

/** A closed loop of runs, and the face on its left where it begins. */
export interface BoundaryLoop {
  face: number
  runs: Run[]
}

/**
 * Closed loops of the half-chains for which `isBorder` holds, the faces that they go around on their left (positive area
 * for outer loops, negative for holes). At a vertex where a region touches itself the loops keep to their own face.
 *
 * @param single a run for every edge, instead of one for all that go on along one curve
 */
export function traceBoundary(m: PlanarMap, isBorder: (half: number) => boolean, single = false): BoundaryLoop[] {
  const halves = m.origin.length
  const onBoundary = new Uint8Array(halves)
  for (let h = 0; h < halves; h++) if (isBorder(h)) onBoundary[h] = 1
  const loops: BoundaryLoop[] = []
  for (let start = 0; start < halves; start++) {
    if (onBoundary[start] !== 1) continue
    const runs: Run[] = []
    let h = start
    do {
      onBoundary[h] = 2
      appendChain(runs, m, h, single)
      h = nextOnBoundary(m, onBoundary, h, start)
    } while (h !== start && h >= 0)
    if (!single) joinSeam(runs)
    loops.push({ face: m.face[start]!, runs })
  }
  return loops
}

/** The half-chains between the faces where `inside` holds and the others. */
export const borderOf =
  (m: PlanarMap, inside: Uint8Array) =>
  (h: number): boolean =>
    inside[m.face[h]!] === 1 && inside[m.face[h ^ 1]!] !== 1

/** The boundary half-chain that follows `h` on the same face: the first one clockwise of the way back. */
function nextOnBoundary(m: PlanarMap, onBoundary: Uint8Array, h: number, start: number): number {
  const back = h ^ 1
  const v = m.origin[back]!
  const from = m.first[v]!
  const n = m.first[v + 1]! - from
  const at = m.place[back]! - from
  for (let k = 1; k <= n; k++) {
    const g = m.order[from + ((at - k + n) % n)]!
    if (onBoundary[g] === 1 || g === start) return g
  }
  return -1
}

function appendChain(runs: Run[], m: PlanarMap, h: number, single: boolean): void {
  const { chains } = m
  const c = h >> 1
  const from = chains.start[c]!
  const to = chains.start[c + 1]!
  if (h & 1) for (let i = to - 1; i >= from; i--) appendEdge(runs, m, chains.edges[i]!, true, single)
  else for (let i = from; i < to; i++) appendEdge(runs, m, chains.edges[i]!, false, single)
}

function appendEdge(runs: Run[], m: PlanarMap, e: number, back: boolean, single: boolean): void {
  const { edges } = m.arrangement
  const t0 = back ? edges.tb[e]! : edges.ta[e]!
  const t1 = back ? edges.ta[e]! : edges.tb[e]!
  const end = back ? m.chains.from[e]! : m.chains.to[e]!
  const curve = edges.curve[e]!
  const last = runs[runs.length - 1]
  if (last && !single && goesOn(last.curve, last.t0, last.t1, curve, t0, t1)) {
    last.t1 = t1
    last.end = end
  } else {
    runs.push({ curve, t0, t1, end })
  }
}

const goesOn = (a: number, a0: number, a1: number, b: number, b0: number, b1: number): boolean =>
  a === b && Math.abs(a1 - b0) < 1e-9 && (a1 - a0) * (b1 - b0) > 0

/** A loop that started in the middle of a run gets that run whole. */
function joinSeam(runs: Run[]): void {
  if (runs.length < 2) return
  const first = runs[0]!
  const last = runs[runs.length - 1]!
  if (!goesOn(last.curve, last.t0, last.t1, first.curve, first.t0, first.t1)) return
  first.t0 = last.t0
  runs.pop()
}
