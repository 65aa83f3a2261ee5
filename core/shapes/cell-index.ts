import type { EdgeStore } from './edge-store'

/** Cells of the finest level, grid units, and how much larger those of each further level are. */
const FINEST = 8
const FACTOR = 4

/**
 * Square cells over the plane, hashed, at several levels. Every edge is entered as a native at the level whose cells are
 * about as large as it is, and as a guest at all coarser ones, each time in the few cells that it touches. An edge that
 * looks for others finds those no larger than itself at its own level and larger ones among the natives of theirs, so
 * that crowds of tiny edges need not look at each other through large cells. Cells that share a hash share a list, which
 * costs a look more and loses nothing.
 */
export class CellIndex {
  private readonly heads: Int32Array
  private nexts: Int32Array
  private items: Int32Array
  private used = 0
  private readonly mask: number
  private readonly coarsest: number

  /** @param edges how many are waiting to be entered: no later one may be larger than the largest of them */
  constructor(s: EdgeStore, edges: number) {
    let n = 64
    while (n < 2 * edges) n *= 2
    this.mask = n - 1
    this.heads = new Int32Array(n).fill(-1)
    this.nexts = new Int32Array(2 * n)
    this.items = new Int32Array(2 * n)
    let largest = 0
    for (let e = 0; e < edges; e++) largest = Math.max(largest, extentOf(s, e))
    this.coarsest = levelFor(largest)
  }

  /** The lists among which edge `e` finds all that it may meet; answers how many were written. */
  listsFor(s: EdgeStore, e: number, out: Int32Array[]): number {
    const level = Math.min(this.coarsest, levelFor(extentOf(s, e)))
    let n = this.cellsOf(s, e, level, true, 0, out)
    for (let coarser = level; coarser <= this.coarsest; coarser++) n = this.cellsOf(s, e, coarser, false, n, out)
    return n
  }

  /** Enters edge `e`. */
  enter(s: EdgeStore, e: number, lists: Int32Array[]): void {
    const level = Math.min(this.coarsest, levelFor(extentOf(s, e)))
    let n = this.cellsOf(s, e, level, false, 0, lists)
    for (let coarser = level + 1; coarser <= this.coarsest; coarser++) n = this.cellsOf(s, e, coarser, true, n, lists)
    for (let i = 0; i < n; i++) this.add(lists[0]![i]!, e)
  }

  /** Writes, from place `n` on, the lists of the cells of a level that edge `e`, fattened by its sagitta, passes through. */
  private cellsOf(s: EdgeStore, e: number, level: number, guests: boolean, n: number, out: Int32Array[]): number {
    const fat = s.sag[e]! + 1
    const k = 1 / (FINEST * FACTOR ** level)
    let x0 = s.ax[e]!
    let y0 = s.ay[e]!
    let x1 = s.bx[e]!
    let y1 = s.by[e]!
    if (y0 > y1) {
      const [x, y] = [x0, y0]
      x0 = x1
      y0 = y1
      x1 = x
      y1 = y
    }
    const left = Math.floor((Math.min(x0, x1) - fat) * k)
    const right = Math.floor((Math.max(x0, x1) + fat) * k)
    const top = Math.floor((y0 - fat) * k)
    const bottom = Math.floor((y1 + fat) * k)
    let cells = out[0]!
    const key = 2 * level + (guests ? 1 : 0)
    if (n + 4 > cells.length) cells = out[0] = longer(cells, 2 * n + 4)
    if ((right - left + 1) * (bottom - top + 1) <= 4) {
      for (let cy = top; cy <= bottom; cy++) for (let cx = left; cx <= right; cx++) cells[n++] = this.slot(cx, cy, key)
      return n
    }
    const slope = y1 > y0 ? (x1 - x0) / (y1 - y0) : 0
    for (let cy = top; cy <= bottom; cy++) {
      let from = left
      let to = right
      if (y1 - y0 > fat) {
        const low = Math.min(y1, Math.max(y0, cy / k - fat))
        const high = Math.min(y1, Math.max(y0, (cy + 1) / k + fat))
        const xa = x0 + (low - y0) * slope
        const xb = x0 + (high - y0) * slope
        from = Math.max(left, Math.floor((Math.min(xa, xb) - fat) * k))
        to = Math.min(right, Math.floor((Math.max(xa, xb) + fat) * k))
      }
      if (n + to - from + 1 > cells.length) cells = out[0] = longer(cells, 2 * (n + to - from + 1))
      for (let cx = from; cx <= to; cx++) cells[n++] = this.slot(cx, cy, key)
    }
    return n
  }

  private slot(cx: number, cy: number, key: number): number {
    const h = Math.imul(cx, 73856093) ^ Math.imul(cy, 19349663) ^ Math.imul(key + 1, 83492791)
    return (h ^ (h >>> 13)) & this.mask
  }

  /** First entry of a list, -1 where it is empty. */
  first(list: number): number {
    return this.heads[list]!
  }

  next(entry: number): number {
    return this.nexts[entry]!
  }

  edge(entry: number): number {
    return this.items[entry]!
  }

  /** Takes the entry after `before` (or the first, for -1) out of a list. */
  drop(list: number, before: number, entry: number): void {
    if (before < 0) this.heads[list] = this.nexts[entry]!
    else this.nexts[before] = this.nexts[entry]!
  }

  private add(list: number, edge: number): void {
    if (this.used === this.items.length) {
      this.nexts = longer(this.nexts, this.used * 2)
      this.items = longer(this.items, this.used * 2)
    }
    this.items[this.used] = edge
    this.nexts[this.used] = this.heads[list]!
    this.heads[list] = this.used++
  }
}

/** Extent of an edge's box, with what its curve may leave it by, grid units. */
const extentOf = (s: EdgeStore, e: number): number => Math.max(Math.abs(s.bx[e]! - s.ax[e]!), Math.abs(s.by[e]! - s.ay[e]!)) + 2 * s.sag[e]! + 2

function levelFor(extent: number): number {
  let level = 0
  for (let size = FINEST; size < extent; size *= FACTOR) level++
  return level
}

function longer(old: Int32Array, n: number): Int32Array {
  const more = new Int32Array(n)
  more.set(old)
  return more
}
