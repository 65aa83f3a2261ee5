import type { ArcLength } from '../geometry/arc-length'
import type { Cubic } from '../geometry/cubic'
import type { Vec } from '../geometry/point'
import { lastUpTo } from '../geometry/search'
import type { LineWidth } from '../weight/half-widths'
import { SAME_PLACE } from '../weight/profile'
import type { Loop } from '../arrangement/loop'
import { whole } from '../arrangement/loop'
import { arc as circleArc } from './arc'
import { Centreline } from './centreline'
import type { Part } from './folds'
import type { Rib } from './rib'
import type { RibField, SideSign } from './ribs'
import { newRib } from './rib'

/** So far inside a segment, by its parameter, it moves again where it stood still at its end. */
const INSIDE = 1e-5

/** Slopes of the width are compared over this share of the line's length. */
const NEAR = 1e-6

/** Ribs from the centre of each circle to where it touches the envelope of all. */
export class CircleRibs implements RibField {
  private readonly turned: Rib = newRib()
  /** The centreline in the nib's plane, and as it is. */
  private readonly centre: Centreline
  private readonly true: Centreline
  /** Arc lengths at which the width is not smooth, with the line's ends. */
  private readonly breaks: Float64Array

  constructor(
    cubics: readonly Cubic[],
    private readonly arc: ArcLength,
    private readonly width: LineWidth,
  ) {
    this.centre = new Centreline(cubics)
    this.true = new Centreline(arc.cubics)
    this.breaks = Float64Array.from([0, ...width.breaks.filter((s) => s > 0 && s < arc.total), arc.total]).sort()
  }

  isOpen(): boolean {
    return false
  }

  /** Radius at t and its derivative by t; the derivative of arc length is that of the true centreline. */
  private radius(segment: number, t: number, fromBelow: boolean): { r: number; slope: number } {
    const h = this.width.at(this.arc.at(segment, t), fromBelow)
    this.true.place(segment, t, this.turned)
    return { r: (h.left + h.right) / 2, slope: ((h.leftSlope + h.rightSlope) / 2) * this.true.speed }
  }

  /** How fast the circle grows against how fast it moves, -1 .. 1 where it touches the envelope at all. */
  growth(segment: number, t: number, fromBelow = false): number {
    return this.pace(this.arc.at(segment, t), fromBelow) * this.ratio(segment, t)
  }

  /** Derivative of the growth by t. */
  private growthSlope(segment: number, t: number, fromBelow: boolean): number {
    const { centre } = this
    const s = this.arc.at(segment, t)
    const ratio = this.ratio(segment, t)
    const turning = centre.speed > 0 ? (this.true.speedSlope - ratio * centre.speedSlope) / centre.speed : 0
    return this.bend(s, fromBelow) * this.true.speed * ratio + this.pace(s, fromBelow) * turning
  }

  /** Derivative of the radius by arc length. */
  private pace(s: number, fromBelow: boolean): number {
    const h = this.width.at(s, fromBelow)
    return (h.leftSlope + h.rightSlope) / 2
  }

  /** Speed of the true centreline over that in the nib's plane; where both stand still, that of just inside the segment. */
  private ratio(segment: number, t: number): number {
    const { centre } = this
    this.true.place(segment, t, this.turned)
    centre.place(segment, t, this.turned)
    if (centre.isStill(segment)) {
      this.true.place(segment, t + (t < 0.5 ? INSIDE : -INSIDE), this.turned)
      centre.place(segment, t + (t < 0.5 ? INSIDE : -INSIDE), this.turned)
    }
    return centre.speed > 0 ? this.true.speed / centre.speed : 0
  }

  /** Second derivative of the radius by arc length, from its slopes next to `s` between two breaks of the width. */
  private bend(s: number, fromBelow: boolean): number {
    const { breaks } = this
    const tiny = SAME_PLACE * this.arc.total
    const k = Math.min(breaks.length - 2, lastUpTo(breaks, fromBelow ? s - tiny : s + tiny))
    const [low, high] = [breaks[k]!, breaks[k + 1]!]
    const near = Math.min(NEAR * this.arc.total, (high - low) / 1000)
    const middle = Math.min(high - near, Math.max(low + near, s))
    const [a, b] = [Math.max(low, middle - near), Math.min(high, middle + near)]
    return b > a ? (this.pace(b, true) - this.pace(a, false)) / (b - a) : 0
  }

  rib(segment: number, t: number, side: SideSign, fromBelow: boolean, out: Rib): void {
    const { r, slope } = this.radius(segment, t, fromBelow)
    const tilt = this.growth(segment, t, fromBelow)
    const tiltSlope = this.growthSlope(segment, t, fromBelow)
    this.centre.place(segment, t, out)
    const { tangentX, tangentY, turning } = this.centre
    // n = -g T + sqrt(1 - g^2) N, with N the side's normal; T' = turning n, as for any curve.
    const g = Math.min(1, Math.max(-1, tilt))
    const across = Math.sqrt(Math.max(1e-12, 1 - g * g))
    const nx = side * tangentY
    const ny = -side * tangentX
    out.nx = -g * tangentX + across * nx
    out.ny = -g * tangentY + across * ny
    const acrossSlope = (-g * tiltSlope) / across
    const turn = side * turning
    out.ndx = -tiltSlope * tangentX + g * turn * nx + acrossSlope * nx + across * turn * tangentX
    out.ndy = -tiltSlope * tangentY + g * turn * ny + acrossSlope * ny + across * turn * tangentY
    out.half = r
    out.halfSlope = slope
    out.width = 2 * r
  }

  tangent(segment: number, t: number): Vec {
    return this.centre.tangent(segment, t)
  }

  /** Whether the circle's growth jumps where two parts meet, as it does at a sharp stop or the end of a taper. */
  jumps(before: Part, after: Part): boolean {
    const a = this.growth(before.segment, before.t1, true)
    const b = this.growth(after.segment, after.t0)
    return Math.abs(a - b) > 1e-3
  }

  circle(segment: number, t: number, tolerance: number): Loop {
    const { r } = this.radius(segment, t, false)
    this.centre.place(segment, t, this.turned)
    const centre = { x: this.turned.cx, y: this.turned.cy }
    const arcs = circleArc(centre, { x: r, y: 0 }, 2 * Math.PI, tolerance)
    return arcs.map((c, i) => whole(i + 1 === arcs.length ? { ...c, p3: arcs[0]!.p0 } : c))
  }
}
