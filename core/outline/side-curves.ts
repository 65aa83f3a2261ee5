import type { Cubic } from '../geometry/cubic'
import { fitCurve } from '../fit/fit-curve'
import type { CurveSource } from '../fit/source'
import type { Part } from './folds'
import { eased, lowestBetween, rootBetween, turningRadius } from './folds'
import type { Rib } from './rib'
import type { RibField, SideSign } from './ribs'
import { newRib } from './rib'

/** The edge of the ink on one side: centre + half x rib, along parts that follow one another smoothly. */
class EdgeCurve implements CurveSource {
  private readonly rib: Rib = newRib()

  constructor(
    private readonly field: RibField,
    private readonly side: SideSign,
    private readonly run: readonly Part[],
  ) {}

  get parts(): number {
    return this.run.length
  }

  sample(part: number, u: number, out: Float64Array): void {
    const p = this.run[part]!
    const { t, rate } = eased(p, u)
    const r = this.rib
    this.field.rib(p.segment, t, this.side, u > 0.5, r)
    out[0] = r.cx + r.half * r.nx
    out[1] = r.cy + r.half * r.ny
    out[2] = (r.cdx + r.halfSlope * r.nx + r.half * r.ndx) * rate
    out[3] = (r.cdy + r.halfSlope * r.ny + r.half * r.ndy) * rate
    out[4] = r.width
  }
}

/**
 * The curve of the turning points, at which neighbouring ribs cross: their envelope (the evolute of the centreline, for
 * ribs along the normals). It runs along the ribs themselves.
 */
class EnvelopeCurve implements CurveSource {
  readonly parts = 1
  private readonly rib: Rib = newRib()

  constructor(
    private readonly field: RibField,
    private readonly side: SideSign,
    private readonly part: Part,
  ) {}

  /** How fast the turning point moves outward along its rib, by t. */
  pace(t: number): number {
    const { segment, t0, t1 } = this.part
    const e = 1e-4 * (t1 - t0)
    const a = Math.max(t0, t - e)
    const b = Math.min(t1, t + e)
    const drift =
      (turningRadius(this.field, segment, b, this.side) - turningRadius(this.field, segment, a, this.side)) / (b - a)
    this.field.rib(segment, t, this.side, false, this.rib)
    return drift + this.rib.cdx * this.rib.nx + this.rib.cdy * this.rib.ny
  }

  sample(_part: number, u: number, out: Float64Array): void {
    const { segment, t0, t1 } = this.part
    const t = u === 1 ? t1 : t0 + (t1 - t0) * u
    const pace = this.pace(t) * (t1 - t0)
    const r = this.rib
    const turning = turningRadius(this.field, segment, t, this.side)
    this.field.rib(segment, t, this.side, false, r)
    // Ribs that do not cross before they end are no part of a fold.
    const radius = Math.min(r.half, Math.max(0, turning))
    out[0] = r.cx + radius * r.nx
    out[1] = r.cy + radius * r.ny
    out[2] = pace * r.nx
    out[3] = pace * r.ny
    out[4] = Infinity
  }
}

/** Cubics along the edge of the ink over a run of parts, within `tolerance` px. */
export const fitEdge = (field: RibField, side: SideSign, run: readonly Part[], tolerance: number): Cubic[] =>
  fitCurve(new EdgeCurve(field, side, run), tolerance).map((f) => f.cubic)

const PROBES = 16

/** Cubics along the turning points over a folding part, cut where their curve has cusps. */
export function fitEnvelope(field: RibField, side: SideSign, part: Part, tolerance: number): Cubic[] {
  const curve = new EnvelopeCurve(field, side, part)
  const pace = (t: number): number => curve.pace(t)
  const at = (i: number): number => part.t0 + ((part.t1 - part.t0) * i) / PROBES
  const cuts = [part.t0]
  for (let i = 0; i < PROBES; i++) {
    if (pace(at(i)) < 0 !== pace(at(i + 1)) < 0) cuts.push(rootBetween(pace, at(i), at(i + 1)))
    else if (i > 0 && i + 1 < PROBES) {
      const sign = pace(at(i)) < 0 ? -1 : 1
      if (sign * pace(at(i)) <= Math.min(sign * pace(at(i - 1)), sign * pace(at(i + 1)))) {
        const low = lowestBetween((t) => sign * pace(t), at(i - 1), at(i + 1))
        if (sign * pace(low) < 0) cuts.push(rootBetween(pace, at(i - 1), low), rootBetween(pace, low, at(i + 1)))
      }
    }
  }
  cuts.push(part.t1)
  const marks = cuts.sort((a, b) => a - b).filter((t, i, all) => i === 0 || t - all[i - 1]! > 1e-9)
  const out: Cubic[] = []
  for (let i = 0; i + 1 < marks.length; i++) {
    const smooth = new EnvelopeCurve(field, side, { ...part, t0: marks[i]!, t1: marks[i + 1]! })
    out.push(...fitCurve(smooth, tolerance).map((f) => f.cubic))
  }
  return out
}
