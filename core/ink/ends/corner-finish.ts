import type { Corner, Line } from '../../model/model'
import type { Vec } from '../../geometry/point'
import type { Cubic } from '../../geometry/cubic'
import { straight } from '../../geometry/cubic'
import type { End } from '../../geometry/ends'
import { arcOfPath } from '../../geometry/known'
import { along, cross, direction, distance, lerp, subtract } from '../../geometry/point'
import { loopOf } from '../../arrangement/loop'
import { resolveLoops } from '../../arrangement/resolve'
import { LineWidth } from '../../weight/half-widths'
import { outlineOf } from '../../outline/expand'
import { capArcs } from '../../outline/joins-and-caps'

/** How a corner is finished. */
export type CornerFinish = Pick<Corner, 'style' | 'limit' | 'length'>

/** One of the two ends of a corner: where it lies, unit vector outwards, and the places of its edges. */
interface Section {
  at: Vec
  outward: Vec
  left: Vec
  right: Vec
  /** The ways in which the edges go on. */
  leftWay: Vec
  rightWay: Vec
  half: number
}

/** Pointed corners go no farther from their middle than so many times the wider half-width, where nothing is said. */
export const LIMIT = 6
/** Lines that cross over go on by so many of their widths, where nothing is said. */
export const LENGTH = 0.5
/** The share of the way to the point at which a round corner's handles lie: that of a quarter circle. */
const ROUND = 0.5523
/** Edges that lean more than this to their line (px a px) do not go on so. */
const STEEP = 0.5
/** Edges that turn by less than this (sine) do not meet anywhere near. */
const SLIGHT = 0.02

/** A line's end in a corner: the other line and its end, how it is finished, and whether this line takes what fills it. */
export interface CornerEnd {
  end: End
  /** The other end; where more than two come together, all others. */
  others: readonly { line: Line; end: End }[]
  finish: CornerFinish
  takesFill: boolean
}

/** The ink of a line whose ends are finished as corners. */
export function corneredInk(line: Line, ends: readonly CornerEnd[], tolerance: number): readonly Cubic[][] {
  const finish = { ...line.finish }
  for (const {
    end,
    finish: { style },
  } of ends)
    if (style !== 'crossing') finish[end === 'first' ? 'startCap' : 'endCap'] = 'butt'
  const ink = outlineOf({ ...line, finish }, tolerance)
  const added = ends.flatMap((c) =>
    c.finish.style === 'crossing' ? [overhang(line, c, tolerance)] : c.takesFill ? fillOf(line, c) : [],
  )
  return added.length ? resolveLoops([...ink, ...added].map(loopOf), tolerance) : ink
}

const sectionOf = (line: Line, end: End): Section => sectionAt(line, end, end === 'first' ? 0 : 1)

/** The cross-section at which a line ends, a share 0..1 of its length, looking outwards. */
export function sectionAt(line: Line, end: End, place: number): Section {
  const arc = arcOfPath(line.path)
  const s = place * arc.total
  const { left, right, leftSlope, rightSlope } = new LineWidth(line.weight, line.finish.align, arc.total, false).at(
    s,
    end === 'last',
  )
  const t = arc.tangent(s) ?? { x: 1, y: 0 }
  const at = arc.point(s)
  const normal = { x: t.y, y: -t.x }
  const [l, r] = [along(at, normal, left), along(at, normal, -right)]
  const half = Math.max(left, right)
  // An edge leads away from its middle as the width grows; where that is steep, a tip, it goes on as the line does.
  const way = (outward: Vec, side: 1 | -1, slope: number): Vec =>
    Math.abs(slope) < STEEP
      ? direction({ x: outward.x + normal.x * side * slope, y: outward.y + normal.y * side * slope })!
      : outward
  if (end === 'last')
    return { at, outward: t, left: l, right: r, leftWay: way(t, 1, leftSlope), rightWay: way(t, -1, rightSlope), half }
  // Looking outwards, the sides of a first end are the other way round.
  const outward = { x: -t.x, y: -t.y }
  return {
    at,
    outward,
    left: r,
    right: l,
    leftWay: way(outward, -1, -rightSlope),
    rightWay: way(outward, 1, -leftSlope),
    half,
  }
}

/** What fills a corner: its outer side, or where more than two lines come together its middle, too. */
function fillOf(line: Line, { end, others, finish }: CornerEnd): Cubic[][] {
  const a = sectionOf(line, end)
  if (others.length > 1) return starFill([a, ...others.map((o) => sectionOf(o.line, o.end))], finish)
  const b = sectionOf(others[0]!.line, others[0]!.end)
  // Going out along this line and back along the other one.
  const turn = cross(a.outward, { x: -b.outward.x, y: -b.outward.y })
  if (Math.abs(turn) < SLIGHT) return []
  return turn > 0
    ? outerFill(a, a.left, a.leftWay, b, b.right, b.rightWay, finish)
    : outerFill(a, a.right, a.rightWay, b, b.left, b.leftWay, finish)
}

/** Between two edges on the outer side of a corner: up to the point where they meet, or rounded off. */
function outerFill(
  a: Section,
  from: Vec,
  way: Vec,
  b: Section,
  to: Vec,
  toWay: Vec,
  { style, limit = LIMIT }: CornerFinish,
): Cubic[][] {
  const point = meeting(from, way, to, toWay)
  const middle = lerp(a.at, b.at, 0.5)
  const ring = (...edges: Cubic[]): Cubic[][] => [
    ahead([straight(a.at, from), ...edges, straight(to, b.at), straight(b.at, a.at)]),
  ]
  if (!point) return ring(straight(from, to))
  if (style === 'rounded') return ring({ p0: from, p1: lerp(from, point, ROUND), p2: lerp(to, point, ROUND), p3: to })
  return distance(point, middle) > limit * Math.max(a.half, b.half)
    ? ring(straight(from, to))
    : ring(straight(from, point), straight(point, to))
}

/** Where several ends come together: the middle between their sections, and the outer side where all come from one half of the plane. */
function starFill(sections: readonly Section[], finish: CornerFinish): Cubic[][] {
  const angle = ({ outward }: Section): number => Math.atan2(-outward.y, -outward.x)
  const round = [...sections].sort((a, b) => angle(a) - angle(b))
  const middle = {
    x: round.reduce((n, s) => n + s.at.x, 0) / round.length,
    y: round.reduce((n, s) => n + s.at.y, 0) / round.length,
  }
  // Wedge by wedge: a ring through all of them may cross itself, and what it goes round backwards would take ink away.
  const wedge = (p: Vec, q: Vec): Cubic[] => ahead([straight(middle, p), straight(p, q), straight(q, middle)])
  const fills: Cubic[][] = []
  round.forEach((a, i) => {
    const b = round[(i + 1) % round.length]!
    const gap = (angle(b) - angle(a) + 2 * Math.PI) % (2 * Math.PI)
    fills.push(
      wedge(a.right, a.left),
      ...(gap > Math.PI ? outerFill(a, a.left, a.leftWay, b, b.right, b.rightWay, finish) : [wedge(a.left, b.right)]),
    )
  })
  return fills
}

/** Where two edges meet that go on ahead; null where they do not. */
function meeting(p: Vec, d: Vec, q: Vec, e: Vec): Vec | null {
  const k = cross(d, e)
  if (Math.abs(k) < SLIGHT) return null
  const w = subtract(q, p)
  const [s, t] = [cross(w, e) / k, cross(w, d) / k]
  return s >= 0 && t >= 0 ? along(p, d, s) : null
}

/** A line gone straight on beyond its end, with its cap. */
function overhang(line: Line, { end, finish: { length = LENGTH } }: CornerEnd, tolerance: number): Cubic[] {
  const { left, right, outward } = sectionOf(line, end)
  const by = length * line.weight.size
  const [l, r] = [along(left, outward, by), along(right, outward, by)]
  const cap = end === 'first' ? line.finish.startCap : line.finish.endCap
  return ahead([
    straight(left, l),
    ...capArcs(l, r, outward, cap, tolerance).map((a) => a.curve),
    straight(r, right),
    straight(right, left),
  ])
}

/** A closed run of curves, turned so that it has what it encloses on its left. */
export function ahead(curves: Cubic[]): Cubic[] {
  const area = curves.reduce((sum, { p0, p3 }) => sum + cross(p0, p3), 0)
  return area >= 0 ? curves : curves.map(({ p0, p1, p2, p3 }) => ({ p0: p3, p1: p2, p2: p1, p3: p0 })).reverse()
}
