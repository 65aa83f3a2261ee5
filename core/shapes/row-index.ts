import type { PlanarMap } from './planar-map'

/** Edges meet the ray at one place when no farther apart than this, grid units: vertices are whole units apart. */
const TIE = 1e-6

/** The edges of a planar map by horizontal rows, for asking what lies beside a point. */
export class RowIndex {
  private readonly top: number
  private readonly height: number
  private readonly rows: number
  private readonly first: Int32Array
  private readonly items: Int32Array

  constructor(private readonly m: PlanarMap) {
    const { chains } = m
    const { y } = chains.vertices
    const n = chains.start[chains.count]!
    let top = Infinity
    let bottom = -Infinity
    let rise = 0
    for (let i = 0; i < n; i++) {
      const a = y[chains.from[chains.edges[i]!]!]!
      const b = y[chains.to[chains.edges[i]!]!]!
      top = Math.min(top, a, b)
      bottom = Math.max(bottom, a, b)
      rise += Math.abs(b - a)
    }
    this.top = top
    this.height = Math.max(1, rise / (2 * n), (bottom - top) / 65536)
    this.rows = Math.floor((bottom - top) / this.height) + 1
    this.first = new Int32Array(this.rows + 1)
    const each = (put: (row: number, chain: number, i: number) => void): void => {
      for (let c = 0; c < chains.count; c++) {
        for (let i = chains.start[c]!; i < chains.start[c + 1]!; i++) {
          const a = this.row(y[chains.from[chains.edges[i]!]!]!)
          const b = this.row(y[chains.to[chains.edges[i]!]!]!)
          for (let r = Math.min(a, b); r <= Math.max(a, b); r++) put(r, c, i)
        }
      }
    }
    each((r) => this.first[r + 1]!++)
    for (let r = 0; r < this.rows; r++) this.first[r + 1]! += this.first[r]!
    this.items = new Int32Array(2 * this.first[this.rows]!)
    const fill = this.first.slice()
    each((r, c, i) => {
      const at = 2 * fill[r]!++
      this.items[at] = c
      this.items[at + 1] = i
    })
  }

  private row(y: number): number {
    return Math.floor((y - this.top) / this.height)
  }

  /** The half-chain whose left face a ray from (px, py) towards -x first comes to; -1 where nothing lies there. */
  halfLeftOf(px: number, py: number): number {
    const { chains } = this.m
    const { x, y } = chains.vertices
    const row = this.row(py)
    let best = -1
    let nearest = -Infinity
    let leaning = -Infinity
    for (let k = this.first[row]!; k < this.first[row + 1]!; k++) {
      const e = chains.edges[this.items[2 * k + 1]!]!
      const a = chains.from[e]!
      const b = chains.to[e]!
      if (y[a]! <= py === y[b]! <= py) continue
      const slope = (x[b]! - x[a]!) / (y[b]! - y[a]!)
      const at = x[a]! + (py - y[a]!) * slope
      if (at >= px - TIE || at < nearest - TIE) continue
      // Edges that leave one vertex of the ray: the one that leans to the right is the nearer.
      if (at <= nearest + TIE && slope <= leaning) continue
      nearest = at
      leaning = slope
      // What lies to the right of an edge that goes up in y is on its other side.
      best = 2 * this.items[2 * k]! + (y[b]! > y[a]! ? 1 : 0)
    }
    return best
  }
}
