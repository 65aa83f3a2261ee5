import type { Loop } from '../arrangement/loop'
import { areaOfCubics } from '../geometry/area'
import { boxOfCubics, boxOfPoints } from '../geometry/bounds'
import type { Cubic } from '../geometry/cubic'
import type { Lattice } from './lattice'
import { cellBox, keyOf, rangeOf } from './lattice'
import { loopNearCell, nearBox } from './near-cell'

/** A closed contour, its region on the left. */
export type Contour = readonly Cubic[]

/** A contour that reaches over more cells than this is not cut up. */
const MOST_CELLS = 40_000

/** What a contour is to a cell: the loop as the cell sees it, or how often one that does not come near goes round it all. */
export interface View {
  contour: Contour
  loop: Loop | null
  around: number
  /** The contour is a hole: it can only take away. */
  isHole: boolean
}

/** What a contour is to each cell of a lattice, by the cell's key; null for one that reaches over more of them than make sense. */
export function viewsOf(contour: Contour, lattice: Lattice): Map<number, View> | null {
  const range = rangeOf(lattice, boxOfCubics(contour))
  if (!range || (range.right - range.left) * (range.below - range.above) > MOST_CELLS) return null
  const views = new Map<number, View>()
  const isHole = areaOfCubics(contour) < 0
  const near = cellsNear(contour, lattice)
  if (!near) return null
  for (let j = range.above; j <= range.below; j++) {
    // From cell to cell with no curve between them, a contour goes round as often.
    let last: number | null = null
    for (let i = range.left; i <= range.right; i++) {
      const key = keyOf(i, j)
      const isFar = !near.has(key)
      let around: number
      let loop: Loop = []
      if (isFar && last !== null) around = last
      else ({ around, loop } = loopNearCell(contour, nearBox(cellBox(lattice, i, j))))
      last = isFar ? around : null
      if (around || loop.length) views.set(key, { contour, loop: loop.length ? loop : null, around, isHole })
    }
  }
  return views
}

/** The cells to which any curve of a contour may come near; null where these cannot be told apart. */
function cellsNear(contour: Contour, lattice: Lattice): Set<number> | null {
  const near = new Set<number>()
  for (const { p0, p1, p2, p3 } of contour) {
    const range = rangeOf(lattice, boxOfPoints([p0, p1, p2, p3]))
    if (!range) return null
    for (let i = range.left; i <= range.right; i++)
      for (let j = range.above; j <= range.below; j++) near.add(keyOf(i, j))
  }
  return near
}
