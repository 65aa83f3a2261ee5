import type { Cubic } from './cubic'
import { pointAt } from './cubic'
import type { Vec } from './point'

export interface Box {
  minX: number
  minY: number
  maxX: number
  maxY: number
}

/** The box that holds nothing: united with another it is that other. */
export const emptyBox = (): Box => ({ minX: Infinity, minY: Infinity, maxX: -Infinity, maxY: -Infinity })
/** Whether one box lies within another, edges included. */
export const holdsBox = (a: Box, b: Box): boolean =>
  a.minX <= b.minX && a.minY <= b.minY && a.maxX >= b.maxX && a.maxY >= b.maxY

/** Whether a box holds no point. */
export const isEmptyBox = (b: Box): boolean => !(b.minX <= b.maxX && b.minY <= b.maxY)

/** Grows `b` in place to hold (x, y). */
export function include(b: Box, x: number, y: number): void {
  if (x < b.minX) b.minX = x
  if (x > b.maxX) b.maxX = x
  if (y < b.minY) b.minY = y
  if (y > b.maxY) b.maxY = y
}

/** The least box that holds two others. */
export function uniteBoxes(a: Box, b: Box): Box {
  return {
    minX: Math.min(a.minX, b.minX),
    minY: Math.min(a.minY, b.minY),
    maxX: Math.max(a.maxX, b.maxX),
    maxY: Math.max(a.maxY, b.maxY),
  }
}

/** A box grown by `by` on every side. */
export const grown = (b: Box, by: number): Box => ({
  minX: b.minX - by,
  minY: b.minY - by,
  maxX: b.maxX + by,
  maxY: b.maxY + by,
})

/** Whether two boxes have a point in common, edges included. */
export const overlap = (a: Box, b: Box): boolean =>
  a.minX <= b.maxX && b.minX <= a.maxX && a.minY <= b.maxY && b.minY <= a.maxY

/** Whether a point lies in a box, edges included. */
export const isWithin = ({ x, y }: Vec, { minX, minY, maxX, maxY }: Box): boolean =>
  x >= minX && x <= maxX && y >= minY && y <= maxY

/** The least box that holds some points; the empty box for none. */
export function boxOfPoints(points: Iterable<Vec>): Box {
  const b = emptyBox()
  for (const p of points) include(b, p.x, p.y)
  return b
}

/** Exact bounds of one cubic: ends and the inner extremes of x and y. */
export function boxOfCubic(c: Cubic): Box {
  const b = emptyBox()
  includeCubic(b, c)
  return b
}

/** The least box that holds some curves, their extremes included. */
export function boxOfCubics(cubics: Iterable<Cubic>): Box {
  const b = emptyBox()
  for (const c of cubics) includeCubic(b, c)
  return b
}

/** Grows `b` in place to hold a cubic. It leaves the box of its ends only where a handle does. */
function includeCubic(b: Box, c: Cubic): void {
  const { p0, p1, p2, p3 } = c
  include(b, p0.x, p0.y)
  include(b, p3.x, p3.y)
  if (Math.min(p1.x, p2.x) < b.minX || Math.max(p1.x, p2.x) > b.maxX)
    for (const t of extremes(p0.x, p1.x, p2.x, p3.x)) includeAt(b, c, t)
  if (Math.min(p1.y, p2.y) < b.minY || Math.max(p1.y, p2.y) > b.maxY)
    for (const t of extremes(p0.y, p1.y, p2.y, p3.y)) includeAt(b, c, t)
}

function includeAt(b: Box, c: Cubic, t: number): void {
  const { x, y } = pointAt(c, t)
  include(b, x, y)
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
