import type { PenTrace, TraceSample } from '../model/model'
import { smoothNoise } from '../geometry/noise'

/** How far a line thins at no pressure where its trace does not say: that of traces from before they could. */
export const VARIATION = 0.85
/** Speed of the hand at which a line is half way between its widest and thinnest, px a ms. */
const MIDDLING_SPEED = 0.6
/** Speeds are averaged over so many samples on either side. */
const SPEED_WINDOW = 4
/** Pressures are averaged over so many samples on either side. */
const PRESSURE_WINDOW = 2
/** Length over which a random variation swings, px. */
const SWING = 45
/** Pressures that differ by less than this over a whole trace are none: the device has no pressure. */
const SAME_PRESSURE = 0.02

/** A width factor (1 is the line's size) at a share 0..1 of a trace's length. */
export interface WidthPoint {
  s: number
  w: number
}

/** How a pressure 0..1 counts, 0..1: from the least that counts to the most, by the curve's exponent. */
export function responseTo(
  pressure: number,
  { response, least = 0, most = 1 }: Pick<PenTrace, 'response' | 'least' | 'most'>,
): number {
  const u = most > least ? (pressure - least) / (most - least) : pressure >= most ? 1 : 0
  return Math.min(1, Math.max(0, u)) ** response
}

/** Whether the samples hold pressure that a hand has varied. */
export function hasPressure({ samples, device }: Pick<PenTrace, 'samples' | 'device'>): boolean {
  if (device === 'mouse') return false
  let [low, high] = [Infinity, -Infinity]
  for (const { pressure } of samples) {
    low = Math.min(low, pressure)
    high = Math.max(high, pressure)
  }
  return high - low >= SAME_PRESSURE
}

/** Width factors along a trace by pressure, speed and unevenness; null where none of them says anything. */
export function pressureWidths(trace: PenTrace): WidthPoint[] | null {
  const { samples, variation = VARIATION, unevenness = 0 } = trace
  const pressed = hasPressure(trace)
  if (!pressed && !trace.fromSpeed && !unevenness) return null
  const lengths = lengthsOf(samples)
  const total = lengths[lengths.length - 1]! || 1
  const force = pressed
    ? averaged(
        samples.map((s) => s.pressure),
        PRESSURE_WINDOW,
      )
    : trace.fromSpeed
      ? slowness(samples, lengths)
      : null
  return samples.map((_, i) => {
    const base = force ? 1 - variation * (1 - responseTo(force[i]!, trace)) : 1
    return { s: lengths[i]! / total, w: Math.max(0, base * (1 + unevenness * smoothNoise(lengths[i]! / SWING))) }
  })
}

/** Points that lie closer than `apart` along the line as one: where a hand rests, its pressure has no single width. */
export function gathered(points: readonly WidthPoint[], apart: number): WidthPoint[] {
  const out: { s: number; w: number; count: number; first: number }[] = []
  for (const { s, w } of points) {
    const last = out[out.length - 1]
    if (!last || s - last.first >= apart) out.push({ s, w, count: 1, first: s })
    else {
      last.w += (w - last.w) / ++last.count
      last.s += (s - last.s) / last.count
    }
  }
  return out.map(({ s, w }) => ({ s, w }))
}

function lengthsOf(samples: readonly TraceSample[]): number[] {
  const lengths = [0]
  for (let i = 1; i < samples.length; i++) {
    lengths.push(lengths[i - 1]! + Math.hypot(samples[i]!.x - samples[i - 1]!.x, samples[i]!.y - samples[i - 1]!.y))
  }
  return lengths
}

/** Each value as the mean of those up to `window` places away. */
function averaged(values: readonly number[], window: number): number[] {
  return values.map((_, i) => {
    const near = values.slice(Math.max(0, i - window), i + window + 1)
    return near.reduce((a, b) => a + b, 0) / near.length
  })
}

/** 1 where the hand rests, towards 0 the faster it goes; stands in for pressure. */
function slowness(samples: readonly TraceSample[], lengths: readonly number[]): number[] {
  const speeds = samples.map((_, i) => {
    const [a, b] = [Math.max(0, i - SPEED_WINDOW), Math.min(samples.length - 1, i + SPEED_WINDOW)]
    const time = samples[b]!.t - samples[a]!.t
    return time > 0 ? (lengths[b]! - lengths[a]!) / time : 0
  })
  return averaged(speeds, SPEED_WINDOW).map((v) => MIDDLING_SPEED / (MIDDLING_SPEED + v))
}
