import type { Cubic } from '../geometry/cubic'

/**
 * A curve made of smooth parts, which can be evaluated anywhere: what the fitter takes. Its parameter is the number of
 * the part plus t, the place 0..1 within it.
 */
export interface CurveSource {
  readonly parts: number
  /**
   * Writes to `out`: x, y, their derivatives by t, and the room at that place: how wide (px) the shape is of which this
   * is one side. Where there is little room, the fit must be as much the finer.
   */
  sample(part: number, t: number, out: Float64Array): void
}

/** A chain of cubics as one curve. */
export class CubicChain implements CurveSource {
  constructor(readonly cubics: readonly Cubic[]) {}

  get parts(): number {
    return this.cubics.length
  }

  sample(part: number, t: number, out: Float64Array): void {
    const { p0, p1, p2, p3 } = this.cubics[part]!
    const s = 1 - t
    const a = s * s * s
    const b = 3 * s * s * t
    const c = 3 * s * t * t
    const d = t * t * t
    out[0] = a * p0.x + b * p1.x + c * p2.x + d * p3.x
    out[1] = a * p0.y + b * p1.y + c * p2.y + d * p3.y
    const e = 3 * s * s
    const f = 6 * s * t
    const g = 3 * t * t
    out[2] = e * (p1.x - p0.x) + f * (p2.x - p1.x) + g * (p3.x - p2.x)
    out[3] = e * (p1.y - p0.y) + f * (p2.y - p1.y) + g * (p3.y - p2.y)
    out[4] = Infinity
  }
}
