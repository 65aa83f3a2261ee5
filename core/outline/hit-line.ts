import type { Cubic } from '../geometry/cubic'
import type { Path } from '../geometry/path'
import { cubicsOfPath } from '../geometry/path'
import { windingAt } from '../geometry/winding-at'
import type { Line, Shape } from '../model/model'
import { isShownAt } from '../relations/shown'
import { remembered } from '../remembered'
import { grown, isWithin } from '../geometry/bounds'
import { arcOfPath, boxOfPath } from '../geometry/known'
import type { Vec } from '../geometry/point'
import { dot, leftNormal, subtract } from '../geometry/point'
import { LineWidth, widestHalfWidth } from '../weight/half-widths'

/** A line near a point: where on it, as a share of its length, and how far its path is, px. */
export interface LineHit {
  line: Line
  at: number
  point: Vec
  distance: number
}

/** The place on a line nearest to `p`, when `p` lies on its ink there, on the side where that is, or within `within` px of its path. */
export function hitLine(line: Line, p: Vec, within: number): LineHit | null {
  const { nib } = line.weight
  const pad = Math.max(
    within,
    widestHalfWidth(line.weight, line.finish.align) * (nib ? Math.max(nib.width, nib.height) : 1),
  )
  if (!isWithin(p, grown(boxOfPath(line.path), pad))) return null
  const arc = arcOfPath(line.path)
  if (!arc.total) return null
  const near = arc.nearest(p)
  if (near.distance > pad) return null
  const width = new LineWidth(line.weight, line.finish.align, arc.total, line.path.closed)
  const point = arc.point(near.length)
  const normal = leftNormal(arc.tangent(near.length) ?? { x: 1, y: 0 })
  const { left, right } = width.at(near.length)
  const reach = nib
    ? ((left + right) / 2) * halfAcross(nib, normal)
    : dot(subtract(p, point), normal) >= 0
      ? left
      : right
  return near.distance > Math.max(within, reach)
    ? null
    : { line, at: near.length / arc.total, point, distance: near.distance }
}

/** Distances that differ by less than this, px, are the same: digits of a search for the nearest point are no order. */
const AS_NEAR = 1e-6

/**
 * The lines that have ink at a point, or a path within `within` px of it: the nearest first, of those as near the topmost.
 * What is snipped away is not there, unless `hiddenToo`.
 *
 * @param lines from the bottom of the stack to the top
 */
export function linesUnder(lines: readonly Line[], p: Vec, within: number, hiddenToo = false): LineHit[] {
  const hits = lines.flatMap((line) => {
    const hit = hitLine(line, p, within)
    return hit && (hiddenToo || isShownAt(line, hit.at)) ? [hit] : []
  })
  const steps = (hit: LineHit): number => Math.round(hit.distance / AS_NEAR)
  return hits.reverse().sort((a, b) => steps(a) - steps(b))
}

/** The topmost of some solids that has ink at a point. */
export const solidUnder = (solids: readonly Shape[], p: Vec): Shape | null =>
  solids.findLast(({ contours }) => windingAt(closedCubicsOf(contours), p) !== 0) ?? null

const closedCubicsOf = remembered((contours: readonly Path[]): Cubic[][] =>
  contours.map((c) => cubicsOfPath({ ...c, closed: true })),
)

/** How far an elliptical nib of scale 1 reaches along a direction: its support function. */
function halfAcross({ width, height, angle }: NonNullable<Line['weight']['nib']>, way: Vec): number {
  const turn = Math.atan2(way.y, way.x) - (angle * Math.PI) / 180
  return Math.hypot(width * Math.cos(turn), height * Math.sin(turn))
}
