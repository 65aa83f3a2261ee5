import type { Path } from '../geometry/path'
import { fitSteadied } from '../fit/fit-trace'
import { steadied } from '../fit/steady'
import { cornersOf } from '../fit/trace-corners'
import { ArcLength } from '../geometry/arc-length'
import { tangentAt } from '../geometry/cubic'
import { cubicsOfPath, pathOfCubics } from '../geometry/path'
import type { Vec } from '../geometry/point'
import { cross, direction, distance, lerp, subtract } from '../geometry/point'
import { crestAlong } from './cling'
import type { PencilMap } from './pencil-map'

export interface ClingOptions {
  /** How far from where it is a line is drawn to the pencil, px of the page. */
  reach: number
  /** 0 not at all .. 1 all the way. */
  strength: number
  /** The path begins where it does, and comes onto the pencil from there. */
  fromStart?: boolean
}

/** Places along a path are so many grains apart, and so many at most. */
const STEP = 3
const MOST = 4000
/** The hand's trembling is evened out over so many places to see which way it goes, its corners kept. */
const STEADY = 12
const ROUGH = 8
const TURN = { turn: 1.3, window: 14 }
/** A joint between segments of at least so many places each, which turns by more than this (cosine), is a corner. */
const PLAIN = 14
const SHARP = Math.cos(0.5)
/** Corners of what was drawn to the pencil. */
const CORNER = { turn: 0.8, window: 5 }
/** The path may lie so far from the crest that it was drawn to, px of the page. */
const TOLERANCE = 0.5
/** Ways that meet at less than this (sine) do not tell where. */
const PARALLEL = 0.3
/** From where it begins a path comes onto the pencil over so many places. */
const COMES = 16
/** What a corner moves by, the path on either side follows over so many places. */
const FOLLOW = 8
/** A path that would move by no more than this stays as it is, px of the page. */
const LEAST = 0.05

/**
 * A path settled on the pencil beneath it, stretch by stretch between corners. The same path where there is no pencil within
 * reach.
 */
export function settled(path: Path, pencil: PencilMap, { reach, strength, fromStart = false }: ClingOptions): Path {
  const cubics = cubicsOfPath(path)
  if (!cubics.length || !(strength > 0)) return path
  const arc = new ArcLength(cubics)
  const n = Math.min(MOST, Math.max(2, Math.round(arc.total / (STEP * pencil.grain))))
  const points = Array.from({ length: n + 1 }, (_, i) => arc.point((i / n) * arc.total))
  const runs = between(points, cornersIn(points, arc))
  let moved = 0
  const drawn = runs.map((run, r) => {
    const base = steadied(run, STEADY)
    const found = crestAlong(base, waysAlong(base), pencil, reach)
    if (!found) return run
    return run.map((p, i) => {
      const comes = fromStart && r === 0 ? Math.min(1, i / COMES) : 1
      const q = lerp(p, found.crest[i]!, strength * found.pull[i]! * comes)
      moved = Math.max(moved, distance(p, q))
      return q
    })
  })
  if (moved <= LEAST) return path
  meet(drawn, path.closed, reach)
  const stretches = drawn.flatMap((run) => between(run, cornersOf(run, CORNER)))
  return pathOfCubics(
    stretches.flatMap((s) => fitSteadied(s, { tolerance: TOLERANCE, grain: 1 })),
    path.closed,
    1e-3,
  )
}

/** Where a path has corners that are meant: in the large, or between long segments, where no trembling makes any. */
function cornersIn(points: readonly Vec[], arc: ArcLength): number[] {
  const { cubics, starts, total } = arc
  const n = points.length - 1
  const far = (PLAIN * total) / (n || 1)
  const plain = cubics.flatMap((c, i): number[] => {
    const before = cubics[i - 1]
    if (!before || starts[i]! - starts[i - 1]! < far || starts[i + 1]! - starts[i]! < far) return []
    const [p, q] = [tangentAt(before, 1), tangentAt(c, 0)]
    return !p || !q || p.x * q.x + p.y * q.y < SHARP ? [Math.round((starts[i]! / total) * n)] : []
  })
  const large = cornersOf(steadied(points, ROUGH), TURN).filter((i) =>
    plain.every((k) => Math.abs(k - i) > TURN.window),
  )
  return [...plain, ...large].sort((a, b) => a - b)
}

/** Points cut at some of them, which belong to both sides. */
function between(points: readonly Vec[], cuts: readonly number[]): Vec[][] {
  const all = [0, ...cuts, points.length - 1]
  return all.slice(1).map((to, i) => points.slice(all[i], to + 1))
}

function waysAlong(points: readonly Vec[]): Vec[] {
  let last: Vec = { x: 1, y: 0 }
  return points.map(
    (_, i) =>
      (last = direction(subtract(points[Math.min(points.length - 1, i + 2)]!, points[Math.max(0, i - 2)]!)) ?? last),
  )
}

/** Ends of stretches that were drawn apart come together where both go, and their stretches follow. */
function meet(runs: readonly Vec[][], closed: boolean, reach: number): void {
  const bring = (points: Vec[], to: Vec): void => {
    const along = Math.min(FOLLOW, points.length)
    const d = subtract(to, points[0]!)
    for (let i = 0; i < along; i++)
      points[i] = { x: points[i]!.x + d.x * (1 - i / along), y: points[i]!.y + d.y * (1 - i / along) }
  }
  /** The way out of the first point. */
  const way = (points: readonly Vec[]): Vec =>
    direction(subtract(points[0]!, points[Math.min(FOLLOW, points.length - 1)]!)) ?? { x: 0, y: 0 }
  runs.forEach((run, r) => {
    if (r === runs.length - 1 && !closed) return
    const next = runs[(r + 1) % runs.length]!
    const middle = corner(run.at(-1)!, way(run.toReversed()), next[0]!, way(next), reach)
    run.reverse()
    bring(run, middle)
    run.reverse()
    bring(next, middle)
  })
}

/** Where two ways out meet; half way between their points where that is farther than `reach`. */
function corner(p: Vec, a: Vec, q: Vec, b: Vec, reach: number): Vec {
  const middle = lerp(p, q, 0.5)
  const turn = cross(a, b)
  if (Math.abs(turn) < PARALLEL) return middle
  const t = cross(subtract(q, p), b) / turn
  const at = { x: p.x + a.x * t, y: p.y + a.y * t }
  return distance(at, middle) <= reach ? at : middle
}
