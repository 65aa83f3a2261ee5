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

/** Whether a parameter is that of an end of its curve. */
export const isEnd = (t: number): boolean => t === 0 || t === 1
/** The end of a cubic at t = 0 or 1. */
export const endOf = (c: Cubic, t: number): Vec => (t === 0 ? c.p0 : c.p3)

/** Two curves are a spur's own; a third is another. */
const MOST = 3

/**
 * Spurs: where a side runs out into a tip finer than the grid, its last stretch and the first of the side that leads back
 * cancel each other. They are joined again at their common end.
 */
export class Spurs {
  /** The edges that cancelled, by their curve. */
  private readonly cancelled = new Map<number, number[]>()
  private curvesAt: Int32Array | null = null

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
    if (!this.isFree(a.id, a.t1, aEnd, b.id) || !this.isFree(b.id, b.t0, bEnd, a.id)) return null
    a.t1 = aEnd
    b.t0 = bEnd
    return tip
  }

  /** Whether what cancelled of a curve beyond `from` and up to its end at `to` meets no boundary, but of that and `mate`. */
  private isFree(curve: number, from: number, to: number, mate: number): boolean {
    const { edges } = this.m.arrangement
    const isOther = (t: number, x: number, y: number): boolean => {
      if (to > from ? t <= from : t >= from) return false
      const v = this.m.chains.vertices.find(x, y)
      return (
        v >= 0 &&
        [...this.meeting().subarray(MOST * v, MOST * v + MOST)].some((c) => c >= 0 && c !== curve && c !== mate)
      )
    }
    for (const e of this.cancelled.get(curve) ?? []) {
      if (isOther(edges.ta[e]!, edges.ax[e]!, edges.ay[e]!) || isOther(edges.tb[e]!, edges.bx[e]!, edges.by[e]!))
        return false
    }
    return true
  }

  /** Numbers of the curves whose edges are boundaries at each vertex, MOST at most; -1 where there are fewer. */
  private meeting(): Int32Array {
    if (this.curvesAt) return this.curvesAt
    const { chains, arrangement } = this.m
    const at = new Int32Array(MOST * chains.vertices.count).fill(-1)
    for (let i = 0; i < chains.start[chains.count]!; i++) {
      const e = chains.edges[i]!
      const curve = arrangement.edges.curve[e]!
      for (const v of [chains.from[e]!, chains.to[e]!]) {
        let k = MOST * v
        while (k < MOST * v + MOST && at[k]! >= 0 && at[k] !== curve) k++
        if (k < MOST * v + MOST) at[k] = curve
      }
    }
    return (this.curvesAt = at)
  }
}
