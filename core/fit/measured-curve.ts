import { grownFloats } from '../geometry/grown'
import { lastUpTo } from '../geometry/search'
import type { Sample, TakePanel } from './panels'
import { FIRST_HALF, PER_PANEL, PLACES, WEIGHTS } from './panel-rule'
import { eachPanel, newSample } from './panels'
import type { CurveSource } from './source'

/** A chain that turns by less than 0.6 radians at a joint goes on smoothly there: the cosine of that. */
const SMOOTH = Math.cos(0.6)

/** Where a curve is slower than this share of its pace nearby, its direction is taken from so far inside the panel. */
const STILL = 1e-6
const INSIDE = 1e-5

const NOTHING: CurveSource = { parts: 0, sample: () => undefined }

/**
 * A curve with samples along it, and running sums of three integrals from which the area and the first moment of any
 * stretch over its chord follow at once. Each part is cut into panels, shorter where the curve turns more, with samples
 * at their starts and at the places of a Gauss rule, which serve both the integrals and the measuring of fits.
 *
 * Stretches begin and end at stations, the starts and middles of panels: station 2p is the start of panel p, 2p + 1 its
 * middle, and the last is the curve's end. A station is sample 2 x its number.
 */
export class MeasuredCurve {
  private panels = 0
  /** Parameter, position, unit direction and room of each sample: four to a panel, and one at the end. */
  u = new Float64Array(0)
  x = new Float64Array(0)
  y = new Float64Array(0)
  tx = new Float64Array(0)
  ty = new Float64Array(0)
  room = new Float64Array(0)
  /** Position and unit direction at each panel's end, as seen from within it. */
  private endX = new Float64Array(0)
  private endY = new Float64Array(0)
  private endTx = new Float64Array(0)
  private endTy = new Float64Array(0)
  /** Length of the curve up to each station, px, as measured along the samples. */
  private lengths = new Float64Array(0)
  /** Integrals of y dx, x y dx and y^2 dx over each half of a panel, about the curve's start, and their running sums. */
  private own = new Float64Array(0)
  private sums = new Float64Array(0)
  private originX = 0
  private originY = 0
  private source: CurveSource = NOTHING
  private readonly left: Sample = newSample()
  private readonly before: Sample = newSample()
  private readonly mid: Sample = newSample()
  private readonly after: Sample = newSample()
  private readonly right: Sample = newSample()

  /**
   * Measures a source in place of the one before; the arrays are used again.
   *
   * @param grain px: turns within less than this do not matter
   */
  load(source: CurveSource, grain: number): this {
    this.source = source
    source.sample(0, 0, this.before)
    this.originX = this.before[0]!
    this.originY = this.before[1]!
    this.panels = 0
    eachPanel(source, grain, this.append)
    this.finish(0)
    return this
  }

  private readonly append: TakePanel = (part, t0, t1, left, mid, right) => {
    this.makeRoom(this.panels + 1)
    this.measure(this.panels++, part, t0, t1, left, mid, right)
  }

  /** Length of the parameter's range. */
  get parts(): number {
    return this.source.parts
  }

  /** The last station. */
  get last(): number {
    return 2 * this.panels
  }

  /** Parameter of a station. */
  at(station: number): number {
    return this.u[2 * station]!
  }

  /** The last station that is not beyond `u`. */
  stationUpTo(u: number): number {
    const sample = lastUpTo(this.u, u, this.panels * PER_PANEL)
    return sample >> 1
  }

  /** Length of the curve up to a station, px. */
  lengthTo(station: number): number {
    return this.lengths[station]!
  }

  /** The station at which the curve is about `length` px long. */
  stationAt(length: number): number {
    const { lengths } = this
    const station = lastUpTo(lengths, length, this.last)
    return station < this.last && lengths[station + 1]! - length < length - lengths[station]! ? station + 1 : station
  }

  /** Whole panels between two stations. */
  panelsIn(from: number, to: number): number {
    return (to >> 1) - (from >> 1)
  }

  /**
   * Halves the panels that a stretch touches, or of them only those with samples farther apart than `gap` px. The others
   * are left as they are. Stations are numbered anew.
   */
  refine(from: number, to: number, gap = 0): void {
    const { left, mid, right, source } = this
    const first = from >> 1
    for (let panel = ((to + 1) >> 1) - 1; panel >= first; panel--) {
      if (gap > 0 && !this.hasGap(panel, gap)) continue
      const k = panel * PER_PANEL
      const part = Math.floor(this.u[k]!)
      const t0 = this.u[k]! - part
      const t1 = this.u[k + PER_PANEL]! - part
      const t = (t0 + t1) / 2
      this.insertPanel(panel)
      source.sample(part, t0, left)
      source.sample(part, (t0 + t) / 2, mid)
      source.sample(part, t, right)
      this.measure(panel, part, t0, t, left, mid, right)
      source.sample(part, (t + t1) / 2, mid)
      source.sample(part, t1, left)
      this.measure(panel + 1, part, t, t1, right, mid, left)
    }
    this.finish(first)
  }

  private hasGap(panel: number, gap: number): boolean {
    const k = panel * PER_PANEL
    for (let i = k; i < k + PER_PANEL; i++) {
      if ((this.x[i + 1]! - this.x[i]!) ** 2 + (this.y[i + 1]! - this.y[i]!) ** 2 > gap * gap) return true
    }
    return false
  }

  /** Makes room for one more panel before `panel`. */
  private insertPanel(panel: number): void {
    this.makeRoom(this.panels + 1)
    const k = panel * PER_PANEL
    for (const of of [this.u, this.x, this.y, this.tx, this.ty, this.room])
      of.copyWithin(k + PER_PANEL, k, this.panels * PER_PANEL + 1)
    for (const of of [this.endX, this.endY, this.endTx, this.endTy]) of.copyWithin(panel + 1, panel, this.panels)
    this.own.copyWithin(6 * panel + 6, 6 * panel, 6 * this.panels)
    this.panels++
  }

  private makeRoom(panels: number): void {
    if (panels * PER_PANEL + 1 <= this.u.length) return
    const n = 2 * panels
    const samples = n * PER_PANEL + 1
    this.u = grownFloats(this.u, samples)
    this.x = grownFloats(this.x, samples)
    this.y = grownFloats(this.y, samples)
    this.tx = grownFloats(this.tx, samples)
    this.ty = grownFloats(this.ty, samples)
    this.room = grownFloats(this.room, samples)
    this.endX = grownFloats(this.endX, n)
    this.endY = grownFloats(this.endY, n)
    this.endTx = grownFloats(this.endTx, n)
    this.endTy = grownFloats(this.endTy, n)
    this.lengths = grownFloats(this.lengths, 2 * n + 1)
    this.own = grownFloats(this.own, 6 * n)
    this.sums = grownFloats(this.sums, 6 * n + 3)
  }

  /** Fills a panel from the samples at its ends and in its middle, and from two more. */
  private measure(panel: number, part: number, t0: number, t1: number, left: Sample, mid: Sample, right: Sample): void {
    const { before, after, own, source } = this
    const width = t1 - t0
    source.sample(part, t0 + PLACES[0]! * width, before)
    source.sample(part, t0 + PLACES[2]! * width, after)
    const k = panel * PER_PANEL
    this.keep(k, part + t0, left)
    this.keep(k + 1, part + t0 + PLACES[0]! * width, before)
    this.keep(k + 2, part + (t0 + t1) / 2, mid)
    this.keep(k + 3, part + t0 + PLACES[2]! * width, after)
    this.endX[panel] = right[0]!
    this.endY[panel] = right[1]!
    const at = 6 * panel
    own.fill(0, at, at + 6)
    this.weigh(at, left, FIRST_HALF[0]! * width, 0)
    this.weigh(at, before, FIRST_HALF[1]! * width, WEIGHTS[0]! * width)
    this.weigh(at, mid, FIRST_HALF[2]! * width, WEIGHTS[1]! * width)
    this.weigh(at, after, FIRST_HALF[3]! * width, WEIGHTS[2]! * width)
    this.weigh(at, right, FIRST_HALF[4]! * width, 0)
    for (let i = at; i < at + 3; i++) own[i + 3]! -= own[i]!
    // The ends' directions come last: where there is none they are those of just inside the panel.
    if (isStill(left, mid)) {
      source.sample(part, t0 + INSIDE * width, before)
      this.tx[k] = unit(before, 2)
      this.ty[k] = unit(before, 3)
    }
    if (isStill(right, mid)) source.sample(part, t1 - INSIDE * width, after)
    const last = isStill(right, mid) ? after : right
    this.endTx[panel] = unit(last, 2)
    this.endTy[panel] = unit(last, 3)
  }

  private keep(k: number, u: number, of: Sample): void {
    this.u[k] = u
    this.x[k] = of[0]!
    this.y[k] = of[1]!
    this.tx[k] = unit(of, 2)
    this.ty[k] = unit(of, 3)
    this.room[k] = of[4]!
  }

  /** Adds a sample's share of the integrals over the first half of a panel, and over all of it, to own[at..at + 5]. */
  private weigh(at: number, of: Sample, half: number, whole: number): void {
    const { own } = this
    const x = of[0]! - this.originX
    const y = of[1]! - this.originY
    const dx = of[2]!
    own[at]! += y * dx * half
    own[at + 1]! += x * y * dx * half
    own[at + 2]! += y * y * dx * half
    own[at + 3]! += y * dx * whole
    own[at + 4]! += x * y * dx * whole
    own[at + 5]! += y * y * dx * whole
  }

  /** The sample at the curve's end, and the running sums from a panel on. */
  private finish(from: number): void {
    const { x, y, lengths, own, sums, panels, endX, endY, endTx, endTy } = this
    const k = panels * PER_PANEL
    this.u[k] = this.source.parts
    this.x[k] = endX[panels - 1]!
    this.y[k] = endY[panels - 1]!
    this.tx[k] = endTx[panels - 1]!
    this.ty[k] = endTy[panels - 1]!
    this.room[k] = this.room[k - 1]!
    for (let i = 6 * from; i < 6 * panels; i++) sums[i + 3] = sums[i]! + own[i]!
    let length = lengths[2 * from]!
    for (let i = 4 * from; i < 4 * panels; i++) {
      length += Math.sqrt((x[i + 1]! - x[i]!) ** 2 + (y[i + 1]! - y[i]!) ** 2)
      if (i & 1) lengths[(i + 1) >> 1] = length
    }
  }

  /** Position at a station, seen from below or above where a joint lies there, to out[0..1]. */
  point(station: number, fromBelow: boolean, out: Float64Array): void {
    const below = fromBelow && station > 0 && !(station & 1)
    out[0] = below ? this.endX[(station >> 1) - 1]! : this.x[2 * station]!
    out[1] = below ? this.endY[(station >> 1) - 1]! : this.y[2 * station]!
  }

  /**
   * Unit direction of travel at a station, the end or the start of a stretch, to out[0..1]. At a joint within the curve
   * that turns but little it is the mean of both sides', so that fits meet there smoothly. False where there is none.
   */
  direction(station: number, fromBelow: boolean, out: Float64Array): boolean {
    const k = 2 * station
    const panel = station >> 1
    let x = this.tx[k]!
    let y = this.ty[k]!
    if (!(station & 1) && panel > 0 && panel < this.panels) {
      const bx = this.endTx[panel - 1]!
      const by = this.endTy[panel - 1]!
      if (x * bx + y * by > SMOOTH) {
        const both = Math.sqrt((x + bx) ** 2 + (y + by) ** 2)
        x = (x + bx) / both
        y = (y + by) / both
      } else if (fromBelow) {
        x = bx
        y = by
      }
    }
    out[0] = x
    out[1] = y
    return x !== 0 || y !== 0
  }

  /**
   * Integrals over a stretch of y dx, x y dx and y^2 dx, with (px, py) as the origin, to out[0..2]. `dx` is how far the
   * stretch's end lies from its start, which is (px, py).
   */
  integrals(from: number, to: number, px: number, py: number, dx: number, out: Float64Array): void {
    const { sums } = this
    const a = sums[3 * to]! - sums[3 * from]!
    const b = sums[3 * to + 1]! - sums[3 * from + 1]!
    const c = sums[3 * to + 2]! - sums[3 * from + 2]!
    const ox = px - this.originX
    const oy = py - this.originY
    // With X = x - ox and Y = y - oy, expanded; the integrals of dx and x dx follow from the ends.
    const e = dx
    const f = dx * (ox + dx / 2)
    out[0] = a - oy * e
    out[1] = b - ox * a - oy * f + ox * oy * e
    out[2] = c - 2 * oy * a + oy * oy * e
  }
}

/** A sample's derivative over its size, along one axis (2 or 3); 0 where it vanishes. */
function unit(of: Sample, axis: 2 | 3): number {
  const speed = Math.sqrt(of[2]! * of[2]! + of[3]! * of[3]!)
  return speed > 0 ? of[axis]! / speed : 0
}

/** Whether a curve all but stands still at a sample, against another one. */
const isStill = (at: Sample, usual: Sample): boolean =>
  !(at[2]! * at[2]! + at[3]! * at[3]! > STILL * STILL * (usual[2]! * usual[2]! + usual[3]! * usual[3]!))
