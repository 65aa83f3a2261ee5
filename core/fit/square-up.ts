import type { Vec } from '../geometry/point'
import { add, along, cross, distance, dot, scale, subtract } from '../geometry/point'
import { cornersOf } from './trace-corners'

/** A run of a trace between two corners. */
export interface Run {
  points: Vec[]
  straight: boolean
}

/** Turns that count as corners here: wider and gentler ones than in a trace that is not squared up. */
const CORNER = { turn: 0.6, window: 10 }
/** A run is straight when it keeps this near to one line: grains, or a share of its length. */
const NEAR = 2.5
const NEAR_SHARE = 0.045
/** Straight runs that differ by less than this are one, radians. */
const SAME_WAY = 0.2
/** A corner moves to where its two lines meet when that is within so many grains. */
const CORNER_REACH = 14

/** A line through the points of a run: its middle and unit direction. */
interface Axis {
  middle: Vec
  way: Vec
}

/**
 * A trace as runs that meet at true corners: near-straight ones as two points, the others as they were drawn. The ends
 * of the trace stay; `grain` is the spacing of its points, px.
 */
export function squaredRuns(points: readonly Vec[], grain: number): Run[] {
  const cuts = merged(points, [0, ...cornersOf(points, CORNER), points.length - 1], grain)
  const axes = cuts.slice(1).map((to, i) => straightAxis(points.slice(cuts[i], to + 1), grain))
  const corners = cuts.map((cut, i) => {
    const p = points[cut]!
    return i === 0 || i === cuts.length - 1 ? p : cornerBetween(axes[i - 1]!, axes[i]!, p, grain * CORNER_REACH)
  })
  return axes.map((axis, i): Run => {
    const [a, b] = [corners[i]!, corners[i + 1]!]
    if (axis) return { points: [a, b], straight: true }
    return { points: withEnds(points.slice(cuts[i], cuts[i + 1]! + 1), a, b), straight: false }
  })
}

/** The cuts without those between straight runs that go the same way. */
function merged(points: readonly Vec[], cuts: readonly number[], grain: number): number[] {
  const kept = [cuts[0]!]
  for (let i = 1; i < cuts.length - 1; i++) {
    const before = straightAxis(points.slice(kept[kept.length - 1], cuts[i]! + 1), grain)
    const after = straightAxis(points.slice(cuts[i], cuts[i + 1]! + 1), grain)
    const sameWay =
      before && after && Math.abs(Math.atan2(cross(before.way, after.way), dot(before.way, after.way))) < SAME_WAY
    if (!sameWay) kept.push(cuts[i]!)
  }
  return [...kept, cuts[cuts.length - 1]!]
}

/** The line of least squares through points, by their covariance; null where they do not keep near it. */
function straightAxis(points: readonly Vec[], grain: number): Axis | null {
  const n = points.length
  const middle = scale(points.reduce(add), 1 / n)
  let [xx, xy, yy] = [0, 0, 0]
  for (const p of points) {
    const d = subtract(p, middle)
    xx += d.x * d.x
    xy += d.x * d.y
    yy += d.y * d.y
  }
  const angle = Math.atan2(2 * xy, xx - yy) / 2
  const away = { x: Math.cos(angle), y: Math.sin(angle) }
  const way = dot(away, subtract(points[n - 1]!, points[0]!)) >= 0 ? away : scale(away, -1)
  const near = Math.max(NEAR * grain, NEAR_SHARE * distance(points[0]!, points[n - 1]!))
  return points.every((p) => Math.abs(cross(way, subtract(p, middle))) <= near) ? { middle, way } : null
}

/** Where two runs meet: the crossing of their lines, or the corner as drawn brought onto the one that is straight. */
function cornerBetween(before: Axis | null, after: Axis | null, drawn: Vec, reach: number): Vec {
  if (before && after) {
    const det = cross(before.way, after.way)
    if (Math.abs(det) > Math.sin(SAME_WAY)) {
      const meeting = along(before.middle, before.way, cross(subtract(after.middle, before.middle), after.way) / det)
      if (distance(meeting, drawn) <= reach) return meeting
    }
  }
  const axis = before ?? after
  return axis ? along(axis.middle, axis.way, dot(axis.way, subtract(drawn, axis.middle))) : drawn
}

/** A run whose ends were moved; what lies between follows the less the farther it is from them. */
function withEnds(points: readonly Vec[], a: Vec, b: Vec): Vec[] {
  const last = points.length - 1
  const [da, db] = [subtract(a, points[0]!), subtract(b, points[last]!)]
  return points.map((p, i) => {
    const u = last > 0 ? i / last : 0
    return { x: p.x + da.x * (1 - u) + db.x * u, y: p.y + da.y * (1 - u) + db.y * u }
  })
}
