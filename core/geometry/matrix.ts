import type { Vec } from './point'
import { cross, distance, subtract } from './point'

/** [a b c d e f]: (x, y) goes to (a x + c y + e, b x + d y + f), as in SVG. */
export type Matrix = readonly [number, number, number, number, number, number]

export const IDENTITY: Matrix = [1, 0, 0, 1, 0, 0]

/** A point put through an affine matrix, as in SVG. */
export const mapped = ([a, b, c, d, e, f]: Matrix, { x, y }: Vec): Vec => ({
  x: a * x + c * y + e,
  y: b * x + d * y + f,
})

/** First `n`, then `m`. */
export const composed = (m: Matrix, n: Matrix): Matrix => [
  m[0] * n[0] + m[2] * n[1],
  m[1] * n[0] + m[3] * n[1],
  m[0] * n[2] + m[2] * n[3],
  m[1] * n[2] + m[3] * n[3],
  m[0] * n[4] + m[2] * n[5] + m[4],
  m[1] * n[4] + m[3] * n[5] + m[5],
]

/** What undoes an affine matrix whose determinant is not 0. */
export function inverse([a, b, c, d, e, f]: Matrix): Matrix {
  const det = a * d - b * c
  return [d / det, -b / det, -c / det, a / det, (c * f - d * e) / det, (b * e - a * f) / det]
}

/** The matrix of a map that is known to be affine. */
export function matrixOfMap(map: (p: Vec) => Vec): Matrix {
  const o = map({ x: 0, y: 0 })
  const u = map({ x: 1, y: 0 })
  const v = map({ x: 0, y: 1 })
  return [u.x - o.x, u.y - o.y, v.x - o.x, v.y - o.y, o.x, o.y]
}

/** The affine map that takes points where others are, by three of them that lie far apart; null where all lie on a line. */
export function affineBetween(from: readonly Vec[], to: readonly Vec[]): Matrix | null {
  if (from.length < 3) return null
  const farthest = (measure: (p: Vec) => number): number =>
    from.reduce((best, p, i) => (measure(p) > measure(from[best]!) ? i : best), 0)
  const i = farthest((p) => distance(p, from[0]!))
  const u = subtract(from[i]!, from[0]!)
  const j = farthest((p) => Math.abs(cross(u, subtract(p, from[0]!))))
  const v = subtract(from[j]!, from[0]!)
  const area = cross(u, v)
  if (Math.abs(area) < 1e-6) return null
  const [p, q] = [subtract(to[i]!, to[0]!), subtract(to[j]!, to[0]!)]
  const a = (p.x * v.y - q.x * u.y) / area
  const c = (q.x * u.x - p.x * v.x) / area
  const b = (p.y * v.y - q.y * u.y) / area
  const d = (q.y * u.x - p.y * v.x) / area
  return [a, b, c, d, to[0]!.x - a * from[0]!.x - c * from[0]!.y, to[0]!.y - b * from[0]!.x - d * from[0]!.y]
}
