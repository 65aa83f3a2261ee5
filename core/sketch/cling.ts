import type { Vec } from '../geometry/point'
import { along, leftNormal } from '../geometry/point'
import type { PencilMap } from './pencil-map'

/** Places across the way are so many grains apart. */
const ACROSS = 0.75
const MOST_ACROSS = 48
/** What it costs to leave the hand's place by all of the reach, against being on no pencil at all. */
const FAR = 0.45
/** What it costs to go off at a slant against going along. */
const SLANT = 1.2
/** A way that leaves the hand's by more than this for each px is none. */
const STEEPEST = 1.2
/** Pencil fainter than the one draws nothing; from the other on it draws all the way. */
const FAINT = 0.12
const PLAIN = 0.3
/** A gap in the pencil of so many places is passed over. */
const GAP = 26
/** How far a pull reaches along the way, in places. */
const SOFT = 3

/** Where the pencil's crest runs beside a way, and how much it draws there. */
export interface Drawn {
  crest: Vec[]
  /** 0..1; 0 where there is no pencil. */
  pull: number[]
}

/**
 * The crest of the pencil along a way: of all ways near the hand's the one that keeps on pencil, near the hand, and goes on
 * as the hand does, found at once for all of it (R. Bellman, Dynamic Programming, 1957). So it never hops to the next line
 * and back, and holds on to a line over a gap in it. Null where there is no pencil within reach.
 *
 * @param points about evenly spaced, a few grains apart, px of the page, without the hand's trembling
 * @param ways the direction at each, of unit length
 * @param reach px of the page
 */
export function crestAlong(
  points: readonly Vec[],
  ways: readonly Vec[],
  pencil: PencilMap,
  reach: number,
): Drawn | null {
  const n = points.length
  const half = Math.min(MOST_ACROSS, Math.ceil(reach / (ACROSS * pencil.grain)))
  if (n < 2 || half < 1) return null
  const step = reach / half
  const m = 2 * half + 1
  const normals = ways.map(leftNormal)
  const there = new Float32Array(n * m)
  let most = 0
  for (let i = 0; i < n; i++) {
    for (let k = 0; k < m; k++) {
      const s = pencil.strengthAlong(along(points[i]!, normals[i]!, (k - half) * step), ways[i]!)
      there[i * m + k] = s
      if (s > most) most = s
    }
  }
  if (most <= FAINT) return null
  const best = cheapest(points, normals, there, half, step)
  const offs = evened(best.map((k, i) => crestAbout(there, i, k, m, half) * step))
  return {
    crest: points.map((p, i) => along(p, normals[i]!, offs[i]!)),
    pull: evened(overGaps(best.map((k, i) => ramp(there[i * m + k]!)))),
  }
}

/** Of each place which one across it the cheapest way goes through. */
function cheapest(
  points: readonly Vec[],
  normals: readonly Vec[],
  there: Float32Array,
  half: number,
  step: number,
): number[] {
  const n = points.length
  const m = 2 * half + 1
  const from = new Int16Array(n * m)
  const cost = (i: number, k: number): number => FAR * ((k - half) / half) ** 2 + (1 - Math.min(1, there[i * m + k]!))
  let now = Float64Array.from({ length: m }, (_, k) => cost(0, k))
  for (let i = 1; i < n; i++) {
    const d = { x: points[i]!.x - points[i - 1]!.x, y: points[i]!.y - points[i - 1]!.y }
    const length = Math.hypot(d.x, d.y) || step
    // So far across the way the hand itself went: what it strayed by is taken back.
    const shift = (d.x * normals[i]!.x + d.y * normals[i]!.y) / step
    const window = Math.max(1, Math.ceil((STEEPEST * length) / step))
    const next = new Float64Array(m).fill(Infinity)
    for (let k = 0; k < m; k++) {
      const middle = k + shift
      for (let j = Math.max(0, Math.floor(middle) - window); j <= Math.min(m - 1, Math.ceil(middle) + window); j++) {
        const slant = ((middle - j) * step) / length
        const c = now[j]! + SLANT * slant * slant
        if (c < next[k]!) {
          next[k] = c
          from[i * m + k] = j
        }
      }
      next[k]! += cost(i, k)
    }
    now = next
  }
  let k = 0
  for (let j = 1; j < m; j++) if (now[j]! < now[k]!) k = j
  const best: number[] = new Array<number>(n)
  for (let i = n - 1; i >= 0; i--) {
    best[i] = k
    k = from[i * m + k]!
  }
  return best
}

/** The crest beside a place across the way, between the places: the top of a parabola through three. */
function crestAbout(there: Float32Array, i: number, k: number, m: number, half: number): number {
  if (k <= 0 || k >= m - 1) return k - half
  const [a, b, c] = [there[i * m + k - 1]!, there[i * m + k]!, there[i * m + k + 1]!]
  const bend = a - 2 * b + c
  const t = bend < 0 ? (a - c) / (2 * bend) : 0
  return k - half + Math.max(-0.5, Math.min(0.5, t))
}

/** Pulls that last over short gaps between pencil on both sides. */
function overGaps(pulls: readonly number[]): number[] {
  const out = [...pulls]
  let last = -1
  for (let i = 0; i < out.length; i++) {
    if (pulls[i]! < 0.5) continue
    if (last >= 0 && i - last <= GAP)
      for (let k = last + 1; k < i; k++) out[k] = Math.max(out[k]!, Math.min(pulls[last]!, pulls[i]!))
    last = i
  }
  return out
}

const ramp = (s: number): number => Math.min(1, Math.max(0, (s - FAINT) / (PLAIN - FAINT)))

/** Values smoothed by their neighbours; nothing stays nothing. */
function evened(values: readonly number[]): number[] {
  return values.map((_, i) => {
    let [sum, all] = [0, 0]
    if (values[i] === 0) return 0
    for (let d = -2 * SOFT; d <= 2 * SOFT; d++) {
      const v = values[i + d]
      if (v === undefined) continue
      const w = Math.exp(-(d * d) / (2 * SOFT * SOFT))
      sum += w * v
      all += w
    }
    return sum / all
  })
}
