import type { EdgeStore } from './edge-store'

/** A cell holds about so many edges on the mean. */
const EDGES_A_CELL = 3

/** No more entries than this, so that the cells of a few very long edges stay few. */
const MOST_ENTRIES = 6_000_000

/** Edges are entered this much wider than they are, grid units: what lies within half a unit of one is found in its cells. */
const FAT = 1

/** Square cells over the plane and the edges that pass through each, in flat arrays: cell c holds edges[first[c]] .. edges[first[c + 1] - 1]. */
export class EdgeBuckets {
  readonly size: number
  readonly columns: number
  readonly rows: number
  readonly first: Int32Array
  readonly edges: Int32Array
  private readonly minX: number
  private readonly minY: number
  /** Cells of the edge last looked at. */
  private cells = new Int32Array(256)

  constructor(private readonly s: EdgeStore) {
    const { minX, minY, maxX, maxY } = s.extent()
    let length = 0
    for (let e = 0; e < s.count; e++) {
      length += Math.abs(s.bx[e]! - s.ax[e]!) + Math.abs(s.by[e]! - s.ay[e]!)
    }
    this.minX = minX - FAT
    this.minY = minY - FAT
    const [width, height] = [maxX - minX + 2 * FAT + 1, maxY - minY + 2 * FAT + 1]
    this.size = Math.ceil(
      Math.max(
        4,
        (EDGES_A_CELL * width * height) / Math.max(1, length),
        length / MOST_ENTRIES,
        Math.max(width, height) / 4096,
      ),
    )
    this.columns = Math.ceil(width / this.size)
    this.rows = Math.ceil(height / this.size)
    this.first = new Int32Array(this.columns * this.rows + 1)
    for (let e = 0; e < s.count; e++) {
      const n = this.cellsOf(e)
      for (let i = 0; i < n; i++) this.first[this.cells[i]! + 1]!++
    }
    for (let c = 0; c < this.first.length - 1; c++) this.first[c + 1]! += this.first[c]!
    this.edges = new Int32Array(this.first[this.first.length - 1]!)
    const next = this.first.slice()
    for (let e = 0; e < s.count; e++) {
      const n = this.cellsOf(e)
      for (let i = 0; i < n; i++) this.edges[next[this.cells[i]!]!++] = e
    }
  }

  /** The cell in which a point lies. */
  cellAt(x: number, y: number): number {
    return Math.floor((y - this.minY) / this.size) * this.columns + Math.floor((x - this.minX) / this.size)
  }

  /** Writes the cells that an edge, a little fattened, passes through; answers how many there are. */
  private cellsOf(e: number): number {
    const { s, size, columns, rows, minX, minY } = this
    const down = s.ay[e]! <= s.by[e]!
    const x0 = (down ? s.ax[e]! : s.bx[e]!) - minX
    const y0 = (down ? s.ay[e]! : s.by[e]!) - minY
    const x1 = (down ? s.bx[e]! : s.ax[e]!) - minX
    const y1 = (down ? s.by[e]! : s.ay[e]!) - minY
    const top = Math.max(0, Math.floor((y0 - FAT) / size))
    const bottom = Math.min(rows - 1, Math.floor((y1 + FAT) / size))
    const slope = y1 > y0 ? (x1 - x0) / (y1 - y0) : 0
    const [low, high] = x0 < x1 ? [x0, x1] : [x1, x0]
    let n = 0
    for (let row = top; row <= bottom; row++) {
      // Where the edge is while it passes the row, a level one all along.
      const ya = Math.min(y1, Math.max(y0, row * size - FAT))
      const yb = Math.min(y1, Math.max(y0, (row + 1) * size + FAT))
      const xa = y1 > y0 ? x0 + (ya - y0) * slope : low
      const xb = y1 > y0 ? x0 + (yb - y0) * slope : high
      const from = Math.max(0, Math.floor(((xa < xb ? xa : xb) - FAT) / size))
      const to = Math.min(columns - 1, Math.floor(((xa < xb ? xb : xa) + FAT) / size))
      if (n + to - from + 1 > this.cells.length) {
        const more = new Int32Array(2 * (n + to - from + 1))
        more.set(this.cells)
        this.cells = more
      }
      for (let column = from; column <= to; column++) this.cells[n++] = row * columns + column
    }
    return n
  }
}
