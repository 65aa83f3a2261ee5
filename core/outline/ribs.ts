import type { ArcLength } from '../geometry/arc-length'
import type { Cubic } from '../geometry/cubic'
import { mostCurvature, tangentAt } from '../geometry/cubic'
import type { LineWidth } from '../weight/half-widths'

/** +1 for the left side of the line, -1 for the right. */
export type SideSign = 1 | -1

/**
 * One side's rib at a place of the centreline: it leads from the centre, `half` px along a unit direction, to the edge of
 * the ink. With the derivatives of all three by the segment's t.
 */
export interface Rib {
  cx: number
  cy: number
  cdx: number
  cdy: number
  /** Unit direction of the rib. */
  nx: number
  ny: number
  ndx: number
  ndy: number
  half: number
  halfSlope: number
  /** Both sides' widths together, px. */
  width: number
}

export const newRib = (): Rib => ({ cx: 0, cy: 0, cdx: 0, cdy: 0, nx: 0, ny: 0, ndx: 0, ndy: 0, half: 0, halfSlope: 0, width: 0 })

/** The ribs of a line: what its ink is made of. */
export interface RibField {
  /** Writes one side's rib at `t` of a segment; `fromBelow` takes the width that arrives there. */
  rib(segment: number, t: number, side: SideSign, fromBelow: boolean, out: Rib): void
  /** Whether no side of a segment can fold, as far as quick bounds tell. */
  isOpen(segment: number): boolean
  /** Unit tangent of the centreline at `t`, towards its end. */
  tangent(segment: number, t: number): { x: number; y: number }
}

/** Closest that a parameter comes to a place where the centreline stands still. */
const STILL = 1e-7

const widths = new Float64Array(4)

/** Ribs across the centreline, along its normals. */
export class NormalRibs implements RibField {
  private readonly open: boolean[]

  constructor(
    private readonly arc: ArcLength,
    private readonly width: LineWidth,
  ) {
    const { widest } = width
    this.open = arc.cubics.map((c) => mostCurvature(c) * widest < 0.95)
  }

  isOpen(segment: number): boolean {
    return this.open[segment]!
  }

  rib(segment: number, t: number, side: SideSign, fromBelow: boolean, out: Rib): void {
    const c = this.arc.cubics[segment]!
    placeOnCentre(c, t, out)
    const speed = centreSpeed
    // The normal to the left of the tangent (tx, ty) is (ty, -tx); it turns as the tangent does.
    out.nx = side * tangentY
    out.ny = -side * tangentX
    out.ndx = side * turning * tangentX
    out.ndy = side * turning * tangentY
    this.width.sample(this.arc.at(segment, t), fromBelow, widths)
    const at = side === 1 ? 0 : 1
    out.half = widths[at]!
    out.halfSlope = widths[2 + at]! * speed
    out.width = widths[0]! + widths[1]!
  }

  tangent(segment: number, t: number): { x: number; y: number } {
    return endTangent(this.arc.cubics[segment]!, t)
  }
}

/** The unit tangent that a segment has at t, seen from within it. */
export function endTangent(c: Cubic, t: number): { x: number; y: number } {
  return tangentAt(c, t) ?? { x: 1, y: 0 }
}

/** Of the centre last placed: its speed, its unit tangent and how fast that turns, by t. */
export let centreSpeed = 0
export let tangentX = 1
export let tangentY = 0
export let turning = 0

/** Writes the centre and its derivative; the rest goes to the variables above. */
export function placeOnCentre({ p0, p1, p2, p3 }: Cubic, t: number, out: Rib): void {
  const s = 1 - t
  const a = s * s * s
  const b = 3 * s * s * t
  const c = 3 * s * t * t
  const d = t * t * t
  out.cx = a * p0.x + b * p1.x + c * p2.x + d * p3.x
  out.cy = a * p0.y + b * p1.y + c * p2.y + d * p3.y
  const e = 3 * s * s
  const f = 6 * s * t
  const g = 3 * t * t
  out.cdx = e * (p1.x - p0.x) + f * (p2.x - p1.x) + g * (p3.x - p2.x)
  out.cdy = e * (p1.y - p0.y) + f * (p2.y - p1.y) + g * (p3.y - p2.y)
  const speed = Math.sqrt(out.cdx * out.cdx + out.cdy * out.cdy)
  const size = Math.abs(p3.x - p0.x) + Math.abs(p3.y - p0.y) + Math.abs(p1.x - p0.x) + Math.abs(p1.y - p0.y) + Math.abs(p2.x - p3.x) + Math.abs(p2.y - p3.y)
  centreSpeed = speed
  if (speed > STILL * size) {
    const ddx = 6 * s * (p2.x - 2 * p1.x + p0.x) + 6 * t * (p3.x - 2 * p2.x + p1.x)
    const ddy = 6 * s * (p2.y - 2 * p1.y + p0.y) + 6 * t * (p3.y - 2 * p2.y + p1.y)
    tangentX = out.cdx / speed
    tangentY = out.cdy / speed
    turning = (out.cdx * ddy - out.cdy * ddx) / (speed * speed)
    return
  }
  const tangent = endTangent({ p0, p1, p2, p3 }, t)
  tangentX = tangent.x
  tangentY = tangent.y
  turning = 0
}
