import type { EdgeStore } from './edge-store'

/**
 * Square cells over the plane, hashed, each with a list of the edges that pass through it. Cells that share a hash share
 * a list, which costs a look more and loses nothing.
 */
export class CellIndex {
  private readonly heads: Int32Array
  private nexts: Int32Array
  private items: Int32Array
  private used = 0
  private readonly mask: number
  private readonly scale: number

  /** @param edges about how many edges will be entered  @param size of a cell, grid units */
  constructor(edges: number, size: number) {
    let n = 64
    while (n < 2 * edges) n *= 2
    this.mask = n - 1
    this.heads = new Int32Array(n).fill(-1)
    this.nexts = new Int32Array(n)
    this.items = new Int32Array(n)
    this.scale = 1 / size
  }

  /** Writes the lists of the cells that edge `e`, fattened by its sagitta, passes through; answers how many. */
  cellsOf(s: EdgeStore, e: number, out: Int32Array[]): number {
    const fat = s.sag[e]! + 1
    const k = this.scale
    let x0 = s.ax[e]!
    let y0 = s.ay[e]!
    let x1 = s.bx[e]!
    let y1 = s.by[e]!
    if (y0 > y1) {
      ;[x0, x1] = [x1, x0]
      ;[y0, y1] = [y1, y0]
    }
    const left = Math.floor((Math.min(x0, x1) - fat) * k)
    const right = Math.floor((Math.max(x0, x1) + fat) * k)
    const top = Math.floor((y0 - fat) * k)
    const bottom = Math.floor((y1 + fat) * k)
    const whole = (right - left + 1) * (bottom - top + 1)
    let cells = out[0]!
    let n = 0
    if (whole <= 4) {
      for (let cy = top; cy <= bottom; cy++) for (let cx = left; cx <= right; cx++) cells[n++] = this.slot(cx, cy)
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
      if (n + to - from + 1 > cells.length) {
        const more = new Int32Array(2 * (n + to - from + 1))
        more.set(cells)
        cells = out[0] = more
      }
      for (let cx = from; cx <= to; cx++) cells[n++] = this.slot(cx, cy)
    }
    return n
  }

  private slot(cx: number, cy: number): number {
    return (Math.imul(cx, 73856093) ^ Math.imul(cy, 19349663)) & this.mask
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

  add(list: number, edge: number): void {
    if (this.used === this.items.length) {
      const nexts = new Int32Array(this.used * 2)
      nexts.set(this.nexts)
      this.nexts = nexts
      const items = new Int32Array(this.used * 2)
      items.set(this.items)
      this.items = items
    }
    this.items[this.used] = edge
    this.nexts[this.used] = this.heads[list]!
    this.heads[list] = this.used++
  }
}
