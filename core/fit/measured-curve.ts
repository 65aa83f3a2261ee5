import type { CurveSource } from './source'

/** Places and weights of the three-point Gauss rule on [0, 1]: exact for polynomials of degree 5. */
const PLACES = [0.5 - Math.sqrt(0.15), 0.5, 0.5 + Math.sqrt(0.15)]
const WEIGHTS = [5 / 18, 8 / 18, 5 / 18]

/** Samples of a panel: its start and the three places. */
const PER_PANEL = 4

/** The part of a chain that turns by no more than this at a joint (radians) is taken to go on smoothly there. */
const SMOOTH_TURN = 0.6

/** A panel turns by no more than this (radians), or is shorter than the grain, or has been halved so often. */
const MOST_TURN = 0.5
const MOST_HALVINGS = 12
/** Within a panel the pace changes by no more than this factor, unless it has been halved so often. */
const MOST_PACE = 1.6
const PACE_HALVINGS = 6

/** Fewest panels to a curve and, unless it has very many parts, to each part. */
const FEWEST = 8
const MANY_PARTS = 32

/**
 * A curve with samples along it, and running sums of three integrals from which the area and the first moment of any
 * stretch over its chord follow at once. Each part is cut into panels, shorter where the curve turns more, with samples
 * at their starts and at the places of a Gauss rule, which serve both the integrals and the measuring of fits.
 */
export class MeasuredCurve {
  /** Parameters at which panels start, and the curve's end. */
  private marks: Float64Array
  /** Parameter, position, unit direction and room of each sample: four to a panel, and one at the end. */
  u = new Float64Array(0)
  x = new Float64Array(0)
  y = new Float64Array(0)
  tx = new Float64Array(0)
  ty = new Float64Array(0)
  room = new Float64Array(0)
  count = 0
  /** Integrals of y dx, x y dx and y^2 dx from the curve's start to the start of each panel, about the curve's start. */
  private sums = new Float64Array(0)
  private readonly originX: number
  private readonly originY: number
  private readonly at = new Float64Array(5)
  private readonly low = new Float64Array(3)
  private readonly high = new Float64Array(3)

  /** @param grain px: turns within less than this do not matter */
  constructor(
    private readonly source: CurveSource,
    grain: number,
  ) {
    source.sample(0, 0, this.at)
    this.originX = this.at[0]!
    this.originY = this.at[1]!
    const marks: number[] = []
    for (let part = 0; part < source.parts; part++) {
      const least = source.parts > MANY_PARTS ? 1 : Math.max(2, Math.ceil(FEWEST / source.parts))
      for (let k = 0; k < least; k++) this.divide(part, k / least, (k + 1) / least, grain, 0, marks)
    }
    marks.push(source.parts)
    this.marks = Float64Array.from(marks)
    this.measure()
  }

  /** Pushes the starts of panels from t0 to t1 of a part. */
  private divide(part: number, t0: number, t1: number, grain: number, depth: number, marks: number[]): void {
    const { at, source } = this
    const mid = (t0 + t1) / 2
    source.sample(part, t0, at)
    const [x0, y0, ax, ay] = [at[0]!, at[1]!, at[2]!, at[3]!]
    source.sample(part, mid, at)
    const [bx, by] = [at[2]!, at[3]!]
    const speeds = [ax * ax + ay * ay, bx * bx + by * by]
    const near = Math.abs(at[0]! - x0) + Math.abs(at[1]! - y0) < grain
    source.sample(part, t1, at)
    const turn = turnBetween(ax, ay, bx, by) + turnBetween(bx, by, at[2]!, at[3]!)
    const short = near && Math.abs(at[0]! - x0) + Math.abs(at[1]! - y0) < grain
    // A turn that is taken back before the next look still shows as a change of pace.
    speeds.push(at[2]! * at[2]! + at[3]! * at[3]!)
    const even = Math.max(...speeds) < MOST_PACE * MOST_PACE * Math.min(...speeds)
    if ((turn <= MOST_TURN && (even || depth >= PACE_HALVINGS)) || short || depth >= MOST_HALVINGS) {
      marks.push(part + t0)
      return
    }
    this.divide(part, t0, mid, grain, depth + 1, marks)
    this.divide(part, mid, t1, grain, depth + 1, marks)
  }

  /** Length of the parameter's range. */
  get parts(): number {
    return this.source.parts
  }

  /** Whole panels between two parameters. */
  panelsIn(from: number, to: number): number {
    return this.panelAt(to) - this.panelAt(from)
  }

  /** Halves the panels that a stretch touches. */
  refine(from: number, to: number): void {
    const marks: number[] = []
    for (let i = 0; i + 1 < this.marks.length; i++) {
      const [a, b] = [this.marks[i]!, this.marks[i + 1]!]
      marks.push(a)
      if (b > from && a < to) marks.push((a + b) / 2)
    }
    marks.push(this.source.parts)
    this.marks = Float64Array.from(marks)
    this.measure()
  }

  /** The panel that holds `u`; the last one's end belongs to no panel. */
  private panelAt(u: number): number {
    const { marks } = this
    let low = 0
    let high = marks.length - 1
    while (low < high) {
      const mid = (low + high + 1) >> 1
      if (marks[mid]! <= u) low = mid
      else high = mid - 1
    }
    return low
  }

  private measure(): void {
    const { source, at, marks } = this
    const all = marks.length - 1
    this.count = all * PER_PANEL + 1
    this.u = new Float64Array(this.count)
    this.x = new Float64Array(this.count)
    this.y = new Float64Array(this.count)
    this.tx = new Float64Array(this.count)
    this.ty = new Float64Array(this.count)
    this.room = new Float64Array(this.count)
    this.sums = new Float64Array(3 * (all + 1))
    let k = 0
    for (let panel = 0; panel < all; panel++) {
      const part = Math.floor(marks[panel]!)
      const t0 = marks[panel]! - part
      const width = marks[panel + 1]! - marks[panel]!
      source.sample(part, t0, at)
      this.keep(k++, part + t0)
      let a = 0
      let b = 0
      let c = 0
      for (let i = 0; i < 3; i++) {
        const t = t0 + PLACES[i]! * width
        source.sample(part, t, at)
        this.keep(k++, part + t)
        const x = at[0]! - this.originX
        const y = at[1]! - this.originY
        const dx = at[2]! * WEIGHTS[i]! * width
        a += y * dx
        b += x * y * dx
        c += y * y * dx
      }
      const s = 3 * panel
      this.sums[s + 3] = this.sums[s]! + a
      this.sums[s + 4] = this.sums[s + 1]! + b
      this.sums[s + 5] = this.sums[s + 2]! + c
    }
    source.sample(source.parts - 1, 1, at)
    this.keep(k, source.parts)
  }

  private keep(k: number, u: number): void {
    const { at } = this
    this.u[k] = u
    this.x[k] = at[0]!
    this.y[k] = at[1]!
    const speed = Math.sqrt(at[2]! * at[2]! + at[3]! * at[3]!)
    this.tx[k] = speed > 0 ? at[2]! / speed : 0
    this.ty[k] = speed > 0 ? at[3]! / speed : 0
    this.room[k] = at[4]!
  }

  /** Index of the first sample beyond `u`. */
  after(u: number): number {
    let k = this.panelAt(u) * PER_PANEL
    while (k < this.count && this.u[k]! <= u + 1e-12) k++
    return k
  }

  /** The last sample from `u` on that lies, like all before it, within `distance` px of the curve at `u`. */
  leaves(u: number, distance: number): number {
    this.sampleAt(u, false)
    const [x, y] = [this.at[0]!, this.at[1]!]
    let k = this.after(u)
    while (k < this.count && Math.hypot(this.x[k]! - x, this.y[k]! - y) <= distance) k++
    return k > 0 ? Math.max(u, this.u[k - 1]!) : u
  }

  /** Position at `u`, seen from below or above where a joint lies there, to out[0..1]. */
  point(u: number, fromBelow: boolean, out: Float64Array): void {
    this.sampleAt(u, fromBelow)
    out[0] = this.at[0]!
    out[1] = this.at[1]!
  }

  private sampleAt(u: number, fromBelow: boolean): void {
    let part = Math.floor(u)
    if (part >= this.source.parts || (fromBelow && part === u && part > 0)) part--
    this.source.sample(part, u - part, this.at)
  }

  /**
   * Unit direction of travel at `u`, an end of a stretch that reaches to `other`, to out[0..1]. At a joint within the
   * curve it is the mean of both sides', so that fits meet there smoothly. A derivative that vanishes is replaced by its
   * limit from inside. False where there is none.
   */
  direction(u: number, other: number, out: Float64Array): boolean {
    const { at } = this
    const below = other < u
    this.sampleAt(u, below)
    let dx = at[2]!
    let dy = at[3]!
    const speed = Math.sqrt(dx * dx + dy * dy)
    const inside = u + (other - u) * 0.01
    this.sampleAt(inside, below)
    const usual = Math.sqrt(at[2]! * at[2]! + at[3]! * at[3]!)
    if (!(speed > 1e-6 * usual)) {
      this.sampleAt(u + (other - u) * 1e-5, below)
      dx = at[2]!
      dy = at[3]!
    }
    const size = Math.sqrt(dx * dx + dy * dy)
    if (!(size > 0)) return false
    dx /= size
    dy /= size
    out[0] = dx
    out[1] = dy
    if (u === Math.floor(u) && u > 0 && u < this.source.parts && speed > 1e-6 * usual) {
      this.sampleAt(u, !below)
      const across = Math.sqrt(at[2]! * at[2]! + at[3]! * at[3]!)
      const ex = at[2]! / across
      const ey = at[3]! / across
      if (dx * ex + dy * ey > Math.cos(SMOOTH_TURN)) {
        const half = Math.sqrt((dx + ex) ** 2 + (dy + ey) ** 2)
        out[0] = (dx + ex) / half
        out[1] = (dy + ey) / half
      }
    }
    return true
  }

  /**
   * Integrals over the stretch of y dx, x y dx and y^2 dx, with (px, py) as the origin, to out[0..2].
   * `dx` and `dy` are the way from the stretch's start, which is (px, py), to its end.
   */
  integrals(from: number, to: number, px: number, py: number, dx: number, out: Float64Array): void {
    this.running(from, this.low)
    this.running(to, this.high)
    const a = this.high[0]! - this.low[0]!
    const b = this.high[1]! - this.low[1]!
    const c = this.high[2]! - this.low[2]!
    const ox = px - this.originX
    const oy = py - this.originY
    // With X = x - ox and Y = y - oy, expanded; the integrals of dx and x dx follow from the ends.
    const e = dx
    const f = dx * (ox + dx / 2)
    out[0] = a - oy * e
    out[1] = b - ox * a - oy * f + ox * oy * e
    out[2] = c - 2 * oy * a + oy * oy * e
  }

  /** Integrals from the curve's start to `u`. */
  private running(u: number, out: Float64Array): void {
    const { marks, at } = this
    const panel = this.panelAt(u)
    out[0] = this.sums[3 * panel]!
    out[1] = this.sums[3 * panel + 1]!
    out[2] = this.sums[3 * panel + 2]!
    const width = u - marks[panel]!
    if (!(width > 0) || panel === marks.length - 1) return
    const part = Math.floor(marks[panel]!)
    const t0 = marks[panel]! - part
    for (let i = 0; i < 3; i++) {
      this.source.sample(part, t0 + width * PLACES[i]!, at)
      const x = at[0]! - this.originX
      const y = at[1]! - this.originY
      const dx = at[2]! * WEIGHTS[i]! * width
      out[0]! += y * dx
      out[1]! += x * y * dx
      out[2]! += y * y * dx
    }
  }
}

/** Angle between two directions, radians; 0 where one has none. */
function turnBetween(ax: number, ay: number, bx: number, by: number): number {
  const cross = ax * by - ay * bx
  const dot = ax * bx + ay * by
  return cross === 0 && dot === 0 ? 0 : Math.abs(Math.atan2(cross, dot))
}
