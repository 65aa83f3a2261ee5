import type { Cubic } from './cubic'
import { pointAt } from './cubic'
import type { Vec } from './point'

export interface Box {
  minX: number
  minY: number
  maxX: number
  maxY: number
}

export const emptyBox = (): Box => ({ minX: Infinity, minY: Infinity, maxX: -Infinity, maxY: -Infinity })
export const isEmptyBox = (b: Box): boolean => !(b.minX <= b.maxX && b.minY <= b.maxY)

/** Grows `b` in place to hold (x, y). */
export function include(b: Box, x: number, y: number): void {
  if (x < b.minX) b.minX = x
  if (x > b.maxX) b.maxX = x
  if (y < b.minY) b.minY = y
  if (y > b.maxY) b.maxY = y
}

export function uniteBoxes(a: Box, b: Box): Box {
  return {
    minX: Math.min(a.minX, b.minX),
    minY: Math.min(a.minY, b.minY),
    maxX: Math.max(a.maxX, b.maxX),
    maxY: Math.max(a.maxY, b.maxY),
  }
}

/** A box grown by `by` on every side. */
export const grown = (b: Box, by: number): Box => ({ minX: b.minX - by, minY: b.minY - by, maxX: b.maxX + by, maxY: b.maxY + by })

export const overlap = (a: Box, b: Box): boolean =>
  a.minX <= b.maxX && b.minX <= a.maxX && a.minY <= b.maxY && b.minY <= a.maxY

export function boxOfPoints(points: Iterable<Vec>): Box {
  const b = emptyBox()
  for (const p of points) include(b, p.x, p.y)
  return b
}

/** Exact bounds of one cubic: ends and the inner extremes of x and y. */
export function boxOfCubic(c: Cubic): Box {
  const b = boxOfPoints([c.p0, c.p3])
  const roots = [
    ...extremes(c.p0.x, c.p1.x, c.p2.x, c.p3.x),
    ...extremes(c.p0.y, c.p1.y, c.p2.y, c.p3.y),
  ]
  for (const t of roots) {
    const p = pointAt(c, t)
    include(b, p.x, p.y)
  }
  return b
}

export function boxOfCubics(cubics: Iterable<Cubic>): Box {
  let b = emptyBox()
  for (const c of cubics) b = uniteBoxes(b, boxOfCubic(c))
  return b
}

/** Parameters in (0, 1) at which a cubic's coordinate has zero derivative. */
export function extremes(a: number, b: number, c: number, d: number): number[] {
  const qa = -a + 3 * b - 3 * c + d
  const qb = 2 * (a - 2 * b + c)
  const qc = b - a
  const roots: number[] = []
  if (Math.abs(qa) < 1e-12) {
    if (Math.abs(qb) > 1e-12) roots.push(-qc / qb)
  } else {
    const disc = qb * qb - 4 * qa * qc
    if (disc >= 0) {
      const r = Math.sqrt(disc)
      roots.push((-qb + r) / (2 * qa), (-qb - r) / (2 * qa))
    }
  }
  return roots.filter((t) => t > 0 && t < 1)
}
