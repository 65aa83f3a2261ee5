/** A longer copy of an array of doubles; what is new is 0. */
export function grownFloats(old: Float64Array, length: number): Float64Array<ArrayBuffer> {
  const more = new Float64Array(length)
  more.set(old)
  return more
}

/** As `grownFloats`, of integers. */
export function grownInts(old: Int32Array, length: number): Int32Array<ArrayBuffer> {
  const more = new Int32Array(length)
  more.set(old)
  return more
}
