import { ArcLength } from '../geometry/arc-length'
import type { Bend } from '../geometry/bow'
import { bowedPath } from '../geometry/bow'
import { cubicsOfPath } from '../geometry/path'
import type { Vec } from '../geometry/point'
import { distance, lerp, subtract } from '../geometry/point'

/** Bows from point to point, each pulled as far as it takes to lie along a way. */
export interface BentBow {
  /** One more than pulls. */
  points: Vec[]
  pulls: Vec[]
}

/** One bow may lie so far from the way, px, and this share of its chord more; where it lies farther it is two, and so on so many times. */
const TOLERANCE = 2
const SHARE = 0.012
const DEEPEST = 2
/** The shortest ones may lie off by so many times that. */
const AT_LAST = 3
/** Pulls are made better in steps of this share of the chord, halved so often. */
const STEP = 0.04
const HALVINGS = 5

/** Bows that lie along a way from its first point to its last: one where that can be, else two or four in a row; null where these could not. */
export function bentAlong(way: readonly Vec[], bend: Bend, depth = 0): BentBow | null {
  const [a, b] = [way[0]!, way.at(-1)!]
  const middle = lerp(a, b, 0.5)
  let pull = subtract(way[way.length >> 1]!, middle)
  let off = farthest(a, b, pull, way, bend)
  for (let i = 0, step = STEP * distance(a, b); i < HALVINGS; i++, step /= 2) {
    for (let better = true; better;) {
      better = false
      for (const [x, y] of [
        [1, 0],
        [-1, 0],
        [0, 1],
        [0, -1],
      ] as const) {
        const next = { x: pull.x + x * step, y: pull.y + y * step }
        const found = farthest(a, b, next, way, bend)
        if (found < off) [pull, off, better] = [next, found, true]
      }
    }
  }
  const isLast = depth === DEEPEST || way.length < 8
  if (off <= (TOLERANCE + SHARE * distance(a, b)) * (isLast ? AT_LAST : 1)) return { points: [a, b], pulls: [pull] }
  if (isLast) return null
  const cut = Math.min(way.length - 4, Math.max(3, way.length >> 1))
  const [first, second] = [
    bentAlong(way.slice(0, cut + 1), bend, depth + 1),
    bentAlong(way.slice(cut), bend, depth + 1),
  ]
  return (
    first &&
    second && { points: [...first.points, ...second.points.slice(1)], pulls: [...first.pulls, ...second.pulls] }
  )
}

/** How far a bow lies from a way at most. */
function farthest(a: Vec, b: Vec, pull: Vec, way: readonly Vec[], bend: Bend): number {
  const arc = new ArcLength(cubicsOfPath(bowedPath([a, b], [pull], [false, false], bend)))
  let off = 0
  const every = Math.max(1, Math.floor(way.length / 24))
  for (let i = 0; i < way.length; i += every) off = Math.max(off, arc.nearest(way[i]!).distance)
  return off
}
