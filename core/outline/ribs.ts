import type { ArcLength } from '../geometry/arc-length'
import { mostCurvature } from '../geometry/cubic'
import type { Vec } from '../geometry/point'
import type { LineWidth } from '../weight/half-widths'
import { Centreline } from './centreline'
import type { Rib } from './rib'

/** +1 for the left side of the line, -1 for the right. */
export type SideSign = 1 | -1

/** The ribs of a line: what its ink is made of. */
export interface RibField {
  /** Writes one side's rib at `t` of a segment; `fromBelow` takes the width that arrives there. */
  rib(segment: number, t: number, side: SideSign, fromBelow: boolean, out: Rib): void
  /** Whether no side of a segment can fold, as far as quick bounds tell. */
  isOpen(segment: number): boolean
  /** Unit tangent of the centreline at `t`, towards its end. */
  tangent(segment: number, t: number): Vec
}

const widths = new Float64Array(4)

/** Ribs across the centreline, along its normals. */
export class NormalRibs implements RibField {
  private readonly centre: Centreline
  private readonly open: boolean[]

  constructor(
    private readonly arc: ArcLength,
    private readonly width: LineWidth,
  ) {
    const { widest } = width
    this.centre = new Centreline(arc.cubics)
    this.open = arc.cubics.map((c) => mostCurvature(c) * widest < 0.95)
  }

  isOpen(segment: number): boolean {
    return this.open[segment]!
  }

  rib(segment: number, t: number, side: SideSign, fromBelow: boolean, out: Rib): void {
    const { centre } = this
    centre.place(segment, t, out)
    // The normal to the left of the tangent (tx, ty) is (ty, -tx); it turns as the tangent does.
    out.nx = side * centre.tangentY
    out.ny = -side * centre.tangentX
    out.ndx = side * centre.turning * centre.tangentX
    out.ndy = side * centre.turning * centre.tangentY
    this.width.sample(this.arc.at(segment, t), fromBelow, widths)
    const at = side === 1 ? 0 : 1
    out.half = widths[at]!
    out.halfSlope = widths[2 + at]! * centre.speed
    out.width = widths[0]! + widths[1]!
  }

  tangent(segment: number, t: number): Vec {
    return this.centre.tangent(segment, t)
  }
}
