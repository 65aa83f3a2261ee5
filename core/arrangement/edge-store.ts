import type { Box } from '../geometry/bounds'
import { emptyBox, include } from '../geometry/bounds'
import { grownFloats, grownInts } from '../geometry/grown'

/**
 * Directed edges between points of an integer grid, in typed arrays that grow. Every edge remembers the curve that it
 * stands for, the parameters at its two ends, and whose boundary it is.
 */
export class EdgeStore {
  count = 0
  ax: Float64Array
  ay: Float64Array
  bx: Float64Array
  by: Float64Array
  ta: Float64Array
  tb: Float64Array
  /** Bound on how far the curve lies from the chord, grid units; 0 where the chord itself is meant. */
  sag: Float64Array
  curve: Int32Array
  /** Least x and y and largest x and y that the curve may reach, together for each edge: what is looked at most. */
  boxes: Float64Array
  /** Which list of an `OwnerLists` says whose boundary this is. */
  owners: Int32Array
  /** 1 while the edge is part of the arrangement. */
  alive: Uint8Array

  constructor(capacity: number) {
    const n = Math.max(16, capacity)
    this.ax = new Float64Array(n)
    this.ay = new Float64Array(n)
    this.bx = new Float64Array(n)
    this.by = new Float64Array(n)
    this.ta = new Float64Array(n)
    this.tb = new Float64Array(n)
    this.sag = new Float64Array(n)
    this.boxes = new Float64Array(4 * n)
    this.curve = new Int32Array(n)
    this.owners = new Int32Array(n)
    this.alive = new Uint8Array(n)
  }

  /** Appends an edge and answers its number. */
  push(
    ax: number,
    ay: number,
    bx: number,
    by: number,
    curve: number,
    ta: number,
    tb: number,
    sag: number,
    owners: number,
  ): number {
    const i = this.count++
    if (i >= this.ax.length) this.grow()
    this.put(i, ax, ay, bx, by, curve, ta, tb, sag, owners)
    return i
  }

  /** Puts an edge in place `i`. */
  put(
    i: number,
    ax: number,
    ay: number,
    bx: number,
    by: number,
    curve: number,
    ta: number,
    tb: number,
    sag: number,
    owners: number,
  ): void {
    this.ax[i] = ax
    this.ay[i] = ay
    this.bx[i] = bx
    this.by[i] = by
    this.curve[i] = curve
    this.ta[i] = ta
    this.tb[i] = tb
    this.sag[i] = sag
    this.owners[i] = owners
    const { boxes } = this
    const fat = sag + 0.5
    boxes[4 * i] = (ax < bx ? ax : bx) - fat
    boxes[4 * i + 1] = (ay < by ? ay : by) - fat
    boxes[4 * i + 2] = (ax < bx ? bx : ax) + fat
    boxes[4 * i + 3] = (ay < by ? by : ay) + fat
  }

  /** The least box that holds the ends of all edges, grid units. */
  extent(): Box {
    const box = emptyBox()
    for (let e = 0; e < this.count; e++) {
      include(box, this.ax[e]!, this.ay[e]!)
      include(box, this.bx[e]!, this.by[e]!)
    }
    return box
  }

  private grow(): void {
    const n = this.ax.length * 2
    this.ax = grownFloats(this.ax, n)
    this.ay = grownFloats(this.ay, n)
    this.bx = grownFloats(this.bx, n)
    this.by = grownFloats(this.by, n)
    this.ta = grownFloats(this.ta, n)
    this.tb = grownFloats(this.tb, n)
    this.sag = grownFloats(this.sag, n)
    this.boxes = grownFloats(this.boxes, 4 * n)
    this.curve = grownInts(this.curve, n)
    this.owners = grownInts(this.owners, n)
    const alive = new Uint8Array(n)
    alive.set(this.alive)
    this.alive = alive
  }
}
