import type { CurveSource } from './source'

/** Places and weights of the three-point Gauss rule on [0, 1]: exact for polynomials of degree 5. */
const PLACES = [0.5 - Math.sqrt(0.15), 0.5, 0.5 + Math.sqrt(0.15)]
const WEIGHTS = [5 / 18, 8 / 18, 5 / 18]

/** Samples of a panel: its start and the three places. */
const PER_PANEL = 4

/** The part of a chain that turns by no more than this at a joint (radians) is taken to go on smoothly there. */
const SMOOTH_TURN = 0.6

/**
 * A curve with samples along it, and running sums of three integrals from which the area and the first moment of any
 * stretch over its chord follow at once. Each part is cut into even panels, with samples at their starts and at the
 * places of a Gauss rule, which serve both the integrals and the measuring of fits.
 */
export class MeasuredCurve {
  /** Panels to a part. */
  private panels = 0
  /** Parameter, position, unit direction and room of each sample. */
  u = new Float64Array(0)
  x = new Float64Array(0)
  y = new Float64Array(0)
  tx = new Float64Array(0)
  ty = new Float64Array(0)
  room = new Float64Array(0)
  count = 0
  /** Integrals of y dx, x y dx and y^2 dx from the curve's start to the start of each panel, about the origin. */
  private sums = new Float64Array(0)
  private readonly originX: number
  private readonly originY: number
  private readonly at = new Float64Array(5)
  private readonly low = new Float64Array(3)
  private readonly high = new Float64Array(3)

  constructor(
    private readonly source: CurveSource,
    panels: number,
  ) {
    source.sample(0, 0, this.at)
    this.originX = this.at[0]!
    this.originY = this.at[1]!
    this.measure(panels)
  }

  /** Length of the parameter's range. */
  get parts(): number {
    return this.source.parts
  }

  /** Panels between two parameters. */
  panelsIn(from: number, to: number): number {
    return (to - from) * this.panels
  }

  /** Halves the panels. */
  refine(): void {
    this.measure(this.panels * 2)
  }

  private measure(panels: number): void {
    const { source, at } = this
    this.panels = panels
    const all = source.parts * panels
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
      const part = Math.floor(panel / panels)
      const t0 = (panel - part * panels) / panels
      source.sample(part, t0, at)
      this.keep(k++, part + t0)
      let a = 0
      let b = 0
      let c = 0
      for (let i = 0; i < 3; i++) {
        const t = t0 + PLACES[i]! / panels
        source.sample(part, t, at)
        this.keep(k++, part + t)
        const x = at[0]! - this.originX
        const y = at[1]! - this.originY
        const dx = (at[2]! * WEIGHTS[i]!) / panels
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
    const { panels } = this
    let k = Math.max(0, Math.floor(u * panels + 1e-9) * PER_PANEL)
    while (k < this.count && this.u[k]! <= u + 1e-12) k++
    return k
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
    this.running(from, false, this.low)
    this.running(to, true, this.high)
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
  private running(u: number, fromBelow: boolean, out: Float64Array): void {
    const { panels, at } = this
    let panel = Math.min(this.source.parts * panels, Math.floor(u * panels + 1e-9))
    if (fromBelow && panel > 0 && u * panels - panel < 1e-9) panel = Math.round(u * panels)
    out[0] = this.sums[3 * panel]!
    out[1] = this.sums[3 * panel + 1]!
    out[2] = this.sums[3 * panel + 2]!
    const part = Math.min(this.source.parts - 1, Math.floor(panel / panels))
    const t0 = (panel - part * panels) / panels
    const width = u - part - t0
    if (width < 1e-12) return
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
