import type { Cubic } from '../geometry/cubic'
import { pointAt, straight } from '../geometry/cubic'
import type { Vec } from '../geometry/point'

/** The part of a cubic from t0 to t1; it runs backwards when t0 > t1. */
export interface Arc {
  curve: Cubic
  t0: number
  t1: number
}

/** Arcs that follow one another and close. */
export type Loop = Arc[]

/** All of a curve, from its start to its end. */
export const whole = (curve: Cubic): Arc => ({ curve, t0: 0, t1: 1 })
/** All of a curve, from its end to its start. */
export const backwards = (curve: Cubic): Arc => ({ curve, t0: 1, t1: 0 })
/** The straight arc from `a` to `b`, px. */
export const segment = (a: Vec, b: Vec): Arc => whole(straight(a, b))
/** Straight arcs from point to point, px; one fewer than points. */
export const polyline = (...points: Vec[]): Arc[] => points.slice(1).map((p, i) => segment(points[i]!, p))
/** The closed loop of straight arcs through some points, px; empty for none. */
export const loopOfPoints = (points: readonly Vec[]): Loop => (points.length ? polyline(...points, points[0]!) : [])
/** A loop travelled the other way. */
export const reverseLoop = (loop: Loop): Loop => loop.map((a) => ({ curve: a.curve, t0: a.t1, t1: a.t0 })).reverse()

/** Arcs along `curves` from the last to the first, backwards. */
export const allBackwards = (curves: readonly Cubic[]): Arc[] => curves.map(backwards).reverse()

/** A piece that was cut out of a curve: to others a cubic like any. */
class CutPiece implements Cubic {
  readonly p0: Vec
  readonly p1: Vec
  readonly p2: Vec
  readonly p3: Vec
  readonly #arc: Arc

  constructor({ p0, p1, p2, p3 }: Cubic, arc: Arc) {
    this.p0 = p0
    this.p1 = p1
    this.p2 = p2
    this.p3 = p3
    this.#arc = arc
  }

  /** The arc that a piece stands for; null for a cubic that was not cut. */
  static arcOf(c: Cubic): Arc | null {
    return #arc in c ? c.#arc : null
  }
}

/** A piece that remembers of which curve it was cut: where it borders on that curve the two are known to be one. */
export const cutFrom = (piece: Cubic, arc: Arc): Cubic => new CutPiece(piece, arc)

/** The arc that a cubic of a contour is: of the curve that it was cut from, else all of itself. */
export const arcOf = (c: Cubic): Arc => CutPiece.arcOf(c) ?? whole(c)

/** Where an arc begins, px. */
export const startOf = ({ curve, t0 }: Arc): Vec => (t0 === 0 ? curve.p0 : t0 === 1 ? curve.p3 : pointAt(curve, t0))
/** Where an arc ends, px. */
export const endOf = ({ curve, t1 }: Arc): Vec => (t1 === 1 ? curve.p3 : t1 === 0 ? curve.p0 : pointAt(curve, t1))

/** A contour as a loop. Ends of pieces were moved onto each other when they were cut: what that left open is bridged. */
export function loopOf(contour: readonly Cubic[]): Loop {
  const arcs = contour.map(arcOf)
  if (arcs.every((a, i) => a.curve === contour[i])) return arcs
  return arcs.flatMap((arc, i) => {
    const next = arcs[(i + 1) % arcs.length]!
    const [from, to] = [endOf(arc), startOf(next)]
    return from.x === to.x && from.y === to.y ? [arc] : [arc, segment(from, to)]
  })
}
