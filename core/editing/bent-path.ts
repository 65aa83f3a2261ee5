import { boxOfCubic } from '../geometry/bounds'
import type { Cubic } from '../geometry/cubic'
import { cubic, derivativeAt, pointAt, secondDerivativeAt, split, tangentAt } from '../geometry/cubic'
import type { Path, PathNode } from '../geometry/path'
import { segmentBetween } from '../geometry/path'
import type { Vec } from '../geometry/point'
import { along, cross, direction, distance, dot, lerp, scale, subtract } from '../geometry/point'

/** A smooth map of the plane: where a place comes to lie, and how a way through it leads on there. */
export interface Bend {
  moved: (at: Vec, way: Vec) => { at: Vec; way: Vec }
  placed: (at: Vec) => Vec
  reaches: (box: ReturnType<typeof boxOfCubic>) => boolean
}

/** A path with nodes where the bend asks for some, and the same bent: node by node, segment by segment. */
export interface BentPath {
  from: Path
  to: Path
}

/** A segment becomes so many at most: two to this power. */
const DEEPEST = 4
/** The bend of a segment is looked at in so many places. */
const PLACES = 12
const places = Array.from({ length: PLACES }, (_, i) => (i + 1) / (PLACES + 1))
/** A fit that is so near, as a share of the tolerance, is taken as it is. */
const ENOUGH = 0.5
/** What comes of a straight segment is straight where it turns from its chord by no more than this, rad. */
const STRAIGHT = 1e-4

/**
 * A path as a smooth map bends it. Handles turn as the map turns there, so that smooth nodes stay smooth; their lengths are those with
 * which each segment lies nearest to its bent self. Only one that no cubic comes near to is divided.
 *
 * @param tolerance px between a bent segment and its cubic
 * @returns null where the map reaches no part of it
 */
export function bentPath(path: Path, bend: Bend, tolerance: number): BentPath | null {
  const { nodes, closed } = path
  const ends = nodes.map((n, i): [PathNode, PathNode | undefined] => [
    n,
    nodes[i + 1] ?? (closed ? nodes[0] : undefined),
  ])
  const segments = ends.map(([a, b]) => {
    const c = b && segmentBetween(a, b)
    if (!c || !bend.reaches(boxOfCubic(c))) return null
    return straightAsOne(bentSegment(c, bend, tolerance, DEEPEST, !a.out && !b.in))
  })
  if (segments.every((s) => s === null)) return null
  const from: PathNode[] = []
  const to: PathNode[] = []
  nodes.forEach((n, i) => {
    const [before, after] = [segments[i > 0 ? i - 1 : closed ? nodes.length - 1 : -1], segments[i]]
    const [first, last] = [before?.at(-1), after?.[0]]
    from.push({
      ...n,
      ...(before && before.length > 1 && { in: first!.from.p2 }),
      ...(after && after.length > 1 && { out: last!.from.p1 }),
    })
    to.push(
      !before && !after
        ? n
        : {
            ...n,
            at: first?.to.p3 ?? last!.to.p0,
            in: before ? handle(n.in, first!.to.p2, before) : spare(n, n.in, bend),
            out: after ? handle(n.out, last!.to.p1, after) : spare(n, n.out, bend),
          },
    )
    after?.slice(1).forEach((piece, k) => {
      const was = after[k]!
      const between = (of: 'from' | 'to'): PathNode => ({
        at: piece[of].p0,
        in: was[of].p2,
        out: piece[of].p1,
        joint: 'smooth',
      })
      from.push(between('from'))
      to.push(between('to'))
    })
  })
  return { from: { nodes: from, closed }, to: { nodes: to, closed } }
}

interface Piece {
  from: Cubic
  to: Cubic
  isStraight: boolean
}

const handle = (was: Vec | null, now: Vec, pieces: readonly Piece[]): Vec | null =>
  was === null && pieces.every((p) => p.isStraight) ? null : now

/** A handle at an open end, or on a side that the map does not reach. */
function spare({ at }: PathNode, of: Vec | null, bend: Bend): Vec | null {
  if (!of) return null
  const moved = bend.moved(at, subtract(of, at))
  return along(moved.at, moved.way, 1)
}

function bentSegment(c: Cubic, bend: Bend, tolerance: number, deep: number, wasStraight: boolean): Piece[] {
  const start = bend.moved(c.p0, endWay(c, 0))
  const end = bend.moved(c.p3, endWay(c, 1))
  const bent = places.map((t) => bend.placed(pointAt(c, t)))
  if (wasStraight && isStraight(start, end, bent, tolerance))
    return [{ from: c, to: straight(start.at, end.at), isStraight: true }]
  const fit = nearest(start, end, places, bent, tolerance * ENOUGH)
  if (deep === 0 || fit.deviation <= tolerance) return [{ from: c, to: fit.cubic, isStraight: false }]
  return split(c, 0.5).flatMap((half) => bentSegment(half, bend, tolerance, deep - 1, wasStraight))
}

const straight = (a: Vec, b: Vec): Cubic => cubic(a, lerp(a, b, 1 / 3), lerp(a, b, 2 / 3), b)

/** Straight pieces one after the other as one. */
function straightAsOne(pieces: readonly Piece[]): Piece[] {
  const out: Piece[] = []
  for (const piece of pieces) {
    const last = out.at(-1)
    if (last?.isStraight && piece.isStraight)
      out[out.length - 1] = {
        from: straight(last.from.p0, piece.from.p3),
        to: straight(last.to.p0, piece.to.p3),
        isStraight: true,
      }
    else out.push(piece)
  }
  return out
}

/** The way at an end, as long as its derivative; where that vanishes, as its tangent leads. */
function endWay(c: Cubic, t: 0 | 1): Vec {
  const d = derivativeAt(c, t)
  if (Math.hypot(d.x, d.y) > 1e-9) return d
  return scale(tangentAt(c, t) ?? { x: 0, y: 0 }, 1e-6 * distance(c.p0, c.p3))
}

function isStraight(
  start: { at: Vec; way: Vec },
  end: { at: Vec; way: Vec },
  bent: readonly Vec[],
  tolerance: number,
): boolean {
  const chord = direction(subtract(end.at, start.at))
  if (!chord) return true
  const turns = (way: Vec): boolean => Math.abs(Math.atan2(cross(chord, way), dot(chord, way))) > STRAIGHT
  if (turns(start.way) || turns(end.way)) return false
  return bent.every((p) => Math.abs(cross(chord, subtract(p, start.at))) <= tolerance / 4)
}

/** The cubic with these ends and the ways through them that lies nearest to places: handles by least squares, places moved along. */
function nearest(
  start: { at: Vec; way: Vec },
  end: { at: Vec; way: Vec },
  places: readonly number[],
  bent: readonly Vec[],
  enough: number,
): { cubic: Cubic; deviation: number } {
  const [u, v] = [direction(start.way), direction(end.way)]
  const plain = cubic(start.at, along(start.at, start.way, 1 / 3), along(end.at, end.way, -1 / 3), end.at)
  let best = measured(plain, places, bent)
  let at: readonly number[] = places
  for (let round = 0; round < 3 && best.deviation > enough && u && v; round++) {
    const arms = armsBy(start.at, end.at, u, v, at, bent)
    if (!arms) break
    const tried = measured(cubic(start.at, along(start.at, u, arms[0]), along(end.at, v, -arms[1]), end.at), at, bent)
    at = tried.at
    if (tried.deviation < best.deviation) best = tried
  }
  return best
}

/** Lengths of the two handles by least squares; null where these would lead back, or nothing tells them. */
function armsBy(
  p0: Vec,
  p3: Vec,
  u: Vec,
  v: Vec,
  at: readonly number[],
  bent: readonly Vec[],
): [number, number] | null {
  let [aa, ab, bb, ra, rb] = [0, 0, 0, 0, 0]
  at.forEach((t, i) => {
    const s = 1 - t
    const [b1, b2] = [3 * s * s * t, 3 * s * t * t]
    const [near, far] = [s * s * s + b1, t * t * t + b2]
    const rest = { x: bent[i]!.x - near * p0.x - far * p3.x, y: bent[i]!.y - near * p0.y - far * p3.y }
    aa += b1 * b1
    bb += b2 * b2
    ab -= b1 * b2 * dot(u, v)
    ra += b1 * dot(u, rest)
    rb -= b2 * dot(v, rest)
  })
  const det = aa * bb - ab * ab
  const [a, b] = [(ra * bb - rb * ab) / det, (rb * aa - ra * ab) / det]
  const least = 1e-3 * distance(p0, p3)
  return a > least && b > least ? [a, b] : null
}

/** How far a cubic lies from places, each at its nearest parameter, to which it is moved by a step of Newton's. */
function measured(
  c: Cubic,
  at: readonly number[],
  bent: readonly Vec[],
): { cubic: Cubic; deviation: number; at: number[] } {
  let deviation = 0
  const moved = at.map((t, i) => {
    const off = subtract(pointAt(c, t), bent[i]!)
    const [d, dd] = [derivativeAt(c, t), secondDerivativeAt(c, t)]
    const slope = dot(d, d) + dot(off, dd)
    const next = slope > 0 ? Math.min(1, Math.max(0, t - dot(off, d) / slope)) : t
    deviation = Math.max(deviation, distance(pointAt(c, next), bent[i]!))
    return next
  })
  return { cubic: c, deviation, at: moved }
}
