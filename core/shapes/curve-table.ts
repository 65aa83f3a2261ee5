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

const at = (p: Vec, q: Vec): boolean => p.x === q.x && p.y === q.y

const isSame = (a: Cubic, b: Cubic): boolean => a === b || (at(a.p0, b.p0) && at(a.p1, b.p1) && at(a.p2, b.p2) && at(a.p3, b.p3))

const isReverse = (a: Cubic, b: Cubic): boolean => at(a.p0, b.p3) && at(a.p1, b.p2) && at(a.p2, b.p1) && at(a.p3, b.p0)

const P = new Float64Array(4)
const Q = new Float64Array(4)
