import { emptyBox, include, isEmptyBox } from '../geometry/bounds'
import type { Loop } from './loop'

/** Coordinates stay below 2^GRID_BITS, so that products of their differences are exact in doubles. */
const GRID_BITS = 26

/** The grid step as a share of the tolerance: finer would only keep noise apart. */
const STEP_SHARE = 1 / 256

/** An integer grid over the plane: grid coordinate = px / step - origin. */
export interface SnapGrid {
  /** px, a power of two. */
  step: number
  originX: number
  originY: number
}

/**
 * The grid for loops at a tolerance (px): a 256th of it, or coarser where GRID_BITS would not hold the whole. Null when
 * there is nothing. `coarser` doubles the step so many times.
 */
export function gridFor(loops: Iterable<Loop>, tolerance: number, coarser = 0): SnapGrid | null {
  const box = emptyBox()
  for (const loop of loops) {
    for (const { curve } of loop) {
      include(box, curve.p0.x, curve.p0.y)
      include(box, curve.p1.x, curve.p1.y)
      include(box, curve.p2.x, curve.p2.y)
      include(box, curve.p3.x, curve.p3.y)
    }
  }
  if (isEmptyBox(box)) return null
  const far = Math.max(Math.abs(box.minX), Math.abs(box.maxX), Math.abs(box.minY), Math.abs(box.maxY))
  // Doubles hold 53 bits: far from the origin the grid cannot be finer than the coordinates themselves.
  const extent = Math.max(box.maxX - box.minX, box.maxY - box.minY, far * 2 ** (GRID_BITS - 50), 2 ** -1000)
  const step = 2 ** (Math.max(Math.ceil(Math.log2(extent)) - GRID_BITS + 1, Math.floor(Math.log2(tolerance * STEP_SHARE))) + coarser)
  return { step, originX: Math.floor(box.minX / step), originY: Math.floor(box.minY / step) }
}

/** A grid point back in px. */
export const toPx = (grid: SnapGrid, x: number, y: number): { x: number; y: number } => ({
  x: (x + grid.originX) * grid.step,
  y: (y + grid.originY) * grid.step,
})
