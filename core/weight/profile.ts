import type { WidthStop } from '../model/model'

/** A width factor and its slope with respect to the place 0..1. */
export interface WidthSample {
  value: number
  slope: number
}

/** One side of a profile: a piecewise cubic Hermite over the places of its stops. */
interface Side {
  at: readonly number[]
  value: readonly number[]
  /** Slope arriving at and leaving each stop; they differ at sharp stops only. */
  arrive: readonly number[]
  leave: readonly number[]
}

/** Left and right half-width factors along a line. */
export class Profile {
  private readonly left: Side
  private readonly right: Side

  /** `stops` in any order, at least one; `closed` wraps the profile so that it meets itself without a seam. */
  constructor(stops: readonly WidthStop[], closed: boolean) {
    const sorted = [...stops].sort((a, b) => a.at - b.at)
    const wraps = closed && sorted.length > 1
    this.left = monotoneSide(sorted, (s) => s.left, wraps)
    this.right = monotoneSide(sorted, (s) => s.right, wraps)
  }

  /** Factor and slope of the left side at `s` in 0..1. `fromBelow` takes the slope that arrives at a sharp stop. */
  sampleLeft(s: number, fromBelow = false): WidthSample {
    return { value: sampleSide(this.left, s, fromBelow), slope: sampledSlope }
  }

  sampleRight(s: number, fromBelow = false): WidthSample {
    return { value: sampleSide(this.right, s, fromBelow), slope: sampledSlope }
  }

  /** As both of these in one, without objects: left and right value, left and right slope, to out[0..3]. */
  sampleBoth(s: number, fromBelow: boolean, out: Float64Array): void {
    out[0] = sampleSide(this.left, s, fromBelow)
    out[2] = sampledSlope
    out[1] = sampleSide(this.right, s, fromBelow)
    out[3] = sampledSlope
  }
}

/** Monotone slopes by F. N. Fritsch and R. E. Carlson, Monotone Piecewise Cubic Interpolation, 1980. */
function monotoneSide(stops: readonly WidthStop[], width: (s: WidthStop) => number, wraps: boolean): Side {
  const n = stops.length
  const at = stops.map((s) => s.at)
  const value = stops.map(width)
  // Span i leads from stop i to the next one; on a closed line the last leads around to the first.
  const spans = wraps ? n : n - 1
  const next = (i: number): number => (i + 1) % n
  const secant: number[] = []
  for (let i = 0; i < spans; i++) {
    const step = at[next(i)]! + (next(i) > i ? 0 : 1) - at[i]!
    secant.push(step > 1e-12 ? (value[next(i)]! - value[i]!) / step : 0)
  }
  const arrive = new Array<number>(n).fill(0)
  const leave = new Array<number>(n).fill(0)
  for (let i = 0; i < n; i++) {
    const before = secant[wraps ? (i + n - 1) % n : i - 1] ?? secant[i] ?? 0
    const after = secant[i] ?? before
    if (stops[i]!.sharp) {
      arrive[i] = before
      leave[i] = after
    } else {
      arrive[i] = leave[i] = before * after > 0 ? (before + after) / 2 : 0
    }
  }
  for (let i = 0; i < spans; i++) {
    const d = secant[i]!
    const j = next(i)
    if (d === 0) {
      leave[i] = arrive[j] = 0
      continue
    }
    const alpha = leave[i]! / d
    const beta = arrive[j]! / d
    const squared = alpha * alpha + beta * beta
    if (squared <= 9) continue
    const tau = 3 / Math.sqrt(squared)
    leave[i] = tau * alpha * d
    arrive[j] = tau * beta * d
    if (!stops[i]!.sharp) arrive[i] = leave[i]!
    if (!stops[j]!.sharp) leave[j] = arrive[j]!
  }
  const side = { at, value, arrive, leave }
  return wraps ? aroundTheSeam(side) : side
}

/** A closed line's side with a copy of the last stop before 0 and of the first after 1. */
function aroundTheSeam({ at, value, arrive, leave }: Side): Side {
  const around = (of: readonly number[], shift: number): number[] => [of[of.length - 1]! - shift, ...of, of[0]! + shift]
  return { at: around(at, 1), value: around(value, 0), arrive: around(arrive, 0), leave: around(leave, 0) }
}

/** Places that differ by no more than this are one: arc lengths are not exact. */
export const SAME_PLACE = 1e-9

/** The slope at the place that `sampleSide` was last asked for. */
let sampledSlope = 0

/** The factor at `s`; its slope goes to `sampledSlope`. */
function sampleSide(side: Side, s: number, fromBelow: boolean): number {
  const { at, value, arrive, leave } = side
  const n = at.length
  sampledSlope = 0
  if (s < at[0]! - SAME_PLACE || (fromBelow && s <= at[0]! + SAME_PLACE)) return value[0]!
  let i = n - 1
  while (i > 0 && (fromBelow ? at[i]! >= s - SAME_PLACE : at[i]! > s + SAME_PLACE)) i--
  if (i === n - 1) return value[n - 1]!
  const h = at[i + 1]! - at[i]!
  if (h <= 1e-12) return fromBelow ? value[i]! : value[i + 1]!
  const u = (s - at[i]!) / h
  const y0 = value[i]!
  const y1 = value[i + 1]!
  const m0 = leave[i]! * h
  const m1 = arrive[i + 1]! * h
  const u2 = u * u
  const u3 = u2 * u
  sampledSlope = (y0 * (6 * u2 - 6 * u) + m0 * (3 * u2 - 4 * u + 1) + y1 * (6 * u - 6 * u2) + m1 * (3 * u2 - 2 * u)) / h
  return Math.max(0, y0 * (2 * u3 - 3 * u2 + 1) + m0 * (u3 - 2 * u2 + u) + y1 * (3 * u2 - 2 * u3) + m1 * (u3 - u2))
}
