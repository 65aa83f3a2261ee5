import { lastUpTo } from '../geometry/search'
import { panelStarts } from './panels'
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
 * stretch over its chord follow at once. Each part is cut into panels, shorter where the curve turns more, with samples
 * at their starts and at the places of a Gauss rule, which serve both the integrals and the measuring of fits.
 */
export class MeasuredCurve {
  /** Number of panels, and the parameters at which they start, with the curve's end. */
  private panels = 0
  private marks: Float64Array
  /** Parameter, position, unit direction and room of each sample: four to a panel, and one at the end. */
  u = new Float64Array(0)
  x = new Float64Array(0)
  y = new Float64Array(0)
  tx = new Float64Array(0)
  ty = new Float64Array(0)
  room = new Float64Array(0)
  count = 0
  /** Integrals of y dx, x y dx and y^2 dx over each panel, about the curve's start, and their running sums. */
  private own = new Float64Array(0)
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
    const marks = panelStarts(source, grain)
    this.marks = new Float64Array(0)
    this.makeRoom(marks.length)
    this.marks.set(marks)
    this.marks[marks.length] = source.parts
    this.panels = marks.length
    for (let k = 0; k < this.panels; k++) this.measurePanel(k)
    this.finish()
  }

  /** Length of the parameter's range. */
  get parts(): number {
    return this.source.parts
  }

  /** Whole panels between two parameters. */
  panelsIn(from: number, to: number): number {
    return this.panelAt(to) - this.panelAt(from)
  }

  /** Halves the panels that a stretch touches; the others are left as they are. */
  refine(from: number, to: number): void {
    const first = this.panelAt(from)
    let end = this.panelAt(to)
    if (end < this.panels && this.marks[end]! < to) end++
    const more = end - first
    if (more <= 0) return
    this.makeRoom(this.panels + more)
    const { marks } = this
    for (let k = this.panels; k >= end; k--) marks[k + more] = marks[k]!
    const tail = end * PER_PANEL
    for (const of of [this.u, this.x, this.y, this.tx, this.ty, this.room]) of.copyWithin(tail + more * PER_PANEL, tail, this.count)
    this.own.copyWithin(3 * (end + more), 3 * end, 3 * this.panels)
    for (let k = end - 1; k >= first; k--) {
      const a = marks[k]!
      const b = k === end - 1 ? marks[end + more]! : marks[first + 2 * (k + 1 - first)]!
      marks[first + 2 * (k - first)] = a
      marks[first + 2 * (k - first) + 1] = (a + b) / 2
    }
    this.panels += more
    for (let k = first; k < end + more; k++) this.measurePanel(k)
    this.finish()
  }

  /** The panel that holds `u`; the curve's end belongs to one past the last. */
  private panelAt(u: number): number {
    return lastUpTo(this.marks, u, this.panels)
  }

  private makeRoom(panels: number): void {
    if (panels + 1 <= this.marks.length) return
    const n = 2 * panels + 8
    this.marks = grown(this.marks, n)
    this.u = grown(this.u, n * PER_PANEL)
    this.x = grown(this.x, n * PER_PANEL)
    this.y = grown(this.y, n * PER_PANEL)
    this.tx = grown(this.tx, n * PER_PANEL)
    this.ty = grown(this.ty, n * PER_PANEL)
    this.room = grown(this.room, n * PER_PANEL)
    this.own = grown(this.own, 3 * n)
    this.sums = grown(this.sums, 3 * n)
  }

  private measurePanel(panel: number): void {
    const { source, at, marks } = this
    const part = Math.floor(marks[panel]!)
    const t0 = marks[panel]! - part
    const width = marks[panel + 1]! - marks[panel]!
    let k = panel * PER_PANEL
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
    this.own[3 * panel] = a
    this.own[3 * panel + 1] = b
    this.own[3 * panel + 2] = c
  }

  /** The sample at the curve's end, and the running sums. */
  private finish(): void {
    const { source, own, sums, panels } = this
    this.count = panels * PER_PANEL + 1
    source.sample(source.parts - 1, 1, this.at)
    this.keep(panels * PER_PANEL, source.parts)
    for (let i = 0; i < 3 * panels; i++) sums[i + 3] = sums[i]! + own[i]!
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
    if (!(width > 0) || panel === this.panels) return
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

function grown(old: Float64Array, n: number): Float64Array<ArrayBuffer> {
  const more = new Float64Array(n)
  more.set(old)
  return more
}
