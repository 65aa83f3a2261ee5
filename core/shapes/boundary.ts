import type { EdgeSoup } from './edge-soup'
import type { PlanarMap } from './planar-map'

/** A stretch of one curve on the boundary, from t0 to t1 in the direction of travel; `end` is its last grid vertex. */
export interface Run {
  curve: number
  t0: number
  t1: number
  endX: number
  endY: number
}

/**
 * Closed loops of runs around the region where `inside(winding)` holds, the region on the left (positive area for outer
 * loops, negative for holes). At a vertex where the region touches itself the loops keep to their own face.
 */
export function traceBoundary(
  soup: EdgeSoup,
  m: PlanarMap,
  inside: (winding: number) => boolean,
): Run[][] {
  const halves = m.origin.length
  const onBoundary = new Uint8Array(halves)
  for (let h = 0; h < halves; h++) {
    const left = m.winding[h]!
    if (inside(left) && !inside(left - m.delta[h]!)) onBoundary[h] = 1
  }
  const loops: Run[][] = []
  for (let start = 0; start < halves; start++) {
    if (onBoundary[start] !== 1) continue
    const runs: Run[] = []
    let h = start
    do {
      onBoundary[h] = 2
      appendEdge(runs, soup, m, h)
      h = nextOnFace(m, onBoundary, h, start)
    } while (h !== start && h >= 0)
    joinSeam(runs)
    loops.push(runs)
  }
  return loops
}

/** The boundary half-edge that follows `h` on the same face: the first one clockwise of the way back. */
function nextOnFace(m: PlanarMap, onBoundary: Uint8Array, h: number, start: number): number {
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

function appendEdge(runs: Run[], soup: EdgeSoup, m: PlanarMap, h: number): void {
  const edge = h >> 1
  const t0 = h & 1 ? soup.tb[edge]! : soup.ta[edge]!
  const t1 = h & 1 ? soup.ta[edge]! : soup.tb[edge]!
  const end = m.origin[h ^ 1]!
  const run = { curve: soup.curve[edge]!, t0, t1, endX: m.vertexX[end]!, endY: m.vertexY[end]! }
  const last = runs[runs.length - 1]
  if (last && continues(last, run)) {
    last.t1 = run.t1
    last.endX = run.endX
    last.endY = run.endY
  } else {
    runs.push(run)
  }
}

const continues = (a: Run, b: Run): boolean =>
  a.curve === b.curve && Math.abs(a.t1 - b.t0) < 1e-9 && (a.t1 - a.t0) * (b.t1 - b.t0) > 0

/** A loop that started in the middle of a run gets that run whole. */
function joinSeam(runs: Run[]): void {
  if (runs.length < 2) return
  const first = runs[0]!
  const last = runs[runs.length - 1]!
  if (!continues(last, first)) return
  first.t0 = last.t0
  runs.pop()
}
