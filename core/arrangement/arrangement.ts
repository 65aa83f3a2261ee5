import type { CurveTable } from './curve-table'
import type { EdgeStore } from './edge-store'
import type { OwnerLists } from './owner-lists'
import type { SnapGrid } from './snap-grid'

/** Edges that meet only at their ends, no two the same, with the curves that they stand for. */
export interface Arrangement {
  grid: SnapGrid
  curves: CurveTable
  edges: EdgeStore
  owners: OwnerLists
  /** Whether any curve met another, other than at the ends where they were joined. */
  met: boolean
  /** Every chord lies within a grid unit of its curve: no curves cross that no chords tell of. */
  fine: boolean
}
