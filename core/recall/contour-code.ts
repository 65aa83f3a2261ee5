import { arcOf, cutFrom } from '../arrangement/loop'
import type { Cubic } from '../geometry/cubic'
import { cubic } from '../geometry/cubic'
import type { Vec } from '../geometry/point'
import { remembered } from '../remembered'

/** Numbers a cubic takes: its control points, the curve that it was cut from or -1, and from where to where. */
const CUBIC = 11
/** Numbers a curve takes. */
const CURVE = 8

/**
 * Contours as numbers, each exactly as it is: how many curves they were cut from, and these; how many contours, and of
 * each how many cubics, and these. Equal contours give equal numbers.
 */
export function encodedContours(contours: readonly (readonly Cubic[])[]): Float64Array {
  const curves: Cubic[] = []
  const numberOf = numbered(curves)
  const cut = contours.map((contour) =>
    contour.map((c) => {
      const { curve, t0, t1 } = arcOf(c)
      return { c, curve: curve === c ? -1 : numberOf(curve), t0, t1 }
    }),
  )
  const size = cut.reduce((n, contour) => n + 1 + CUBIC * contour.length, 2 + CURVE * curves.length)
  const out = new Float64Array(size)
  let at = 0
  out[at++] = curves.length
  for (const curve of curves) at = writeCubic(out, at, curve)
  out[at++] = cut.length
  for (const contour of cut) {
    out[at++] = contour.length
    for (const { c, curve, t0, t1 } of contour) {
      at = writeCubic(out, at, c)
      out[at++] = curve
      out[at++] = t0
      out[at++] = t1
    }
  }
  return out
}

/** As `encodedContours`, once for as long as they are the same. */
export const codeOfContours = remembered(encodedContours)

/** The contours of `encodedContours`. */
export function decodedContours(code: Float64Array): Cubic[][] {
  let at = 1
  const curves = Array.from({ length: code[0]! }, (_, i) => readCubic(code, 1 + CURVE * i))
  at += CURVE * curves.length
  const contours: Cubic[][] = []
  for (let left = code[at++]!; left > 0; left--) {
    const n = code[at++]!
    const contour = new Array<Cubic>(n)
    for (let i = 0; i < n; i++, at += CUBIC) {
      const own = readCubic(code, at)
      const curve = curves[code[at + 8]!]
      contour[i] = curve ? cutFrom(own, { curve, t0: code[at + 9]!, t1: code[at + 10]! }) : own
    }
    contours.push(contour)
  }
  return contours
}

/** Numbers curves in the order in which they are first met, the same curve once. */
function numbered(curves: Cubic[]): (curve: Cubic) => number {
  const numbers = new Map<Cubic, number>()
  const values = new Map<number, number[]>()
  return (curve) => {
    const known = numbers.get(curve)
    if (known !== undefined) return known
    const { p0, p1, p2, p3 } = curve
    const sum = p0.x + 2.3 * p0.y + 3.1 * p1.x + 4.7 * p1.y + 5.9 * p2.x + 6.1 * p2.y + 7.3 * p3.x + 8.7 * p3.y
    const alike = values.get(sum) ?? []
    let n = alike.find((i) => isSameCurve(curves[i]!, curve))
    if (n === undefined) {
      n = curves.push(curve) - 1
      values.set(sum, [...alike, n])
    }
    numbers.set(curve, n)
    return n
  }
}

const isAt = (p: Vec, q: Vec): boolean => p.x === q.x && p.y === q.y

/** Whether two cubics have the same control points. */
export const isSameCurve = (a: Cubic, b: Cubic): boolean =>
  a === b || (isAt(a.p0, b.p0) && isAt(a.p1, b.p1) && isAt(a.p2, b.p2) && isAt(a.p3, b.p3))

function writeCubic(out: Float64Array, at: number, { p0, p1, p2, p3 }: Cubic): number {
  for (const p of [p0, p1, p2, p3]) {
    out[at++] = p.x
    out[at++] = p.y
  }
  return at
}

function readCubic(code: Float64Array, at: number): Cubic {
  const p = (i: number) => ({ x: code[at + i]!, y: code[at + i + 1]! })
  return cubic(p(0), p(2), p(4), p(6))
}
