import type { Box } from '../geometry/bounds'
import { emptyBox, include } from '../geometry/bounds'
import type { PlanarMap } from './planar-map'
import { toPx } from './snap-grid'

/** Connected areas of faces of one kind: what meets at a corner only is not connected. */
export interface Areas {
  /** The area of each face; -1 for faces of kind 0. */
  of: Int32Array
  /** The kind of each area. */
  kind: number[]
  /** Bounds of each area, px. */
  box: Box[]
  /** The areas that share a border with each. */
  beside: Set<number>[]
}

/** Joins neighbouring faces of the same kind; faces of kind 0 are left out. */
export function areasOf(m: PlanarMap, kinds: ArrayLike<number>): Areas {
  const root = Int32Array.from({ length: m.faces }, (_, f) => f)
  const find = (f: number): number => {
    while (root[f] !== f) f = root[f] = root[root[f]!]!
    return f
  }
  const halves = m.face.length
  for (let h = 0; h < halves; h += 2) {
    const [a, b] = [m.face[h]!, m.face[h + 1]!]
    if (kinds[a] !== 0 && kinds[a] === kinds[b]) root[find(a)] = find(b)
  }
  const areas: Areas = { of: new Int32Array(m.faces).fill(-1), kind: [], box: [], beside: [] }
  const named = new Int32Array(m.faces).fill(-1)
  for (let f = 0; f < m.faces; f++) {
    if (kinds[f] === 0) continue
    const r = find(f)
    if (named[r]! < 0) {
      named[r] = areas.kind.length
      areas.kind.push(kinds[f]!)
      areas.box.push(emptyBox())
      areas.beside.push(new Set())
    }
    areas.of[f] = named[r]!
  }
  for (let h = 0; h < halves; h++) {
    const mine = areas.of[m.face[h]!]!
    if (mine < 0) continue
    growBy(areas.box[mine]!, m, h >> 1)
    const theirs = areas.of[m.face[h ^ 1]!]!
    if (theirs >= 0 && theirs !== mine) areas.beside[mine]!.add(theirs)
  }
  return areas
}

function growBy(box: Box, { chains, arrangement }: PlanarMap, chain: number): void {
  const { x, y } = chains.vertices
  for (let i = chains.start[chain]!; i < chains.start[chain + 1]!; i++) {
    const v = chains.from[chains.edges[i]!]!
    const p = toPx(arrangement.grid, x[v]!, y[v]!)
    include(box, p.x, p.y)
  }
}
