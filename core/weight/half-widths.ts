import type { Line, Weight } from '../model/model'
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

/** The slope of the tapers' factor last asked for. */
let taperSlope = 0

/** No half-width of a line is greater than this, px: found without its profile. */
export function widestHalfWidth({ size, stops, start, end }: Weight, align: Line['finish']['align']): number {
  let most = 0
  for (const s of stops) most = Math.max(most, align === 'centre' ? Math.max(s.left, s.right) : s.left + s.right)
  const tips = Math.max(1, start?.tip ?? 0, end?.tip ?? 0)
  return (size / 2) * most * tips * tips
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

  /** No half-width is greater than this, px. */
  get widest(): number {
    return widestHalfWidth(this.weight, this.align)
  }

  /** Whether the width has infinite slope at the start or end: a round taper's tip. */
  get roundStart(): boolean {
    return this.start?.taper.ease === 'round'
  }

  get roundEnd(): boolean {
    return this.end?.taper.ease === 'round'
  }

  /**
   * Both tapers' factor at arc length `s` px; its slope per px goes to `taperSlope`. At a taper's inner end they are
   * those of the side asked for.
   */
  private taper(s: number, fromBelow: boolean): number {
    const { start, end, total } = this
    const nudge = SAME_PLACE * total
    let value = 1
    taperSlope = 0
    if (start && s < start.length + (fromBelow ? nudge : -nudge)) {
      const at = taperAt(start, Math.min(s, start.length - nudge))
      value = at.value
      taperSlope = at.slope
    }
    if (end && total - s < end.length + (fromBelow ? -nudge : nudge)) {
      const at = taperAt(end, Math.min(total - s, end.length - nudge))
      taperSlope = taperSlope * at.value - value * at.slope
      value *= at.value
    }
    return value
  }

  /** The profile's factor that puts the ink's edge `half` px from the centreline at arc length `s`; 0 at a taper's very tip. */
  factorFor(half: number, s: number): number {
    const sides = this.align === 'centre' ? 1 : 2
    const scale = (this.weight.size / 2) * this.taper(s, false) * sides
    return scale > 0 ? half / scale : 0
  }

  /** At arc length `s` px; `fromBelow` takes the values that arrive there. */
  at(s: number, fromBelow = false): HalfWidths {
    const out = new Float64Array(4)
    this.sample(s, fromBelow, out)
    return { left: out[0]!, right: out[1]!, leftSlope: out[2]!, rightSlope: out[3]! }
  }

  /** As `at`, without objects: left and right half-width, left and right slope, to out[0..3]. */
  sample(s: number, fromBelow: boolean, out: Float64Array): void {
    const { total } = this
    const u = total > 0 ? Math.min(1, Math.max(0, s / total)) : 0
    const half = this.weight.size / 2
    this.profile.sampleBoth(u, fromBelow, out)
    let factor = half
    let factorSlope = 0
    if (this.start || this.end) {
      factor *= this.taper(s, fromBelow)
      factorSlope = half * taperSlope
    }
    const perPx = total > 0 ? factor / total : 0
    out[2] = out[2]! * perPx + out[0]! * factorSlope
    out[3] = out[3]! * perPx + out[1]! * factorSlope
    out[0]! *= factor
    out[1]! *= factor
    if (this.align === 'centre') return
    const to = this.align === 'left' ? 0 : 1
    out[to] = out[0]! + out[1]!
    out[2 + to] = out[2]! + out[3]!
    out[1 - to] = 0
    out[3 - to] = 0
  }
}
