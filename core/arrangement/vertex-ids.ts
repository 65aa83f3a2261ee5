/** Numbers grid points in the order in which they are first met, by open addressing. */
export class VertexIds {
  x: Float64Array
  y: Float64Array
  count = 0
  private readonly table: Int32Array
  private readonly mask: number

  /** @param most no more points than this will be met */
  constructor(most: number) {
    let n = 64
    while (n < 2 * most) n *= 2
    this.table = new Int32Array(n).fill(-1)
    this.mask = n - 1
    this.x = new Float64Array(Math.max(1, most))
    this.y = new Float64Array(Math.max(1, most))
  }

  /** The number of a point, which it is given if it has none. */
  of(x: number, y: number): number {
    const slot = this.slotOf(x, y)
    const id = this.table[slot]!
    if (id >= 0) return id
    this.table[slot] = this.count
    this.x[this.count] = x
    this.y[this.count] = y
    return this.count++
  }

  /** The number of a point, or -1. */
  find(x: number, y: number): number {
    return this.table[this.slotOf(x, y)]!
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
