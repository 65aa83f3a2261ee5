import type { Cubic } from '../geometry/cubic'
import { nearestFrom, pointAt } from '../geometry/cubic'
import type { Vec } from '../geometry/point'
import { distance } from '../geometry/point'
import type { PlanarMap } from './planar-map'

/** A stretch of a curve, in the direction of travel, that is being cut back. */
export interface Cut {
  /** Number of the curve in the arrangement. */
  id: number
  curve: Cubic
  t0: number
  t1: number
}

export const isEnd = (t: number): boolean => t === 0 || t === 1
export const endOf = (c: Cubic, t: number): Vec => (t === 0 ? c.p0 : c.p3)

/**
 * Spurs: where a side runs out into a tip finer than the grid, its last stretch and the first of the side that leads back
 * cancel each other. They are joined again at their common end.
 */
export class Spurs {
  /** The edges that cancelled, by their curve. */
  private readonly cancelled = new Map<number, number[]>()

  constructor(private readonly m: PlanarMap) {
    const { edges } = m.arrangement
    for (let e = 0; e < edges.count; e++) {
      if (!edges.alive[e] || edges.owners[e] !== 0) continue
      const of = this.cancelled.get(edges.curve[e]!)
      if (of) of.push(e)
      else this.cancelled.set(edges.curve[e]!, [e])
    }
  }

  /** Leads two cuts on to the end that their curves share, `near` px apart all the way; null where they do not. */
  rejoin(a: Cut, b: Cut, near: number): Vec | null {
    if (isEnd(a.t1) || isEnd(b.t0)) return null
    const aEnd = a.t1 > a.t0 ? 1 : 0
    const bEnd = b.t1 > b.t0 ? 0 : 1
    const tip = endOf(a.curve, aEnd)
    if (distance(tip, endOf(b.curve, bEnd)) > 0) return null
    for (const share of [0.25, 0.5, 0.75]) {
      const p = pointAt(a.curve, a.t1 + (aEnd - a.t1) * share)
      const guess = b.t0 + (bEnd - b.t0) * share
      const hit = nearestFrom(b.curve, p, guess)
      if (hit.distance > near || (hit.t - b.t0) * (hit.t - bEnd) > 0) return null
    }
    if (!this.isFree(a.id, a.t1, aEnd) || !this.isFree(b.id, b.t0, bEnd)) return null
    a.t1 = aEnd
    b.t0 = bEnd
    return tip
  }

  /** Whether what cancelled of a curve beyond `from` and up to its end at `to` meets no boundary. */
  private isFree(curve: number, from: number, to: number): boolean {
    const { edges } = this.m.arrangement
    const { vertices } = this.m.chains
    const isBeyond = (t: number): boolean => (to > from ? t > from : t < from)
    for (const e of this.cancelled.get(curve) ?? []) {
      if (isBeyond(edges.ta[e]!) && vertices.has(edges.ax[e]!, edges.ay[e]!)) return false
      if (isBeyond(edges.tb[e]!) && vertices.has(edges.bx[e]!, edges.by[e]!)) return false
    }
    return true
  }
}
