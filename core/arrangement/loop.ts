import type { Cubic } from '../geometry/cubic'
import { straight } from '../geometry/cubic'
import type { Vec } from '../geometry/point'

/** The part of a cubic from t0 to t1; it runs backwards when t0 > t1. */
export interface Arc {
  curve: Cubic
  t0: number
  t1: number
}

/** Arcs that follow one another and close. */
export type Loop = Arc[]

export const whole = (curve: Cubic): Arc => ({ curve, t0: 0, t1: 1 })
export const backwards = (curve: Cubic): Arc => ({ curve, t0: 1, t1: 0 })
export const segment = (a: Vec, b: Vec): Arc => whole(straight(a, b))
export const polyline = (...points: Vec[]): Arc[] => points.slice(1).map((p, i) => segment(points[i]!, p))
export const reverseLoop = (loop: Loop): Loop => loop.map((a) => ({ curve: a.curve, t0: a.t1, t1: a.t0 })).reverse()

/** Arcs along `curves` from the last to the first, backwards. */
export const allBackwards = (curves: readonly Cubic[]): Arc[] => curves.map(backwards).reverse()
