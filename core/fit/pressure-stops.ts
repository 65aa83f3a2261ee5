import type { PenTrace, WidthStop } from '../drawing/model'

/** Half-width factor at no pressure and its growth to full pressure. */
const LIGHTEST = 0.15
/** How far the stops' profile may lie from the pressure's, as a share of the full width. */
const TOLERANCE = 0.06

/**
 * The pressure of a trace as few width stops. Devices that report no pressure (a mouse says the same throughout) give
 * one even stop.
 */
export function pressureStops(trace: PenTrace): WidthStop[] {
  const { samples } = trace
  const pressures = samples.map((s) => s.pressure)
  const low = Math.min(...pressures)
  const high = Math.max(...pressures)
  if (trace.device === 'mouse' || high - low < 0.02) return [{ at: 0, left: 1, right: 1 }]
  const points = alongTrace(trace)
  const keep = new Set([0, points.length - 1])
  split(points, 0, points.length - 1, keep)
  return [...keep]
    .sort((a, b) => a - b)
    .map((i) => ({ at: points[i]!.s, left: points[i]!.w, right: points[i]!.w }))
}

interface WidthPoint {
  s: number
  w: number
}

/** Width factor by share of the trace's length, lightly averaged over neighbouring samples. */
function alongTrace({ samples, response }: PenTrace): WidthPoint[] {
  const lengths = [0]
  for (let i = 1; i < samples.length; i++) {
    lengths.push(lengths[i - 1]! + Math.hypot(samples[i]!.x - samples[i - 1]!.x, samples[i]!.y - samples[i - 1]!.y))
  }
  const total = lengths[lengths.length - 1]! || 1
  return samples.map((_, i) => {
    let sum = 0
    let count = 0
    for (let k = Math.max(0, i - 2); k <= Math.min(samples.length - 1, i + 2); k++) {
      sum += samples[k]!.pressure
      count++
    }
    return { s: lengths[i]! / total, w: LIGHTEST + (1 - LIGHTEST) * (sum / count) ** response }
  })
}

/** Keeps the farthest point of a span from its chord while it is too far (D. Douglas and T. Peucker, 1973). */
function split(points: readonly WidthPoint[], from: number, to: number, keep: Set<number>): void {
  const a = points[from]!
  const b = points[to]!
  let worst = TOLERANCE
  let at = -1
  for (let i = from + 1; i < to; i++) {
    const p = points[i]!
    const u = b.s > a.s ? (p.s - a.s) / (b.s - a.s) : 0
    const off = Math.abs(p.w - (a.w + (b.w - a.w) * u))
    if (off > worst) {
      worst = off
      at = i
    }
  }
  if (at < 0) return
  keep.add(at)
  split(points, from, at, keep)
  split(points, at, to, keep)
}
