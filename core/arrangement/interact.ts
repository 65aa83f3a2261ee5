import type { CurveTable } from './curve-table'
import type { EdgeStore } from './edge-store'

/** What two edges do to each other. */
export const enum Meeting {
  /** They keep clear of each other, or meet only at a shared end. */
  None,
  /** They are the same stretch. */
  Same,
  /** One or both must be split; where is in `Split`. */
  Split,
}

/** A place at which an edge is to be split: the grid point and the parameter of its curve. */
export interface Split {
  on: boolean
  x: number
  y: number
  t: number
  /** The curves truly meet here: not a mere refinement of the chords. */
  met: boolean
  /** At a vertex that lies on the edge as far as the grid can tell, rather than where curves cross. */
  touch: boolean
}

const noSplit = (): Split => ({ on: false, x: 0, y: 0, t: 0, met: false, touch: false })

/** Rounding moves a grid point by less than this, in grid units. */
const ROUNDING = 0.75
const point = new Float64Array(4)
const hit = new Float64Array(4)

/** Tells of edges of a store, two at a time, what they do to each other. */
export class Meetings {
  /** Where the two edges last looked at are to be split. */
  readonly splitP = noSplit()
  readonly splitQ = noSplit()

  constructor(
    private readonly edges: EdgeStore,
    private readonly curves: CurveTable,
  ) {}

  /**
   * How edges p and q, whose boxes touch, meet. Chords that are farther apart than their curves can reach keep clear; chords that cross beyond
   * doubt are split where their curves cross; chords in doubt are refined, and once a chord lies within a grid unit of its
   * curve it is taken at its word: exact integer tests decide, and a vertex within half a unit of an edge splits it (snap
   * rounding: J. D. Hobby, Practical segment intersection with finite precision output, 1999).
   */
  meet(p: number, q: number): Meeting {
    const { edges: s } = this
    const pax = s.ax[p]!
    const pay = s.ay[p]!
    const pbx = s.bx[p]!
    const pby = s.by[p]!
    const qax = s.ax[q]!
    const qay = s.ay[q]!
    const qbx = s.bx[q]!
    const qby = s.by[q]!
    this.splitP.on = this.splitQ.on = false
    if (s.curve[p] === s.curve[q]) {
      const along = this.alongOneCurve(p, q)
      if (along !== Meeting.None) return along
    }
    const aa = pax === qax && pay === qay
    const ab = pax === qbx && pay === qby
    const ba = pbx === qax && pby === qay
    const bb = pbx === qbx && pby === qby
    if ((aa && bb) || (ab && ba)) return s.sag[p] === 0 && s.sag[q] === 0 ? Meeting.Same : this.refine(p, q)
    if (aa || ab || ba || bb) return this.fromOneEnd(p, aa || ab, q, aa || ba)
    return this.apart(p, q)
  }

  /** Edges that share one end: the first of p or its last, and so of q. */
  private fromOneEnd(p: number, firstOfP: boolean, q: number, firstOfQ: boolean): Meeting {
    const { edges: s } = this
    const px = firstOfP ? s.bx[p]! : s.ax[p]!
    const py = firstOfP ? s.by[p]! : s.ay[p]!
    const qx = firstOfQ ? s.bx[q]! : s.ax[q]!
    const qy = firstOfQ ? s.by[q]! : s.ay[q]!
    const vx = firstOfP ? s.ax[p]! : s.bx[p]!
    const vy = firstOfP ? s.ay[p]! : s.by[p]!
    const dx = px - vx
    const dy = py - vy
    const ex = qx - vx
    const ey = qy - vy
    const dot = dx * ex + dy * ey
    if (s.sag[p] === 0 && s.sag[q] === 0) {
      if (dot <= 0) return Meeting.None
      const cross = Math.abs(dx * ey - dy * ex)
      const pp = dx * dx + dy * dy
      const qq = ex * ex + ey * ey
      if (dot < pp && cross <= 0.5 * (Math.abs(dx) + Math.abs(dy))) return this.cutFlat(p, qx, qy, this.splitP)
      if (dot < qq && cross <= 0.5 * (Math.abs(ex) + Math.abs(ey))) return this.cutFlat(q, px, py, this.splitQ)
      return Meeting.None
    }
    // A curve leaves its chord by at most 4 sagitta t (1 - t): seen from the shared end, by this angle.
    const pl = Math.sqrt(dx * dx + dy * dy)
    const ql = Math.sqrt(ex * ex + ey * ey)
    const spread = (4 * s.sag[p]! + ROUNDING) / pl + (4 * s.sag[q]! + ROUNDING) / ql
    const sine = dot <= 0 ? 1 : Math.abs(dx * ey - dy * ex) / (pl * ql)
    return spread < sine ? Meeting.None : this.refine(p, q)
  }

  private cutFlat(e: number, x: number, y: number, split: Split): Meeting {
    plan(split, x, y, this.parameterAt(e, x, y), true)
    split.touch = true
    return Meeting.Split
  }

  /** The parameter at the foot of (x, y) on the chord of `e`. */
  private parameterAt(e: number, x: number, y: number): number {
    const { edges: s, curves } = this
    const dx = s.bx[e]! - s.ax[e]!
    const dy = s.by[e]! - s.ay[e]!
    const u = ((x - s.ax[e]!) * dx + (y - s.ay[e]!) * dy) / (dx * dx + dy * dy)
    if (curves.isStraight(s.curve[e]!))
      return curves.parameterAlong(s.curve[e]!, s.ta[e]!, s.tb[e]!, Math.min(1, Math.max(0, u)))
    return s.ta[e]! + (s.tb[e]! - s.ta[e]!) * Math.min(1, Math.max(0, u))
  }

  /** Plans a split in the middle of the edge whose curve leaves its chord the most. */
  private refine(p: number, q: number): Meeting {
    const { edges: s } = this
    const e = s.sag[p]! >= s.sag[q]! ? p : q
    if (this.planHalves(e, e === p ? this.splitP : this.splitQ)) return Meeting.Split
    // The curve stays at the ends of its chord: nothing lies between.
    s.sag[e] = 0
    return this.meet(p, q)
  }

  /** Plans a split of an edge in its middle; false where no grid point lies between its ends. */
  planHalves(e: number, split: Split): boolean {
    const { edges: s, curves } = this
    let t0 = s.ta[e]!
    let t1 = s.tb[e]!
    for (let i = 0; i < 48; i++) {
      const t = (t0 + t1) / 2
      curves.point(s.curve[e]!, t, point)
      const x = Math.round(point[0]!)
      const y = Math.round(point[1]!)
      if (x === s.ax[e] && y === s.ay[e]) t0 = t
      else if (x === s.bx[e] && y === s.by[e]) t1 = t
      else return plan(split, x, y, t, false)
    }
    return false
  }

  /** Edges that share no end. */
  private apart(p: number, q: number): Meeting {
    const { edges: s, curves } = this
    const pax = s.ax[p]!
    const pay = s.ay[p]!
    const pdx = s.bx[p]! - pax
    const pdy = s.by[p]! - pay
    const qax = s.ax[q]!
    const qay = s.ay[q]!
    const qdx = s.bx[q]! - qax
    const qdy = s.by[q]! - qay
    // Exact for grid coordinates: twice the areas of the triangles that each edge makes with the other's ends.
    const oa = pdx * (qay - pay) - pdy * (qax - pax)
    const ob = pdx * (s.by[q]! - pay) - pdy * (s.bx[q]! - pax)
    const oc = qdx * (pay - qay) - qdy * (pax - qax)
    const od = qdx * (s.by[p]! - qay) - qdy * (s.bx[p]! - qax)
    if (s.sag[p] === 0 && s.sag[q] === 0) return this.flat(p, q, oa, ob, oc, od)
    const room = s.sag[p]! + s.sag[q]! + 2 * ROUNDING
    const pl = Math.sqrt(pdx * pdx + pdy * pdy) * room
    if ((oa > pl && ob > pl) || (oa < -pl && ob < -pl)) return Meeting.None
    const ql = Math.sqrt(qdx * qdx + qdy * qdy) * room
    if ((oc > ql && od > ql) || (oc < -ql && od < -ql)) return Meeting.None
    const crossing = oa > 0 !== ob > 0 && oc > 0 !== od > 0
    if (!crossing && gap(s, p, q) > room) return Meeting.None
    if (!crossing || Math.abs(oa) <= pl || Math.abs(ob) <= pl || Math.abs(oc) <= ql || Math.abs(od) <= ql)
      return this.refine(p, q)
    const u = oc / (oc - od)
    const v = oa / (oa - ob)
    const t = s.ta[p]! + (s.tb[p]! - s.ta[p]!) * u
    const w = s.ta[q]! + (s.tb[q]! - s.ta[q]!) * v
    if (!curves.cross(s.curve[p]!, t, s.curve[q]!, w, hit)) return this.refine(p, q)
    if (!within(hit[0]!, s.ta[p]!, s.tb[p]!) || !within(hit[1]!, s.ta[q]!, s.tb[q]!)) return this.refine(p, q)
    const x = Math.round(hit[2]!)
    const y = Math.round(hit[3]!)
    if (isEnd(s, p, x, y) || isEnd(s, q, x, y)) return this.refine(p, q)
    plan(this.splitP, x, y, hit[0]!, true)
    plan(this.splitQ, x, y, hit[1]!, true)
    return Meeting.Split
  }

  /** Flat edges that share no end, by exact tests on their four triangles. */
  private flat(p: number, q: number, oa: number, ob: number, oc: number, od: number): Meeting {
    const { edges: s } = this
    const hotP = 0.5 * (Math.abs(s.bx[p]! - s.ax[p]!) + Math.abs(s.by[p]! - s.ay[p]!))
    const hotQ = 0.5 * (Math.abs(s.bx[q]! - s.ax[q]!) + Math.abs(s.by[q]! - s.ay[q]!))
    if ((oa > hotP && ob > hotP) || (oa < -hotP && ob < -hotP)) return Meeting.None
    if ((oc > hotQ && od > hotQ) || (oc < -hotQ && od < -hotQ)) return Meeting.None
    if (Math.abs(oa) <= hotP && foot(s, p, s.ax[q]!, s.ay[q]!)) return this.cutFlat(p, s.ax[q]!, s.ay[q]!, this.splitP)
    if (Math.abs(ob) <= hotP && foot(s, p, s.bx[q]!, s.by[q]!)) return this.cutFlat(p, s.bx[q]!, s.by[q]!, this.splitP)
    if (Math.abs(oc) <= hotQ && foot(s, q, s.ax[p]!, s.ay[p]!)) return this.cutFlat(q, s.ax[p]!, s.ay[p]!, this.splitQ)
    if (Math.abs(od) <= hotQ && foot(s, q, s.bx[p]!, s.by[p]!)) return this.cutFlat(q, s.bx[p]!, s.by[p]!, this.splitQ)
    if (oa > 0 === ob > 0 || oc > 0 === od > 0) return Meeting.None
    const u = oc / (oc - od)
    const x = Math.round(s.ax[p]! + (s.bx[p]! - s.ax[p]!) * u)
    const y = Math.round(s.ay[p]! + (s.by[p]! - s.ay[p]!) * u)
    if (!isEnd(s, p, x, y)) plan(this.splitP, x, y, this.parameterAt(p, x, y), true)
    if (!isEnd(s, q, x, y)) plan(this.splitQ, x, y, this.parameterAt(q, x, y), true)
    return this.splitP.on || this.splitQ.on ? Meeting.Split : Meeting.None
  }

  /** Two stretches of one curve that overlap are cut to the same ends, exactly. */
  private alongOneCurve(p: number, q: number): Meeting {
    const { edges: s } = this
    const p0 = Math.min(s.ta[p]!, s.tb[p]!)
    const p1 = Math.max(s.ta[p]!, s.tb[p]!)
    const q0 = Math.min(s.ta[q]!, s.tb[q]!)
    const q1 = Math.max(s.ta[q]!, s.tb[q]!)
    if (Math.min(p1, q1) - Math.max(p0, q0) <= 0) return Meeting.None
    if (p0 === q0 && p1 === q1) return isSamePair(s, p, q) ? Meeting.Same : Meeting.None
    if (cutAtEndOf(s, p, q, this.splitP)) return Meeting.Split
    if (cutAtEndOf(s, q, p, this.splitQ)) return Meeting.Split
    return Meeting.None
  }
}

function isSamePair(s: EdgeStore, p: number, q: number): boolean {
  const forth = s.ax[p] === s.ax[q] && s.ay[p] === s.ay[q] && s.bx[p] === s.bx[q] && s.by[p] === s.by[q]
  return forth || (s.ax[p] === s.bx[q] && s.ay[p] === s.by[q] && s.bx[p] === s.ax[q] && s.by[p] === s.ay[q])
}

/** Plans a split of `e` at an end of `f`, both on one curve, where that end lies within `e`. */
function cutAtEndOf(s: EdgeStore, e: number, f: number, split: Split): boolean {
  const low = Math.min(s.ta[e]!, s.tb[e]!)
  const high = Math.max(s.ta[e]!, s.tb[e]!)
  for (let k = 0; k < 2; k++) {
    const t = k ? s.tb[f]! : s.ta[f]!
    const x = k ? s.bx[f]! : s.ax[f]!
    const y = k ? s.by[f]! : s.ay[f]!
    if (t > low && t < high && !isEnd(s, e, x, y)) return plan(split, x, y, t, true)
  }
  return false
}

const isEnd = (s: EdgeStore, e: number, x: number, y: number): boolean =>
  (x === s.ax[e] && y === s.ay[e]) || (x === s.bx[e] && y === s.by[e])

function plan(split: Split, x: number, y: number, t: number, met: boolean): boolean {
  split.on = true
  split.x = x
  split.y = y
  split.t = t
  split.met = met
  split.touch = false
  return true
}

const within = (t: number, a: number, b: number): boolean => (a < b ? t > a && t < b : t > b && t < a)

/** Distance between two edges that do not cross, grid units. */
function gap(s: EdgeStore, p: number, q: number): number {
  return Math.sqrt(
    Math.min(
      fromEdge(s, p, s.ax[q]!, s.ay[q]!),
      fromEdge(s, p, s.bx[q]!, s.by[q]!),
      fromEdge(s, q, s.ax[p]!, s.ay[p]!),
      fromEdge(s, q, s.bx[p]!, s.by[p]!),
    ),
  )
}

/** Squared distance from a point to an edge. */
function fromEdge(s: EdgeStore, e: number, x: number, y: number): number {
  const dx = s.bx[e]! - s.ax[e]!
  const dy = s.by[e]! - s.ay[e]!
  const wx = x - s.ax[e]!
  const wy = y - s.ay[e]!
  const u = Math.min(1, Math.max(0, (wx * dx + wy * dy) / (dx * dx + dy * dy)))
  const ox = wx - dx * u
  const oy = wy - dy * u
  return ox * ox + oy * oy
}

/** Whether (x, y) lies strictly between the ends of `e`, along it. */
function foot(s: EdgeStore, e: number, x: number, y: number): boolean {
  const dx = s.bx[e]! - s.ax[e]!
  const dy = s.by[e]! - s.ay[e]!
  const dot = (x - s.ax[e]!) * dx + (y - s.ay[e]!) * dy
  return dot > 0 && dot < dx * dx + dy * dy
}
