import type { Path } from '../geometry/path'
import { InputError } from '../errors'
import { boxOfPoints } from '../geometry/bounds'
import { cubicsOfPath } from '../geometry/path'
import type { Vec } from '../geometry/point'
import { distance } from '../geometry/point'
import { polylineLength } from '../geometry/polyline'
import { outlineOf } from '../outline/expand'
import { deviationBetween } from '../shapes/deviation'
import { FlatRings, spreadRound } from './flat-ring'
import type { Middle } from './middle-line'
import { middleOf, middleOfSpot } from './middle-line'
import type { Caps, LineInk } from './line-along'
import { EMPTY, lineOf, PLAIN_FINISH, PLAIN_WEIGHT } from './line-along'
import { cutBack } from './cut-ends'

/** A line whose ink is the shape that it was made of, but for the deviation. */
export interface TurnedBack {
  line: LineInk
  /** Measured between the shape's outline and that of the line's ink, px. */
  deviation: number
}

/** A shape this many times as long as it is wide is a stroke. */
const LONG = 2.2
/** Ends thinner than this share of the line's width have no cap. */
const THIN = 0.12
/** Spots are smaller than so many tolerances. */
const SPOT = 120
/** Lines that are farther off than so many tolerances are not worth mending; mended they are near enough at this share of it. */
const WORTH = 6
const DONE = 0.6

const CAPS: readonly Caps[] = [
  ['butt', 'butt'],
  ['round', 'round'],
  ['round', 'butt'],
  ['butt', 'round'],
]

/**
 * The line of which a machine made an outline: its middle as a path, its widths as a few stops, its caps. Null where the shape is no
 * stroke, or no line comes within the tolerance of it.
 *
 * @param contours one ring, or two for a line that closes; straight pieces and curves alike
 * @param tolerance px, above 0
 */
export function lineFromOutline(contours: readonly Path[], { tolerance }: { tolerance: number }): TurnedBack | null {
  if (!(tolerance > 0)) throw new InputError('tolerance', `The tolerance must be above 0 px, not ${tolerance}.`)
  const points = contours.flatMap((c) => c.nodes.map((n) => n.at))
  if (points.length < 3) return null
  const box = boxOfPoints(points)
  const size = Math.hypot(box.maxX - box.minX, box.maxY - box.minY)
  const rings = new FlatRings(contours, tolerance / 20)
  const dot = contours.length === 1 && dotOf(rings.rings[0]!, tolerance)
  if (dot) return dot
  const outline = contours.map((c) => cubicsOfPath({ ...c, closed: true })).flat()
  const measured = (line: LineInk): TurnedBack => ({
    line,
    deviation: deviationBetween(outline, outlineOf({ ...EMPTY, ...line }, tolerance / 10).flat(), tolerance / 2),
  })
  const spacing = Math.max(tolerance * 3, size / 260)
  const found = middleOf(rings, spacing)
  const middle = found && isLong(found) ? found : size < SPOT * tolerance ? middleOfSpot(rings, size / 60) : null
  if (!middle) return null
  let best: TurnedBack | null = null
  for (const caps of middle.closed ? CAPS.slice(0, 1) : capsFor(middle)) {
    const line = lineOf(rings, middle, caps, tolerance)
    if (!line) continue
    const tried = measured(line)
    if (!best || tried.deviation < best.deviation - tolerance / 20) best = tried
  }
  if (best && best.deviation > tolerance && best.deviation < WORTH * tolerance)
    best = withCornersMoved(best, measured, tolerance)
  if (best && best.deviation <= tolerance) return best
  const cut = middle.closed ? null : cutBack(rings, middle, contours, tolerance)
  const tried = cut && measured(cut)
  return tried && tried.deviation <= tolerance ? tried : null
}

/** A line whose corners lie where its ink is nearest to the outline: the ways that lead there say it only roughly. */
function withCornersMoved(from: TurnedBack, measured: (line: LineInk) => TurnedBack, tolerance: number): TurnedBack {
  let best = from
  const corners = from.line.path.nodes.flatMap((n, i, all) =>
    n.joint === 'corner' && (from.line.path.closed || (i > 0 && i < all.length - 1)) ? [i] : [],
  )
  for (let step = tolerance * 2; step > tolerance / 8 && best.deviation > tolerance * DONE; step /= 2) {
    for (const i of corners) {
      for (const [dx, dy] of [
        [step, 0],
        [-step, 0],
        [0, step],
        [0, -step],
      ] as const) {
        const moved = (p: Vec | null): Vec | null => p && { x: p.x + dx, y: p.y + dy }
        const nodes = best.line.path.nodes.map((n, k) =>
          k === i ? { ...n, at: moved(n.at)!, in: moved(n.in), out: moved(n.out) } : n,
        )
        const tried = measured({ ...best.line, path: { ...best.line.path, nodes } })
        if (tried.deviation < best.deviation) best = tried
      }
    }
  }
  return best
}

/** A round spot is a line of one point with round caps. */
function dotOf(ring: readonly Vec[], tolerance: number): TurnedBack | null {
  const box = boxOfPoints(ring)
  const middle = { x: (box.minX + box.maxX) / 2, y: (box.minY + box.maxY) / 2 }
  const radii = spreadRound(ring, 90).map((p) => distance(p, middle))
  const [least, most] = [Math.min(...radii), Math.max(...radii)]
  if (most - least > tolerance) return null
  const path: Path = { nodes: [{ at: middle, in: null, out: null, joint: 'corner' }], closed: false }
  return {
    line: {
      path,
      weight: { ...PLAIN_WEIGHT, size: least + most, stops: [{ at: 0, left: 1, right: 1 }] },
      finish: { ...PLAIN_FINISH, dash: [], startCap: 'round', endCap: 'round' },
    },
    deviation: (most - least) / 2,
  }
}

function isLong({ points, left, right, sure, closed }: Middle): boolean {
  const widest = Math.max(...left.map((l, i) => (sure[i] ? l + right[i]! : 0)))
  return closed || polylineLength(points) > LONG * widest
}

/** The caps that are worth trying: none where an end runs out to a point. */
function capsFor({ points, left, right, sure }: Middle): Caps[] {
  const widest = Math.max(...left.map((l, i) => (sure[i] ? l + right[i]! : 0)))
  // A little way in from the end; of a round cap that is most of its width already.
  const near = (i: number): boolean => left[i]! + right[i]! > THIN * widest
  const step = Math.max(1, Math.round(points.length / 60))
  const [start, end] = [near(step), near(points.length - 1 - step)]
  return CAPS.filter(([a, b]) => (a === 'butt' || start) && (b === 'butt' || end))
}
