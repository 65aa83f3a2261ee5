import type { Path } from '../geometry/path'
import { ArcLength } from '../geometry/arc-length'
import { areaOfCubics } from '../geometry/area'
import { cubicsOfPath, pathOfCubics } from '../geometry/path'
import type { Vec } from '../geometry/point'
import { distance } from '../geometry/point'
import { polylineLength } from '../geometry/polyline'
import { outlineOf } from '../outline/expand'
import { subtractShapes } from '../shapes/combine'
import type { FlatRings } from './flat-ring'
import type { Middle } from './middle-line'
import type { LineInk } from './line-along'
import { EMPTY, lineOf, PLAIN_FINISH, PLAIN_WEIGHT, usualOf } from './line-along'

/** A cut reaches so many times the line's width in from its tip. */
const MOST_OF_END = 2.5

/**
 * A line that goes on beyond both ends, and is scraped back to the shape there: for ends that were cut along something else, which
 * no cap can be.
 */
export function cutBack(
  rings: FlatRings,
  middle: Middle,
  contours: readonly Path[],
  tolerance: number,
): LineInk | null {
  const { points, left, right, sure } = middle
  const wide = usualOf(middle) * 2
  const [from, to] = [insideFrom(points, wide), points.length - 1 - insideFrom([...points].reverse(), wide)]
  const inner = points.slice(from, to + 1)
  if (inner.length < 8) return null
  const way = Math.min(3, inner.length - 1)
  const beyond = (p: Vec, q: Vec, end: Vec): Vec => {
    const far = (distance(q, end) + wide) / (distance(p, q) || 1)
    return { x: q.x + (q.x - p.x) * far, y: q.y + (q.y - p.y) * far }
  }
  const whole = [
    beyond(inner[way]!, inner[0]!, points[0]!),
    ...inner,
    beyond(inner[inner.length - 1 - way]!, inner[inner.length - 1]!, points[points.length - 1]!),
  ]
  const kept: Middle = {
    points: whole,
    closed: false,
    left: [0, ...left.slice(from, to + 1), 0],
    right: [0, ...right.slice(from, to + 1), 0],
    sure: [false, ...sure.slice(from, to + 1), false],
  }
  const total = polylineLength(whole)
  const [first, last] = [
    distance(whole[0]!, whole[1]!) / total,
    1 - distance(whole[whole.length - 2]!, whole[whole.length - 1]!) / total,
  ]
  const line = lineOf(rings, kept, ['butt', 'butt'], tolerance, (s) => s > first && s < last)
  if (!line) return null
  const shape = { id: 'shape', ink: '', from: [], contours: [...contours] }
  const reach = Math.min(MOST_OF_END * wide, 0.45 * total)
  const scrapes = [whole, [...whole].reverse()].flatMap((points) => {
    const around = { ...shape, id: 'around', contours: endOf(points, reach, wide) }
    return subtractShapes(around, [shape], { tolerance: tolerance / 20 }).filter((c) => isThick(c, tolerance))
  })
  return scrapes.length ? { ...line, scrapes } : null
}

/** A broad band about the first so many px of a way and about what lies before it: all that is scraped off there. */
function endOf(points: readonly Vec[], reach: number, wide: number): Path[] {
  const [first, second] = [points[0]!, points[1]!]
  const far = (distance(first, second) + wide) / (distance(first, second) || 1)
  const way: Vec[] = [{ x: second.x + (first.x - second.x) * far, y: second.y + (first.y - second.y) * far }]
  for (const [i, p] of points.entries()) {
    way.push(p)
    if (polylineLength(points.slice(0, i + 1)) > reach) break
  }
  const nodes = way.map((at) => ({ at, in: null, out: null, joint: 'corner' as const }))
  const band: LineInk = {
    path: { nodes, closed: false },
    weight: { ...PLAIN_WEIGHT, size: 2 * wide, stops: [{ at: 0, left: 1, right: 1 }] },
    finish: { ...PLAIN_FINISH, dash: [], startCap: 'butt', endCap: 'butt' },
  }
  return outlineOf({ ...EMPTY, ...band }, wide / 100).map((loop) => pathOfCubics(loop, true))
}

/** The first point that is farther from the start of a middle than it is wide. */
function insideFrom(points: readonly Vec[], wide: number): number {
  let run = 0
  let i = 0
  while (i < points.length - 1 && run < wide) run += distance(points[i]!, points[++i]!)
  return i
}

/** Pieces thinner than the tolerance are what the widths are off by. */
const isThick = (contour: Path, tolerance: number): boolean => {
  const cubics = cubicsOfPath({ ...contour, closed: true })
  const around = new ArcLength(cubics).total
  return Math.abs(areaOfCubics(cubics)) > (tolerance * around) / 4
}
