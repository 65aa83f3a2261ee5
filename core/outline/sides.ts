import type { CurveSample, CurveSource } from '../fit/source'
import type { ArcLength } from '../geometry/arc-length'
import { curvatureAt, derivativeAt, pointAt, tangentAt } from '../geometry/cubic'
import type { Vec } from '../geometry/point'
import { along, leftNormal, length } from '../geometry/point'
import type { HalfWidths, LineWidth } from '../weight/half-widths'

/** +1 for the left side of the line, -1 for the right. */
export type SideSign = 1 | -1

/** A cross-section of the line: its left edge, centre and right edge. */
export interface Section {
  left: Vec
  centre: Vec
  right: Vec
  tangent: Vec
  leftHalf: number
  rightHalf: number
}

/** The cross-section at `centre` of a line that runs along `tangent`. */
export function sectionAt(centre: Vec, tangent: Vec, { left, right }: HalfWidths): Section {
  const normal = leftNormal(tangent)
  return {
    left: along(centre, normal, left),
    centre,
    right: along(centre, normal, -right),
    tangent,
    leftHalf: left,
    rightHalf: right,
  }
}

/** One centreline segment with the width that it carries. */
export class WeighedSegment {
  constructor(
    readonly arc: ArcLength,
    readonly index: number,
    readonly width: LineWidth,
  ) {}

  get cubic() {
    return this.arc.cubics[this.index]!
  }

  /** Cross-section at t; `fromBelow` takes the width that arrives there. Null where the segment is one point. */
  section(t: number, fromBelow: boolean): Section | null {
    const tangent = tangentAt(this.cubic, t)
    if (!tangent) return null
    return sectionAt(pointAt(this.cubic, t), tangent, this.width.at(this.arc.at(this.index, t), fromBelow))
  }

  /**
   * 1 + k h for the left side, 1 - k h for the right: negative where the side runs backwards because the bend is
   * tighter than the half-width.
   */
  advance(t: number, side: SideSign, fromBelow: boolean): number {
    const h = this.width.at(this.arc.at(this.index, t), fromBelow)
    const k = curvatureAt(this.cubic, Math.min(1 - 1e-9, Math.max(1e-9, t)))
    const half = side === 1 ? h.left : h.right
    return half === 0 ? 1 : 1 + side * k * half
  }
}

/**
 * A side of a line between two parameters of one segment: C +- h N, whose derivative is C' (1 +- k h) +- h' |C'| N.
 * Parameter u in 0..1; next to a round taper's tip, where h' is infinite, t grows with the square of u.
 */
export class SideCurve implements CurveSource {
  constructor(
    private readonly line: WeighedSegment,
    private readonly side: SideSign,
    private readonly t0: number,
    private readonly t1: number,
    private readonly easeStart: boolean,
    private readonly easeEnd: boolean,
  ) {}

  /** Segment parameter at u, and its derivative. */
  parameter(u: number): { t: number; rate: number } {
    const span = this.t1 - this.t0
    if (this.easeStart && this.easeEnd) {
      const s = u * u * (3 - 2 * u)
      return { t: this.t0 + span * s, rate: span * 6 * u * (1 - u) }
    }
    if (this.easeStart) return { t: this.t0 + span * u * u, rate: 2 * span * u }
    if (this.easeEnd) return { t: this.t1 - span * (1 - u) * (1 - u), rate: 2 * span * (1 - u) }
    return { t: this.t0 + span * u, rate: span }
  }

  sample(u: number): CurveSample {
    const { t, rate } = this.parameter(u)
    const c = this.line.cubic
    const d = derivativeAt(c, t)
    const speed = length(d)
    const tangent = tangentAt(c, t) ?? { x: 1, y: 0 }
    const normal = leftNormal(tangent)
    const h = this.line.width.at(this.line.arc.at(this.line.index, t), u === 1)
    const half = this.side * (this.side === 1 ? h.left : h.right)
    const slope = this.side * (this.side === 1 ? h.leftSlope : h.rightSlope)
    const k = speed > 0 ? curvatureAt(c, t) : 0
    const forward = speed * (1 + k * half) * rate
    const outward = slope * speed * rate
    return {
      at: along(pointAt(c, t), normal, half),
      derivative: { x: tangent.x * forward + normal.x * outward, y: tangent.y * forward + normal.y * outward },
    }
  }
}
