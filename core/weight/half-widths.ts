import type { Line, Weight } from '../drawing/model'
import { Profile, SAME_PLACE } from './profile'
import type { SizedTaper } from './taper'
import { sizeTapers, taperAt } from './taper'

/** Half-widths in px and their slopes per px of arc length. */
export interface HalfWidths {
  left: number
  right: number
  leftSlope: number
  rightSlope: number
}

/** Half-widths along a line of `total` px: size / 2 x profile x tapers, moved to one side by the alignment. */
export class LineWidth {
  private readonly profile: Profile
  private readonly start: SizedTaper | null
  private readonly end: SizedTaper | null
  /** Arc lengths (px) at which the width is not smooth: stops and the inner ends of tapers. */
  readonly breaks: number[]

  constructor(
    private readonly weight: Weight,
    private readonly align: Line['finish']['align'],
    readonly total: number,
    closed: boolean,
  ) {
    this.profile = new Profile(weight.stops, closed)
    const tapers = closed ? { start: null, end: null } : sizeTapers(weight.start, weight.end, total)
    this.start = tapers.start
    this.end = tapers.end
    this.breaks = weight.stops.map((s) => s.at * total)
    if (this.start) this.breaks.push(this.start.length)
    if (this.end) this.breaks.push(total - this.end.length)
  }

  /** Whether the width has infinite slope at the start or end: a round taper's tip. */
  get roundStart(): boolean {
    return this.start?.taper.ease === 'round'
  }

  get roundEnd(): boolean {
    return this.end?.taper.ease === 'round'
  }

  /** Both tapers' factor at arc length `s` px, and its slope per px; at a taper's inner end that of the side asked for. */
  private taper(s: number, fromBelow: boolean): { value: number; slope: number } {
    const nudge = SAME_PLACE * this.total
    const inStart = this.start && s < this.start.length + (fromBelow ? nudge : -nudge)
    const inEnd = this.end && this.total - s < this.end.length + (fromBelow ? -nudge : nudge)
    const start = inStart ? taperAt(this.start!, Math.min(s, this.start!.length - nudge)) : { value: 1, slope: 0 }
    const end = inEnd ? taperAt(this.end!, Math.min(this.total - s, this.end!.length - nudge)) : { value: 1, slope: 0 }
    return { value: start.value * end.value, slope: start.slope * end.value - start.value * end.slope }
  }

  /** The profile's factor that puts the ink's edge `half` px from the centreline at arc length `s`; 0 at a taper's very tip. */
  factorFor(half: number, s: number): number {
    const sides = this.align === 'centre' ? 1 : 2
    const scale = (this.weight.size / 2) * this.taper(s, false).value * sides
    return scale > 0 ? half / scale : 0
  }

  /** At arc length `s` px; `fromBelow` takes the values that arrive there. */
  at(s: number, fromBelow = false): HalfWidths {
    const { total } = this
    const u = total > 0 ? Math.min(1, Math.max(0, s / total)) : 0
    const half = this.weight.size / 2
    const l = this.profile.sampleLeft(u, fromBelow)
    const r = this.profile.sampleRight(u, fromBelow)
    const perPx = total > 0 ? 1 / total : 0
    const { value: factor, slope: factorSlope } = this.taper(s, fromBelow)
    const left = half * l.value * factor
    const right = half * r.value * factor
    const leftSlope = half * (l.slope * perPx * factor + l.value * factorSlope)
    const rightSlope = half * (r.slope * perPx * factor + r.value * factorSlope)
    if (this.align === 'centre') return { left, right, leftSlope, rightSlope }
    const whole = { width: left + right, slope: leftSlope + rightSlope }
    return this.align === 'left'
      ? { left: whole.width, right: 0, leftSlope: whole.slope, rightSlope: 0 }
      : { left: 0, right: whole.width, leftSlope: 0, rightSlope: whole.slope }
  }
}
