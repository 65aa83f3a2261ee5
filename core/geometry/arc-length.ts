import type { Cubic } from './cubic'
import { derivativeAt, nearestFrom, pointAt, tangentAt } from './cubic'
import type { Vec } from './point'
import { distance, length } from './point'
import { GAUSS_5 } from './quadrature'

const PARTS = 16

/** A place on a path: segment and parameter, and the arc length from the path's start, px. */
export interface Station {
  segment: number
  t: number
  length: number
}

/** Arc length along a chain of cubics: cumulative five-point Gauss quadrature over sixteen parts of each segment. */
export class ArcLength {
  readonly total: number
  /** Arc length at the start of each segment, and the total at the end. */
  readonly starts: Float64Array
  private readonly parts: Float64Array

  constructor(readonly cubics: readonly Cubic[]) {
    this.starts = new Float64Array(cubics.length + 1)
    this.parts = new Float64Array(cubics.length * (PARTS + 1))
    let total = 0
    cubics.forEach((c, i) => {
      this.starts[i] = total
      let run = 0
      for (let k = 0; k < PARTS; k++) {
        this.parts[i * (PARTS + 1) + k] = run
        run += lengthBetween(c, k / PARTS, (k + 1) / PARTS)
      }
      this.parts[i * (PARTS + 1) + PARTS] = run
      total += run
    })
    this.starts[cubics.length] = total
    this.total = total
  }

  /** Arc length from the path's start to parameter t of a segment, px. */
  at(segment: number, t: number): number {
    const base = segment * (PARTS + 1)
    const start = this.starts[segment]!
    if (t <= 0) return start
    if (t >= 1) return this.starts[segment + 1]!
    const k = Math.min(PARTS - 1, Math.floor(t * PARTS))
    const c = this.cubics[segment]!
    return start + this.parts[base + k]! + lengthBetween(c, k / PARTS, t)
  }

  /** The place at arc length `s` px, clamped to the path. */
  locate(s: number): Station {
    const n = this.cubics.length
    const clamped = Math.min(this.total, Math.max(0, s))
    let segment = 0
    while (segment < n - 1 && this.starts[segment + 1]! <= clamped) segment++
    return { segment, t: this.parameter(segment, clamped - this.starts[segment]!), length: clamped }
  }

  /** Parameter on `segment` whose arc length from the segment's start is `s`, by Newton kept in its part. */
  private parameter(segment: number, s: number): number {
    const base = segment * (PARTS + 1)
    const whole = this.parts[base + PARTS]!
    if (s <= 0 || whole === 0) return 0
    if (s >= whole) return 1
    let k = 0
    while (k < PARTS - 1 && this.parts[base + k + 1]! <= s) k++
    const c = this.cubics[segment]!
    let low = k / PARTS
    let high = (k + 1) / PARTS
    const from = this.parts[base + k]!
    const span = this.parts[base + k + 1]! - from
    let t = low + (span > 0 ? (s - from) / span : 0.5) / PARTS
    for (let i = 0; i < 12; i++) {
      const over = from + lengthBetween(c, k / PARTS, t) - s
      if (Math.abs(over) < 1e-10 * whole) break
      if (over > 0) high = t
      else low = t
      const speed = length(derivativeAt(c, t))
      const next = t - over / speed
      t = next > low && next < high ? next : (low + high) / 2
    }
    return t
  }

  /** Point at arc length `s` px. */
  point(s: number): Vec {
    const { segment, t } = this.locate(s)
    return pointAt(this.cubics[segment]!, t)
  }

  /** Unit tangent at arc length `s` px; null on a path of one point. */
  tangent(s: number): Vec | null {
    const { segment, t } = this.locate(s)
    return tangentAt(this.cubics[segment]!, t)
  }

  /** The place on the path nearest to `p`, and its distance, px. */
  nearest(p: Vec): Station & { distance: number } {
    let best = { segment: 0, t: 0, length: 0, distance: Infinity }
    this.cubics.forEach((c, segment) => {
      let coarse = 0
      let least = Infinity
      for (let i = 0; i <= 12; i++) {
        const d = distance(pointAt(c, i / 12), p)
        if (d < least) {
          least = d
          coarse = i / 12
        }
      }
      const hit = nearestFrom(c, p, coarse)
      if (hit.distance < best.distance) best = { segment, t: hit.t, length: 0, distance: hit.distance }
    })
    if (best.distance < Infinity) best.length = this.at(best.segment, best.t)
    return best
  }
}

/** Length of a cubic between two parameters by five-point Gauss quadrature, px. */
function lengthBetween({ p0, p1, p2, p3 }: Cubic, t0: number, t1: number): number {
  const half = (t1 - t0) / 2
  const mid = (t1 + t0) / 2
  let sum = 0
  for (let i = 0; i < 5; i++) {
    const t = mid + half * GAUSS_5.nodes[i]!
    const s = 1 - t
    const a = s * s
    const b = 2 * s * t
    const c = t * t
    const dx = a * (p1.x - p0.x) + b * (p2.x - p1.x) + c * (p3.x - p2.x)
    const dy = a * (p1.y - p0.y) + b * (p2.y - p1.y) + c * (p3.y - p2.y)
    sum += GAUSS_5.weights[i]! * Math.sqrt(dx * dx + dy * dy)
  }
  return 3 * half * sum
}
