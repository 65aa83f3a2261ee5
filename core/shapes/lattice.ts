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

export const columnAt = (l: Lattice, x: number): number => Math.floor((x - l.originX) / l.size)
export const rowAt = (l: Lattice, y: number): number => Math.floor((y - l.originY) / l.size)

/** Where column `i` begins; neighbours ask for the same number and get the same place. */
export const columnStart = (l: Lattice, i: number): number => l.originX + i * l.size
export const rowStart = (l: Lattice, j: number): number => l.originY + j * l.size

export const cellBox = (l: Lattice, i: number, j: number): Box => ({ minX: columnStart(l, i), minY: rowStart(l, j), maxX: columnStart(l, i + 1), maxY: rowStart(l, j + 1) })

/** One number for a cell, and the cell of a number. */
export const keyOf = (i: number, j: number): number => (i + FAR) * ROWS + (j + FAR)
export const cellOf = (key: number): [column: number, row: number] => [Math.floor(key / ROWS) - FAR, (key % ROWS) - FAR]

/** Whether all of a box has cells that can be told apart. */
export const spans = (l: Lattice, { minX, minY, maxX, maxY }: Box): boolean => Math.max(-minX, -minY, maxX, maxY) < (FAR - 2) * l.size
