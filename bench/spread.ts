/** Half of the times, 95 of a hundred and all of them are no longer than this, ms. */
export interface Spread {
  median: number
  p95: number
  worst: number
}

export function spread(times: readonly number[]): Spread {
  const sorted = [...times].sort((a, b) => a - b)
  const at = (q: number): number => sorted[Math.min(sorted.length - 1, Math.floor(q * sorted.length))]!
  return { median: at(0.5), p95: at(0.95), worst: at(1) }
}
