import { grownInts } from '../geometry/grown'
import type { EdgeStore } from './edge-store'

/** Cells of the finest level, grid units, and how much larger those of each further level are. */
const FINEST = 8
const FACTOR = 4

/** At least so many lists to each of the edges that are waiting: few cells must share one. */
const SLOTS = 8

/** So small a share of the edges may be too large for the coarsest level; they are to be cut. */
const TOO_LARGE = 0.02

/** A cell with so many edges is crowded: whoever would look for others in it is to be cut in two first. */
const CROWD = 80

/** Mark of a crowded cell in place of its count. */
const CROWDED = 255

/** The lists are made anew, twice as many, once they hold more than this many entries each. */
const MOST_ENTRIES = 3

/**
 * Square cells over the plane, hashed, at several levels. Every edge is entered as a native at the level whose cells are
 * about as large as it is, and as a guest at all coarser ones, each time in the few cells that it touches. An edge that
 * looks for others finds those no larger than itself at its own level and larger ones among the natives of theirs, so
 * that crowds of tiny edges need not look at each other through large cells. A cell in which many edges lie is crowded from
 * then on: it takes no more guests, and an edge of its size is cut until its cells are small enough, so that no look costs
 * more than a crowd, however often the input crosses itself. Cells that share a hash share a list, which costs a look more
 * and loses nothing.
 */
export class CellIndex {
  /** First entries: of a cell's natives and of its guests in turn. */
  private heads = new Int32Array(0)
  /** How many edges lie in each cell; CROWDED from CROWD on. */
  private counts = new Uint8Array(0)
  /** Entries of the lists, two numbers each: an edge, and the next entry or -1. */
  private entries = new Int32Array(0)
  private used = 0
  private mask = 0
  /** Lists between a cell's and that of the cell below it: odd, so that a column meets all lists before it comes round. */
  private row = 0
  private coarsest: number
  /** Cells of the edge last looked up: those of its own level first. */
  private cells = new Int32Array(64)
  private own = 0
  private all = 0
  private level = 0
  /** The lists among which it finds all that it may meet. */
  lists = new Int32Array(128)

  /** @param edges how many are waiting to be entered */
  constructor(
    private readonly s: EdgeStore,
    edges: number,
  ) {
    let n = 64
    while (n < SLOTS * edges) n *= 2
    this.clear(n)
    this.coarsest = this.coarsestFor(edges, false)
  }

  /** The level above which so few edges, of the first `count`, are too large that it pays to cut them. */
  private coarsestFor(count: number, onlyAlive: boolean): number {
    const { s } = this
    const levels: number[] = []
    let n = 0
    for (let e = 0; e < count; e++) {
      if (onlyAlive && !s.alive[e]) continue
      n++
      const level = levelFor(extentOf(s, e))
      levels[level] = (levels[level] ?? 0) + 1
    }
    let coarsest = levels.length - 1
    for (let above = levels[coarsest] ?? 0; above <= TOO_LARGE * n && coarsest > 0;) above += levels[--coarsest] ?? 0
    return coarsest
  }

  private clear(lists: number): void {
    this.mask = lists - 1
    this.row = Math.floor(Math.sqrt(lists)) | 1
    this.heads = new Int32Array(2 * lists).fill(-1)
    this.counts = new Uint8Array(lists)
    this.entries = new Int32Array(2 * lists)
    this.used = 0
  }

  /** Twice as many lists, without what has gone from the arrangement. */
  private grow(): void {
    const { s } = this
    this.clear(2 * (this.mask + 1))
    this.coarsest = this.coarsestFor(s.count, true)
    for (let e = 0; e < s.count; e++) {
      if (!s.alive[e]) continue
      this.findCells(e)
      this.addAll(e)
    }
  }

  /** Whether an edge is larger than the coarsest cells and should be cut in two before it is looked up. */
  isTooLarge(e: number): boolean {
    return levelFor(extentOf(this.s, e)) > this.coarsest
  }

  /** Finds the cells of edge `e` and writes `lists`; answers how many there are. */
  lookUp(e: number): number {
    this.findCells(e)
    const { cells, own, all } = this
    if (this.lists.length < own + all) this.lists = new Int32Array(2 * (own + all))
    const { lists } = this
    for (let i = 0; i < all; i++) lists[i] = 2 * cells[i]!
    for (let i = 0; i < own; i++) lists[all + i] = 2 * cells[i]! + 1
    return all + own
  }

  /** Whether the edge last looked up lies in a crowded cell of its own size, other than the finest: it must be cut in two. */
  isCrowded(): boolean {
    const { cells, counts, own } = this
    if (this.level === 0) return false
    for (let i = 0; i < own; i++) if (counts[cells[i]!] === CROWDED) return true
    return false
  }

  private findCells(e: number): void {
    const { s } = this
    const level = Math.min(this.coarsest, levelFor(extentOf(s, e)))
    this.level = level
    this.all = 0
    for (let k = level; k <= this.coarsest; k++) {
      this.cellsOf(s, e, k)
      if (k === level) this.own = this.all
    }
  }

  /** Enters edge `e`, the one last looked up. */
  enter(e: number): void {
    if (this.used > 2 * MOST_ENTRIES * (this.mask + 1)) {
      this.grow()
      this.findCells(e)
    }
    this.addAll(e)
  }

  private addAll(e: number): void {
    const { cells, counts, own, all } = this
    for (let i = 0; i < all; i++) {
      const cell = cells[i]!
      if (counts[cell] !== CROWDED && ++counts[cell]! > CROWD) {
        counts[cell] = CROWDED
        // Nobody looks for guests there any more.
        this.heads[2 * cell + 1] = -1
      }
      if (i < own) this.add(2 * cell, e)
      else if (counts[cell] !== CROWDED) this.add(2 * cell + 1, e)
    }
  }

  /** Appends the cells of a level that edge `e`, fattened by its sagitta, passes through. */
  private cellsOf(s: EdgeStore, e: number, level: number): void {
    const fat = s.sag[e]! + 1
    const k = 1 / (FINEST * FACTOR ** level)
    const { boxes } = s
    const left = Math.floor((boxes[4 * e]! - 0.5) * k)
    const top = Math.floor((boxes[4 * e + 1]! - 0.5) * k)
    const right = Math.floor((boxes[4 * e + 2]! + 0.5) * k)
    const bottom = Math.floor((boxes[4 * e + 3]! + 0.5) * k)
    const count = (right - left + 1) * (bottom - top + 1)
    if (this.all + count > this.cells.length) this.cells = grownInts(this.cells, 2 * (this.all + count))
    const { cells } = this
    let n = this.all
    if (count <= 4) {
      for (let cy = top; cy <= bottom; cy++)
        for (let cx = left; cx <= right; cx++) cells[n++] = this.slot(cx, cy, level)
      this.all = n
      return
    }
    const down = s.ay[e]! <= s.by[e]!
    const x0 = down ? s.ax[e]! : s.bx[e]!
    const y0 = down ? s.ay[e]! : s.by[e]!
    const x1 = down ? s.bx[e]! : s.ax[e]!
    const y1 = down ? s.by[e]! : s.ay[e]!
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
      for (let cx = from; cx <= to; cx++) cells[n++] = this.slot(cx, cy, level)
    }
    this.all = n
  }

  /** Cells of a row follow one another, and rows follow rows, so that neighbours lie near each other in memory. */
  private slot(cx: number, cy: number, level: number): number {
    return (cx + Math.imul(cy, this.row) + Math.imul(level, 0x9e3779b1)) & this.mask
  }

  /** First entry of a list, -1 where it is empty. */
  first(list: number): number {
    return this.heads[list]!
  }

  next(entry: number): number {
    return this.entries[entry + 1]!
  }

  edge(entry: number): number {
    return this.entries[entry]!
  }

  /** Takes the entry after `before` (or the first, for -1) out of a list. */
  drop(list: number, before: number, entry: number): void {
    const next = this.entries[entry + 1]!
    if (before < 0) this.heads[list] = next
    else this.entries[before + 1] = next
  }

  private add(list: number, edge: number): void {
    const { used } = this
    if (used === this.entries.length) this.entries = grownInts(this.entries, used * 2)
    this.entries[used] = edge
    this.entries[used + 1] = this.heads[list]!
    this.heads[list] = used
    this.used = used + 2
  }
}

/** Extent of an edge's box, with what its curve may leave it by, grid units. */
const extentOf = (s: EdgeStore, e: number): number =>
  Math.max(Math.abs(s.bx[e]! - s.ax[e]!), Math.abs(s.by[e]! - s.ay[e]!)) + 2 * s.sag[e]! + 2

function levelFor(extent: number): number {
  let level = 0
  for (let size = FINEST; size < extent; size *= FACTOR) level++
  return level
}
