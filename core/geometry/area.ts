import type { Cubic } from './cubic'

/** Signed area of a closed chain of cubics, px squared: positive where the inside is on the left (x turning to y). */
export function areaOfCubics(cubics: readonly Cubic[]): number {
  let sum = 0
  for (const { p0, p1, p2, p3 } of cubics) {
    // Integral of (x dy - y dx) / 2 over a cubic, in closed form.
    sum +=
      6 * (p0.x * p1.y - p1.x * p0.y) +
      3 * (p0.x * p2.y - p2.x * p0.y) +
      (p0.x * p3.y - p3.x * p0.y) +
      3 * (p1.x * p2.y - p2.x * p1.y) +
      3 * (p1.x * p3.y - p3.x * p1.y) +
      6 * (p2.x * p3.y - p3.x * p2.y)
  }
  return sum / 20
}
