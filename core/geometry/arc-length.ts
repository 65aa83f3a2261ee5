import type { Cubic } from './cubic'
import { derivativeAt, nearestFrom, pointAt, reach, tangentAt } from './cubic'
import type { Vec } from './point'
import { distance, length } from './point'
import { GAUSS_5 } from './quadrature'
import { lastUpTo } from './search'

/** A place on a path: segment and parameter, and the arc length from the path's start, px. */
export interface Station {
  segment: number
  t: number
  length: number
}

/** Arc length within one segment: parameters, ascending from 0 to 1, and the length up to each, px. */
interface Table {
  t: Float64Array
  length: Float64Array
}

/** A part is halved until quadrature over it and over its halves agree to this share of the segment's size. */
const EXACT = 1e-11
const MOST_HALVINGS = 24

/** Arc length along a chain of cubics: five-point Gauss quadrature over parts of each segment, halved until it is exact. */
export class ArcLength {
  readonly total: number
  /** Arc length at the start of each segment, and the total at the end. */
  readonly starts: Float64Array
  private readonly tables: Table[]
  private readonly steps: Float64Array

  constructor(readonly cubics: readonly Cubic[]) {
    this.starts = new Float64Array(cubics.length + 1)
    this.steps = stepsOf(cubics)
    this.tables = cubics.map((c, i) => tableOf(this.steps, i, reach(c)))
    let total = 0
    this.tables.forEach((table, i) => {
      this.starts[i] = total
      total += table.length[table.length.length - 1]!
    })
    this.starts[cubics.length] = total
    this.total = total
  }

  /** Arc length from the path's start to parameter t of a segment, px. */
  at(segment: number, t: number): number {
    const start = this.starts[segment]!
    if (t <= 0) return start
    if (t >= 1) return this.starts[segment + 1]!
    const table = this.tables[segment]!
    const k = lastUpTo(table.t, t)
    return start + table.length[k]! + lengthBetween(this.steps, segment, table.t[k]!, t)
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
    const table = this.tables[segment]!
    const parts = table.t.length - 1
    const whole = table.length[parts]!
    if (s <= 0 || whole === 0) return 0
    if (s >= whole) return 1
    const k = Math.min(parts - 1, lastUpTo(table.length, s))
    const c = this.cubics[segment]!
    const start = table.t[k]!
    let low = start
    let high = table.t[k + 1]!
    const from = table.length[k]!
    const span = table.length[k + 1]! - from
    let t = low + (span > 0 ? (s - from) / span : 0.5) * (high - low)
    for (let i = 0; i < 24; i++) {
      const over = from + lengthBetween(this.steps, segment, start, t) - s
      if (Math.abs(over) < 1e-11 * whole) break
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

  /** The place on the path, or on some of its segments, nearest to `p`, and its distance, px. */
  nearest(p: Vec, segments?: readonly number[]): Station & { distance: number } {
    let best = { segment: 0, t: 0, length: 0, distance: Infinity }
    const look = (c: Cubic, segment: number): void => {
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
    }
    if (segments) for (const i of segments) look(this.cubics[i]!, i)
    else this.cubics.forEach(look)
    if (best.distance < Infinity) best.length = this.at(best.segment, best.t)
    return best
  }
}

/** Steps between the control points of each cubic, six numbers to each: a third of the derivative's control points. */
function stepsOf(cubics: readonly Cubic[]): Float64Array {
  const steps = new Float64Array(6 * cubics.length)
  cubics.forEach(({ p0, p1, p2, p3 }, i) => {
    steps.set([p1.x - p0.x, p1.y - p0.y, p2.x - p1.x, p2.y - p1.y, p3.x - p2.x, p3.y - p2.y], 6 * i)
  })
  return steps
}

function tableOf(steps: Float64Array, segment: number, size: number): Table {
  const ts = [0]
  const lengths = [0]
  const exact = EXACT * size
  const add = (t0: number, t1: number, whole: number, depth: number): void => {
    const mid = (t0 + t1) / 2
    const a = lengthBetween(steps, segment, t0, mid)
    const b = lengthBetween(steps, segment, mid, t1)
    if (depth >= MOST_HALVINGS || Math.abs(a + b - whole) <= exact) {
      ts.push(mid, t1)
      const before = lengths[lengths.length - 1]!
      lengths.push(before + a, before + a + b)
      return
    }
    add(t0, mid, a, depth + 1)
    add(mid, t1, b, depth + 1)
  }
  add(0, 1, lengthBetween(steps, segment, 0, 1), 0)
  return { t: Float64Array.from(ts), length: Float64Array.from(lengths) }
}

const NODES = Float64Array.from(GAUSS_5.nodes)
const WEIGHTS = Float64Array.from(GAUSS_5.weights)

/** Length of a cubic between two parameters by five-point Gauss quadrature, px. */
function lengthBetween(steps: Float64Array, segment: number, t0: number, t1: number): number {
  const o = 6 * segment
  const ax = steps[o]!
  const ay = steps[o + 1]!
  const bx = steps[o + 2]!
  const by = steps[o + 3]!
  const cx = steps[o + 4]!
  const cy = steps[o + 5]!
  const half = (t1 - t0) / 2
  const mid = (t1 + t0) / 2
  let sum = 0
  for (let i = 0; i < 5; i++) {
    const t = mid + half * NODES[i]!
    const s = 1 - t
    const a = s * s
    const b = 2 * s * t
    const c = t * t
    const dx = a * ax + b * bx + c * cx
    const dy = a * ay + b * by + c * cy
    sum += WEIGHTS[i]! * Math.sqrt(dx * dx + dy * dy)
  }
  return 3 * half * sum
}
