import { grownFloats } from '../geometry/grown'

/** Numbers grid points in the order in which they are first met, by open addressing. */
export class VertexIds {
  x: Float64Array
  y: Float64Array
  count = 0
  private table: Int32Array
  private mask: number

  /** @param expected about how many points will be met */
  constructor(expected: number) {
    let n = 64
    while (n < 2 * expected) n *= 2
    this.table = new Int32Array(n).fill(-1)
    this.mask = n - 1
    this.x = new Float64Array(Math.max(16, expected))
    this.y = new Float64Array(Math.max(16, expected))
  }

  /** The number of a point, which it is given if it has none. */
  of(x: number, y: number): number {
    const slot = this.slotOf(x, y)
    const id = this.table[slot]!
    if (id >= 0) return id
    if (this.count === this.x.length || 2 * this.count > this.mask) {
      this.grow()
      return this.of(x, y)
    }
    this.table[slot] = this.count
    this.x[this.count] = x
    this.y[this.count] = y
    return this.count++
  }

  /** The number of a point, or -1. */
  find(x: number, y: number): number {
    return this.table[this.slotOf(x, y)]!
  }

  private grow(): void {
    this.x = grownFloats(this.x, 2 * this.x.length)
    this.y = grownFloats(this.y, 2 * this.y.length)
    this.mask = 2 * this.mask + 1
    this.table = new Int32Array(this.mask + 1).fill(-1)
    for (let id = 0; id < this.count; id++) this.table[this.slotOf(this.x[id]!, this.y[id]!)] = id
  }

  /** The slot that holds a point, or the free one where it belongs. */
  private slotOf(x: number, y: number): number {
    let slot = (Math.imul(x, 73856093) ^ Math.imul(y, 19349663)) >>> 0
    slot = (slot ^ (slot >>> 15)) & this.mask
    for (;;) {
      const id = this.table[slot]!
      if (id < 0 || (this.x[id] === x && this.y[id] === y)) return slot
      slot = (slot + 1) & this.mask
    }
  }
}
