import type { Box } from './bounds'
import { overlap } from './bounds'

/** Cells are so many px wide. */
const CELL = 24
/** Columns and rows are counted from so far off, so that their keys are whole numbers. */
const FAR = 2 ** 24
const ROWS = 2 ** 25
/** What reaches over more cells than this is looked at on every search. */
const MOST_CELLS = 4096

/** Things with boxes, found by place; unlike a static index it takes things in and out at little cost. */
export class BoxIndex<T extends { box: Box }> {
  private readonly cells = new Map<number, Set<T>>()
  private readonly large = new Set<T>()

  add(thing: T): void {
    const keys = keysOf(thing.box)
    if (!keys) this.large.add(thing)
    for (const key of keys ?? []) {
      const cell = this.cells.get(key)
      if (cell) cell.add(thing)
      else this.cells.set(key, new Set([thing]))
    }
  }

  remove(thing: T): void {
    const keys = keysOf(thing.box)
    if (!keys) this.large.delete(thing)
    for (const key of keys ?? []) {
      const cell = this.cells.get(key)
      cell?.delete(thing)
      if (cell?.size === 0) this.cells.delete(key)
    }
  }

  /** All things whose boxes overlap `box`. */
  search(box: Box): T[] {
    const found = new Set<T>()
    const keys = keysOf(box)
    const lists: Iterable<Iterable<T>> = keys ? keys.map((k) => this.cells.get(k) ?? []) : this.cells.values()
    for (const list of [this.large, ...lists]) for (const thing of list) if (overlap(thing.box, box)) found.add(thing)
    return [...found]
  }
}

/** Keys of the cells that a box reaches into; null where these are too many, or too far off. */
function keysOf({ minX, minY, maxX, maxY }: Box): number[] | null {
  const [i0, j0, i1, j1] = [
    Math.floor(minX / CELL),
    Math.floor(minY / CELL),
    Math.floor(maxX / CELL),
    Math.floor(maxY / CELL),
  ]
  if (!((i1 - i0 + 1) * (j1 - j0 + 1) <= MOST_CELLS) || Math.max(-i0, -j0, i1, j1) >= FAR) return null
  const keys: number[] = []
  for (let i = i0; i <= i1; i++) for (let j = j0; j <= j1; j++) keys.push((i + FAR) * ROWS + (j + FAR))
  return keys
}
