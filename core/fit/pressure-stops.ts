import type { PenTrace, WidthStop } from '../drawing/model'
import type { WidthPoint } from './pressure-widths'
import { pressureWidths } from './pressure-widths'

/** How far the stops' profile may lie from the pressure's, as a share of the full width. */
const TOLERANCE = 0.06

/** The widths of a trace as few width stops; one even stop where neither pressure nor speed says anything. */
export function pressureStops(trace: PenTrace): WidthStop[] {
  const points = pressureWidths(trace)
  if (!points || points.length < 2) return [{ at: 0, left: 1, right: 1 }]
  const keep = new Set([0, points.length - 1])
  split(points, 0, points.length - 1, keep)
  return [...keep]
    .sort((a, b) => a - b)
    .map((i) => ({ at: points[i]!.s, left: points[i]!.w, right: points[i]!.w }))
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
