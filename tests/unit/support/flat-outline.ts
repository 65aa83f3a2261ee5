import type { Cubic } from '#core/geometry/cubic'
import { flatten } from '#core/geometry/cubic'
import type { Vec } from '#core/geometry/point'

const CELL = 4

/** Contours flattened to edges in square cells, for asking about distances, coverage and crossings. */
export class FlatOutline {
  readonly ax: number[] = []
  readonly ay: number[] = []
  readonly bx: number[] = []
  readonly by: number[] = []
  private readonly cells = new Map<number, number[]>()

  /** @param tolerance px that the flattening may be off */
  constructor(contours: readonly (readonly Cubic[])[], tolerance = 0.002) {
    for (const contour of contours) {
      for (const c of contour) {
        const points = flatten(c, tolerance)
        for (let i = 1; i < points.length; i++) this.add(points[i - 1]!, points[i]!)
      }
    }
  }

  private add(a: Vec, b: Vec): void {
    const id = this.ax.push(a.x) - 1
    this.ay.push(a.y)
    this.bx.push(b.x)
    this.by.push(b.y)
    for (let y = Math.floor(Math.min(a.y, b.y) / CELL); y <= Math.floor(Math.max(a.y, b.y) / CELL); y++) {
      for (let x = Math.floor(Math.min(a.x, b.x) / CELL); x <= Math.floor(Math.max(a.x, b.x) / CELL); x++) {
        const key = x * 1048576 + y
        const list = this.cells.get(key)
        if (list) list.push(id)
        else this.cells.set(key, [id])
      }
    }
  }

  /** Distance from `p` to the nearest edge, px; up to about a cell, Infinity beyond. */
  distance(p: Vec): number {
    let best = Infinity
    const cx = Math.floor(p.x / CELL)
    const cy = Math.floor(p.y / CELL)
    for (let y = cy - 1; y <= cy + 1; y++) {
      for (let x = cx - 1; x <= cx + 1; x++) {
        for (const i of this.cells.get(x * 1048576 + y) ?? []) {
          const [dx, dy] = [this.bx[i]! - this.ax[i]!, this.by[i]! - this.ay[i]!]
          const [wx, wy] = [p.x - this.ax[i]!, p.y - this.ay[i]!]
          const u = Math.min(1, Math.max(0, (wx * dx + wy * dy) / (dx * dx + dy * dy || 1)))
          best = Math.min(best, Math.hypot(wx - dx * u, wy - dy * u))
        }
      }
    }
    return best
  }

  winding(p: Vec): number {
    return this.row(p.y, p.x, 1, 1)[0]!
  }

  /** Winding numbers along a row at height y, at the places x0, x0 + step, ... */
  row(y: number, x0: number, step: number, count: number): Int32Array {
    const out = new Int32Array(count)
    for (let i = 0; i < this.ax.length; i++) {
      const [ya, yb] = [this.ay[i]!, this.by[i]!]
      if (ya <= y === yb <= y) continue
      const x = this.ax[i]! + ((y - ya) / (yb - ya)) * (this.bx[i]! - this.ax[i]!)
      const first = Math.max(0, Math.ceil((x - x0) / step))
      if (first < count) out[first]! += yb > ya ? -1 : 1
    }
    for (let i = 1; i < count; i++) out[i]! += out[i - 1]!
    return out
  }

  /** The deepest that one edge passes through another, px: how far an end lies beyond the other's line. */
  deepestCrossing(): number {
    let deepest = 0
    for (const list of this.cells.values()) {
      for (let a = 0; a < list.length; a++) {
        for (let b = a + 1; b < list.length; b++) deepest = Math.max(deepest, this.depth(list[a]!, list[b]!))
      }
    }
    return deepest
  }

  private depth(i: number, j: number): number {
    const off = (k: number, x: number, y: number): number => {
      const [dx, dy] = [this.bx[k]! - this.ax[k]!, this.by[k]! - this.ay[k]!]
      return (dx * (y - this.ay[k]!) - dy * (x - this.ax[k]!)) / (Math.hypot(dx, dy) || 1)
    }
    const a = off(i, this.ax[j]!, this.ay[j]!)
    const b = off(i, this.bx[j]!, this.by[j]!)
    if (a > 0 === b > 0) return 0
    const c = off(j, this.ax[i]!, this.ay[i]!)
    const d = off(j, this.bx[i]!, this.by[i]!)
    if (c > 0 === d > 0) return 0
    return Math.min(Math.abs(a), Math.abs(b), Math.abs(c), Math.abs(d))
  }
}
