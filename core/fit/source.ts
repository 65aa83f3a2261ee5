import type { Cubic } from '../geometry/cubic'
import { derivativeAt, pointAt } from '../geometry/cubic'
import type { Vec } from '../geometry/point'

/** A point of a curve and its derivative with respect to the parameter. */
export interface CurveSample {
  at: Vec
  derivative: Vec
}

/** A curve that can be evaluated anywhere: what the fitter takes. */
export interface CurveSource {
  /** Position and derivative at `u`, in the source's own range. */
  sample(u: number): CurveSample
}

/** A chain of cubics as one curve; u = segment index + parameter. */
export class CubicChain implements CurveSource {
  constructor(readonly cubics: readonly Cubic[]) {}

  sample(u: number): CurveSample {
    const i = Math.min(this.cubics.length - 1, Math.max(0, Math.floor(u)))
    const c = this.cubics[i]!
    return { at: pointAt(c, u - i), derivative: derivativeAt(c, u - i) }
  }
}
