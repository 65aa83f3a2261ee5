/** Index, up to `last`, of the last of the ascending values that is not above `v`; 0 where all are. */
export function lastUpTo(values: Float64Array, v: number, last = values.length - 1): number {
  let low = 0
  let high = last
  while (low < high) {
    const mid = (low + high + 1) >> 1
    if (values[mid]! <= v) low = mid
    else high = mid - 1
  }
  return low
}
