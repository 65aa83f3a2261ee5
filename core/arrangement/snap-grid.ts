import { InputError } from '../errors'
import { emptyBox, include, isEmptyBox } from '../geometry/bounds'
import type { Loop } from './loop'

/** Coordinates stay below 2^GRID_BITS, so that products of their differences are exact in doubles. */
const GRID_BITS = 26

/** The grid step as a share of the tolerance: finer would only keep noise apart. */
const STEP_SHARE = 1 / 256

/** A grid coarser than this share of the tolerance could move an outline by more than the tolerance: it is refused. */
const COARSEST_SHARE = 1 / 8

/** So often the grid may be doubled for input that lies closer together than it can tell apart: to a 32nd of the tolerance. */
const MOST_DOUBLINGS = 3

/** An integer grid over the plane: grid coordinate = px / step - origin. */
export interface SnapGrid {
  /** px, a power of two. */
  step: number
  originX: number
  originY: number
}

/**
 * The grid for loops at a tolerance (px): a 256th of it, or coarser where GRID_BITS would not hold the whole. Null when
 * there is nothing.
 *
 * @throws InputError where the loops reach so far that no grid fine enough for the tolerance spans them
 */
export function gridFor(loops: Iterable<Loop>, tolerance: number): SnapGrid | null {
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
  const step = 2 ** Math.max(Math.ceil(Math.log2(extent)) - GRID_BITS + 1, finest(tolerance))
  if (!(step <= tolerance * COARSEST_SHARE)) {
    const reach = Math.round(extent).toLocaleString('en')
    throw new InputError(
      'size',
      `This reaches over ${reach} px, too far for outlines within ${tolerance} px. Bring it closer together, or allow a larger tolerance.`,
    )
  }
  return gridOf(step, box)
}

/** The grid, eight times as coarse, or as far as the tolerance allows; null where it is as coarse as that already. */
export function coarserGrid(grid: SnapGrid, tolerance: number): SnapGrid | null {
  const step = 2 ** (finest(tolerance) + MOST_DOUBLINGS)
  if (grid.step >= step) return null
  return gridOf(step, { minX: grid.originX * grid.step, minY: grid.originY * grid.step })
}

/** The grid with its step doubled so many times, or as often as the tolerance allows. */
export function doubledGrid(grid: SnapGrid, times: number, tolerance: number): SnapGrid {
  let { step } = grid
  for (let i = 0; i < times && 2 * step <= tolerance * COARSEST_SHARE; i++) step *= 2
  return gridOf(step, { minX: grid.originX * grid.step, minY: grid.originY * grid.step })
}

/** The grid step at a tolerance, px, where the input does not reach too far. */
export const finestStep = (tolerance: number): number => 2 ** finest(tolerance)

const finest = (tolerance: number): number => Math.floor(Math.log2(tolerance * STEP_SHARE))

const gridOf = (step: number, { minX, minY }: { minX: number; minY: number }): SnapGrid => ({
  step,
  originX: Math.floor(minX / step),
  originY: Math.floor(minY / step),
})

/** A grid point back in px. */
export const toPx = (grid: SnapGrid, x: number, y: number): { x: number; y: number } => ({
  x: (x + grid.originX) * grid.step,
  y: (y + grid.originY) * grid.step,
})
