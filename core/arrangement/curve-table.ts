import { extremes } from '../geometry/bounds'
import type { Cubic } from '../geometry/cubic'
import { grownFloats } from '../geometry/grown'
import type { Vec } from '../geometry/point'
import type { SnapGrid } from './snap-grid'

/** The curves of an arrangement: as they came, and their control points in grid units for fast evaluation. */
export class CurveTable {
  readonly cubics: Cubic[] = []
  private readonly ids = new Map<number, number[]>()
  /** Eight numbers a curve: x and y of the four control points, in grid units. */
  private points = new Float64Array(256)

  /** 1 for each curve that runs along a straight line at uneven pace. */
  private straight = new Uint8Array(32)

  constructor(private readonly grid: SnapGrid) {}

  /** The number of a curve. Curves with the same control points have one number, whichever way they run; see `runsBack`. */
  idOf(c: Cubic): number {
    const { p0, p1, p2, p3 } = c
    const key = p0.x + p3.x + 3.1 * (p0.y + p3.y) + 7.3 * (p1.x + p2.x) + 11.9 * (p1.y + p2.y)
    const alike = this.ids.get(key)
    for (const id of alike ?? []) if (isSame(this.cubics[id]!, c) || isReverse(this.cubics[id]!, c)) return id
    const id = this.cubics.length
    this.cubics.push(c)
    if (alike) alike.push(id)
    else this.ids.set(key, [id])
    if (8 * id + 8 > this.points.length) this.points = grownFloats(this.points, this.points.length * 2)
    const { step, originX, originY } = this.grid
    const p = this.points
    const o = 8 * id
    p[o] = c.p0.x / step - originX
    p[o + 1] = c.p0.y / step - originY
    p[o + 2] = c.p1.x / step - originX
    p[o + 3] = c.p1.y / step - originY
    p[o + 4] = c.p2.x / step - originX
    p[o + 5] = c.p2.y / step - originY
    p[o + 6] = c.p3.x / step - originX
    p[o + 7] = c.p3.y / step - originY
    if (id >= this.straight.length) {
      const more = new Uint8Array(2 * this.straight.length)
      more.set(this.straight)
      this.straight = more
    }
    this.straight[id] = this.liesOnLine(o) ? 1 : 0
    return id
  }

  /** Whether `c`, which has the number `id`, runs against the curve that the number stands for. */
  runsBack(id: number, c: Cubic): boolean {
    return !isSame(this.cubics[id]!, c)
  }

  /** Point at `t` in grid units, not rounded, to out[0..1]. */
  point(id: number, t: number, out: Float64Array): void {
    const p = this.points
    const o = 8 * id
    const s = 1 - t
    const a = s * s * s
    const b = 3 * s * s * t
    const c = 3 * s * t * t
    const d = t * t * t
    out[0] = a * p[o]! + b * p[o + 2]! + c * p[o + 4]! + d * p[o + 6]!
    out[1] = a * p[o + 1]! + b * p[o + 3]! + c * p[o + 5]! + d * p[o + 7]!
  }

  /** Derivative at `t` in grid units, to out[2..3]. */
  derivative(id: number, t: number, out: Float64Array): void {
    const p = this.points
    const o = 8 * id
    const s = 1 - t
    const a = 3 * s * s
    const b = 6 * s * t
    const c = 3 * t * t
    out[2] = a * (p[o + 2]! - p[o]!) + b * (p[o + 4]! - p[o + 2]!) + c * (p[o + 6]! - p[o + 4]!)
    out[3] = a * (p[o + 3]! - p[o + 1]!) + b * (p[o + 5]! - p[o + 3]!) + c * (p[o + 7]! - p[o + 5]!)
  }

  /** Whether the control points at `o` lie on one line through the farthest of them, but not at thirds of the way. */
  private liesOnLine(o: number): boolean {
    const p = this.points
    let dx = 0
    let dy = 0
    let far = 0
    for (let i = 2; i < 8; i += 2) {
      const ex = p[o + i]! - p[o]!
      const ey = p[o + i + 1]! - p[o + 1]!
      if (ex * ex + ey * ey <= far) continue
      far = ex * ex + ey * ey
      dx = ex
      dy = ey
    }
    if (far === 0 || this.bend(o) <= STRAIGHT) return false
    const most = STRAIGHT * Math.sqrt(far)
    for (let i = 2; i < 8; i += 2)
      if (Math.abs(dx * (p[o + i + 1]! - p[o + 1]!) - dy * (p[o + i]! - p[o]!)) > most) return false
    return true
  }

  /** How far the inner control points lie from where an even pace along the chord would have them. */
  private bend(o: number): number {
    const p = this.points
    let most = 0
    for (let i = 0; i < 2; i++) {
      const from = p[o + i]!
      const to = p[o + 6 + i]!
      most = Math.max(
        most,
        Math.abs(p[o + 2 + i]! - (2 * from + to) / 3),
        Math.abs(p[o + 4 + i]! - (from + 2 * to) / 3),
      )
    }
    return most
  }

  /** Whether a curve runs along a straight line at uneven pace: its chords are exact wherever it does not turn back. */
  isStraight(id: number): boolean {
    return this.straight[id] === 1
  }

  /** The parameters between t0 and t1 at which a straight curve turns back, in that order. */
  turnsOf(id: number, t0: number, t1: number): number[] {
    const p = this.points
    const o = 8 * id
    const spread = (i: number): number =>
      Math.max(p[o + i]!, p[o + 2 + i]!, p[o + 4 + i]!, p[o + 6 + i]!) -
      Math.min(p[o + i]!, p[o + 2 + i]!, p[o + 4 + i]!, p[o + 6 + i]!)
    const along = spread(0) >= spread(1) ? 0 : 1
    const turns = extremes(p[o + along]!, p[o + 2 + along]!, p[o + 4 + along]!, p[o + 6 + along]!)
    return turns.filter((t) => t > Math.min(t0, t1) && t < Math.max(t0, t1)).sort((s, t) => (t0 < t1 ? s - t : t - s))
  }

  /** The parameter between t0 and t1 at which a straight curve, which does not turn back there, has come `share` of its way. */
  parameterAlong(id: number, t0: number, t1: number, share: number): number {
    this.point(id, t0, P)
    this.point(id, t1, Q)
    const [x, y] = [P[0]!, P[1]!]
    const [dx, dy] = [Q[0]! - x, Q[1]! - y]
    const wanted = share * (dx * dx + dy * dy)
    let low = t0
    let high = t1
    for (let i = 0; i < 50; i++) {
      const t = (low + high) / 2
      this.point(id, t, P)
      if ((P[0]! - x) * dx + (P[1]! - y) * dy < wanted) low = t
      else high = t
    }
    return (low + high) / 2
  }

  /** Length of the control polygon, grid units: no curve is longer than its own. */
  controlLength(id: number): number {
    const p = this.points
    const o = 8 * id
    let sum = 0
    for (let i = o; i < o + 6; i += 2) sum += Math.hypot(p[i + 2]! - p[i]!, p[i + 3]! - p[i + 1]!)
    return sum
  }

  /**
   * Bound on how far the curve between two parameters lies from its chord, grid units: |C''| dt^2 / 8, where C'' is
   * linear in t and so largest at an end.
   */
  sagitta(id: number, t0: number, t1: number): number {
    if (this.straight[id] === 1) return 0
    const p = this.points
    const o = 8 * id
    const ax = p[o]! - 2 * p[o + 2]! + p[o + 4]!
    const ay = p[o + 1]! - 2 * p[o + 3]! + p[o + 5]!
    const bx = p[o + 2]! - 2 * p[o + 4]! + p[o + 6]!
    const by = p[o + 3]! - 2 * p[o + 5]! + p[o + 7]!
    const ux = ax + (bx - ax) * t0
    const uy = ay + (by - ay) * t0
    const vx = ax + (bx - ax) * t1
    const vy = ay + (by - ay) * t1
    const dt = t1 - t0
    return 0.75 * Math.sqrt(Math.max(ux * ux + uy * uy, vx * vx + vy * vy)) * dt * dt
  }

  /**
   * Newton from (t, u) for a crossing of two curves. Writes the parameters and the point to out[0..3] as t, u, x, y;
   * false where it does not settle.
   */
  cross(a: number, t: number, b: number, u: number, out: Float64Array): boolean {
    for (let i = 0; i < 10; i++) {
      this.point(a, t, P)
      this.derivative(a, t, P)
      this.point(b, u, Q)
      this.derivative(b, u, Q)
      const gx = Q[0]! - P[0]!
      const gy = Q[1]! - P[1]!
      const det = P[2]! * Q[3]! - P[3]! * Q[2]!
      const sizes = Math.sqrt((P[2]! * P[2]! + P[3]! * P[3]!) * (Q[2]! * Q[2]! + Q[3]! * Q[3]!))
      if (!(Math.abs(det) > 1e-9 * sizes)) return false
      const dt = (gx * Q[3]! - gy * Q[2]!) / det
      const du = (gx * P[3]! - gy * P[2]!) / det
      t += dt
      u += du
      if (!(t > -0.25 && t < 1.25 && u > -0.25 && u < 1.25)) return false
      if (Math.abs(dt) < 1e-12 && Math.abs(du) < 1e-12) break
    }
    this.point(a, t, P)
    this.point(b, u, Q)
    if (Math.abs(P[0]! - Q[0]!) + Math.abs(P[1]! - Q[1]!) > 0.01) return false
    out[0] = t
    out[1] = u
    out[2] = (P[0]! + Q[0]!) / 2
    out[3] = (P[1]! + Q[1]!) / 2
    return true
  }
}

/** Grid units within which a curve counts as straight and its pace as even. */
const STRAIGHT = 0.05

const at = (p: Vec, q: Vec): boolean => p.x === q.x && p.y === q.y

const isSame = (a: Cubic, b: Cubic): boolean =>
  a === b || (at(a.p0, b.p0) && at(a.p1, b.p1) && at(a.p2, b.p2) && at(a.p3, b.p3))

const isReverse = (a: Cubic, b: Cubic): boolean => at(a.p0, b.p3) && at(a.p1, b.p2) && at(a.p2, b.p1) && at(a.p3, b.p0)

const P = new Float64Array(4)
const Q = new Float64Array(4)
