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
  /** Parameters, ascending, at which the curve has a joint; it is smooth between them. */
  readonly joints?: readonly number[]
}

/** The smooth parts of `source` between two parameters. */
export function smoothParts(source: CurveSource, from: number, to: number): [number, number][] {
  const least = 1e-9 * (to - from)
  const inner = (source.joints ?? []).filter((u) => u > from + least && u < to - least)
  const marks = [from, ...inner, to]
  return marks.slice(1).map((b, i) => [marks[i]!, b])
}

/** A chain of cubics as one curve; u = segment index + parameter. */
export class CubicChain implements CurveSource {
  readonly joints: readonly number[]

  constructor(readonly cubics: readonly Cubic[]) {
    this.joints = cubics.map((_, i) => i).slice(1)
  }

  sample(u: number): CurveSample {
    const i = Math.min(this.cubics.length - 1, Math.max(0, Math.floor(u)))
    const c = this.cubics[i]!
    return { at: pointAt(c, u - i), derivative: derivativeAt(c, u - i) }
  }
}
