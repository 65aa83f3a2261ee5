/**
 * Indices of the points of a course that straight lines between them need to lie within `tolerance` of all its points:
 * the farthest from its chord is kept (D. Douglas and T. Peucker, 1973). `at` ascends; the first and last are kept.
 */
export function keptPoints(at: ArrayLike<number>, value: ArrayLike<number>, tolerance: number): number[] {
  const kept = [0]
  const split = (from: number, to: number): void => {
    const [span, rise] = [at[to]! - at[from]!, value[to]! - value[from]!]
    let worst = tolerance
    let far = -1
    for (let i = from + 1; i < to; i++) {
      const off = Math.abs(value[i]! - (value[from]! + (span > 0 ? (rise * (at[i]! - at[from]!)) / span : 0)))
      if (off <= worst) continue
      worst = off
      far = i
    }
    if (far < 0) return
    split(from, far)
    kept.push(far)
    split(far, to)
  }
  split(0, at.length - 1)
  kept.push(at.length - 1)
  return kept
}
