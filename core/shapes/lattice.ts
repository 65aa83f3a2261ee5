import type { Box } from '../geometry/bounds'

/** Square cells over the whole plane, told apart by column and row. */
export interface Lattice {
  /** px */
  size: number
  originX: number
  originY: number
}

/** Sides of cells lie off the round coordinates that hands and files like, as a share of a cell. */
const OFF = 0.3713
/** Columns and rows are counted from so far left and above, so that keys are whole numbers from 0. */
const FAR = 2 ** 22
const ROWS = 2 ** 23

/** A lattice of cells of `size` px. */
export const latticeOf = (size: number): Lattice => ({ size, originX: -OFF * size, originY: (OFF - 1) * size })

const columnAt = (l: Lattice, x: number): number => Math.floor((x - l.originX) / l.size)
const rowAt = (l: Lattice, y: number): number => Math.floor((y - l.originY) / l.size)

/** Where column `i` begins; neighbours ask for the same number and get the same place. */
const columnStart = (l: Lattice, i: number): number => l.originX + i * l.size
const rowStart = (l: Lattice, j: number): number => l.originY + j * l.size

/** The bounds of the cell in a column and row, px. */
export const cellBox = (l: Lattice, i: number, j: number): Box => ({
  minX: columnStart(l, i),
  minY: rowStart(l, j),
  maxX: columnStart(l, i + 1),
  maxY: rowStart(l, j + 1),
})

/** One number for a cell, and the cell of a number. */
export const keyOf = (i: number, j: number): number => (i + FAR) * ROWS + (j + FAR)
/** The column and row of a cell by its key. */
export const cellOf = (key: number): [column: number, row: number] => [Math.floor(key / ROWS) - FAR, (key % ROWS) - FAR]

/** The columns and rows that a box reaches into, and one more on each side; null where they cannot be told apart any more. */
export function rangeOf(
  l: Lattice,
  { minX, minY, maxX, maxY }: Box,
): { left: number; right: number; above: number; below: number } | null {
  const range = {
    left: columnAt(l, minX) - 1,
    right: columnAt(l, maxX) + 1,
    above: rowAt(l, minY) - 1,
    below: rowAt(l, maxY) + 1,
  }
  return Math.max(-range.left, range.right, -range.above, range.below) < FAR ? range : null
}
