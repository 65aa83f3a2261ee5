import { evenlySpaced, steadied } from '../fit/steady'
import type { Vec } from '../geometry/point'
import { boxOfPoints } from '../geometry/bounds'
import { along, cross, direction, distance, dot, leftNormal, lerp, scale, subtract } from '../geometry/point'
import type { FlatRings } from './flat-ring'
import { sharpTips, spreadRound } from './flat-ring'

/** The middle of a long thin shape: points about evenly apart, and how far the edge lies to their left and right, px. */
export interface Middle {
  points: Vec[]
  left: number[]
  right: number[]
  /** Where these are known: not about corners. */
  sure: boolean[]
  closed: boolean
}

/** Points that stand for a ring while its two ends are looked for. */
const ROUND = 240
/** So many chords are measured between the two sides. */
const CHORDS = 28
const ROUNDS = 7
/** Points of a middle line. */
const MOST = 700
const LEAST = 24
/** Within so many widths of an end the middle goes on straight: what cuts it off there says nothing of where it runs. */
const END = 1.1
/** An edge that is met runs along the middle, within this cosine; places much wider than most are astray. */
const ALONG = 0.8
const MOST_WIDE = 2
/** Ways are taken from so many points back. */
const BACK = 4
/** A turn from this angle on is a corner, radians; its ways meet within so many widths. */
const TURN = 0.45
const REACH = 4
/** Tips of a shape are sharper than this, radians. */
const TIP = 1.2
/** An end thinner than this share of the widest place runs to its farthest point, as a tip does. */
const THIN = 0.35

/** Where the two ends of a thin ring lie: the two points between which its sides run closest together; as places of `points`. */
function endsOf(points: readonly Vec[]): [number, number] {
  const n = points.length
  const cost = (a: number, b: number): number => {
    const [one, other] = [(b - a + n) % n, (a - b + n) % n]
    if (one < n / 5 || other < n / 5) return Infinity
    let sum = 0
    for (let k = 1; k < CHORDS; k++)
      sum += distance(
        points[(a + Math.round((one * k) / CHORDS)) % n]!,
        points[(a - Math.round((other * k) / CHORDS) + 2 * n) % n]!,
      )
    return sum
  }
  let best: [number, number] = [0, n / 2]
  let least = Infinity
  for (let a = 0; a < n / 2; a += 2) {
    for (let off = -Math.round(n * 0.16); off <= n * 0.16; off += 4) {
      const b = (a + Math.round(n / 2) + off + n) % n
      const c = cost(a, b)
      if (c < least) [least, best] = [c, [a, b]]
    }
  }
  for (let step = 3; step >= 1; step--) {
    for (let better = true; better;) {
      better = false
      for (const [da, db] of [
        [step, 0],
        [-step, 0],
        [0, step],
        [0, -step],
      ] as const) {
        const next: [number, number] = [(best[0] + da + n) % n, (best[1] + db + n) % n]
        const c = cost(...next)
        if (c < least) [least, best, better] = [c, next, true]
      }
    }
  }
  return best
}

/** A first guess at the middle of a ring: half way between its sides. */
function guessed(ring: readonly Vec[]): Vec[] {
  const points = spreadRound(ring, ROUND)
  const n = points.length
  const [a, b] = endsOf(points)
  const [one, other] = [(b - a + n) % n, (a - b + n) % n]
  const count = Math.max(one, other)
  const at = (from: number, length: number, sign: 1 | -1, k: number): Vec => {
    const place = (length * k) / count
    const i = Math.floor(place)
    const p = (j: number): Vec => points[(((from + sign * j) % n) + n) % n]!
    return lerp(p(i), p(i + 1), place - i)
  }
  return Array.from({ length: count + 1 }, (_, k) => lerp(at(a, one, 1, k), at(a, other, -1, k), 0.5))
}

/** A first guess at the middle of a band between two rings. */
function guessedBetween(outer: readonly Vec[], inner: readonly Vec[]): Vec[] {
  const within = spreadRound(inner, ROUND * 2)
  return spreadRound(outer, ROUND).map((p) =>
    lerp(
      p,
      within.reduce((best, q) => (distance(p, q) < distance(p, best) ? q : best)),
      0.5,
    ),
  )
}

const tangentOf = (points: readonly Vec[], i: number, closed: boolean): Vec => {
  const n = points.length
  const at = (j: number): Vec => (closed ? points[(j + n) % n]! : points[Math.max(0, Math.min(n - 1, j))]!)
  return direction(subtract(at(i + 1), at(i - 1))) ?? { x: 1, y: 0 }
}

/** How far the edges lie from a middle on both sides, px, and where that can be told: not about corners, where rays go astray. */
interface Widths {
  left: number[]
  right: number[]
  sure: boolean[]
}

function widthsOf(rings: FlatRings, points: readonly Vec[], closed: boolean): Widths {
  const ways = points.map((_, i) => tangentOf(points, i, closed))
  const hits = ways.map((way, i) =>
    ([1, -1] as const).map((side) => rings.ray(points[i]!, scale(leftNormal(way), side))),
  )
  const [left, right] = [0, 1].map((k) => hits.map((h) => h[k]?.distance ?? 0)) as [number[], number[]]
  const wide = left.map((l, i) => l + right[i]!)
  const usual = [...wide].sort((a, b) => a - b)[Math.floor(wide.length * 0.75)]!
  const sure = hits.map(
    (both, i) =>
      wide[i]! < MOST_WIDE * usual && both.every((h) => h !== null && Math.abs(dot(h.edge, ways[i]!)) > ALONG),
  )
  return { left, right, sure }
}

/**
 * The middle of a shape of one ring (a stroke) or two (a band that closes); null where it is neither long nor thin. An open
 * one runs from edge to edge.
 *
 * @param spacing how far apart its points lie, px
 */
export function middleOf(rings: FlatRings, spacing: number): Middle | null {
  const [outer, inner, more] = [...rings.rings].sort((a, b) => sizeOf(b) - sizeOf(a))
  if (!outer || outer.length < 3 || more) return null
  const closed = inner !== undefined
  let points = evenly(closed ? guessedBetween(outer, inner) : guessed(outer), spacing, closed)
  for (let round = 0; round < ROUNDS; round++) {
    const { left, right, sure } = widthsOf(rings, points, closed)
    if (sure.filter(Boolean).length < points.length / 3) return null
    const centred = points.map((p, i) =>
      sure[i] ? along(p, leftNormal(tangentOf(points, i, closed)), (left[i]! - right[i]!) / 2) : p,
    )
    // Later rounds only centre: what was steadied is a little off where it bends.
    const steady = round < ROUNDS - 2 ? (closed ? steadiedRound(centred) : steadied(centred, 1)) : centred
    const bridged = withCorners(
      steady,
      sure,
      left.map((l, i) => l + right[i]!),
      closed,
    )
    points = closed
      ? evenly(bridged, spacing, true)
      : withStraightEnds(rings, outer, evenly(bridged, spacing, false), spacing)
    if (points.length < 4) return null
  }
  const known = widthsOf(rings, points, closed)
  // Spreading points evenly cuts corners: they are put in once more.
  points = withCorners(
    points,
    known.sure,
    known.left.map((l, i) => l + known.right[i]!),
    closed,
  )
  if (closed) points = fromCorner(points)
  return { points, closed, ...widthsOf(rings, points, closed) }
}

/** A closed middle that begins at its sharpest corner, so that no smooth place is broken by where it begins. */
function fromCorner(points: readonly Vec[]): Vec[] {
  const n = points.length
  const turns = points.map((p, i) => {
    const [a, b] = [direction(subtract(p, points[(i + n - 1) % n]!)), direction(subtract(points[(i + 1) % n]!, p))]
    return a && b ? dot(a, b) : 1
  })
  const sharpest = turns.indexOf(Math.min(...turns))
  return [...points.slice(sharpest), ...points.slice(0, sharpest)]
}

const sizeOf = (ring: readonly Vec[]): number => {
  const box = boxOfPoints(ring)
  return Math.hypot(box.maxX - box.minX, box.maxY - box.minY)
}

/**
 * Between stretches that are sure the middle goes on straight from both, to where these meet: a corner. Where they do not turn, or
 * do not meet, it goes straight across.
 */
function withCorners(
  points: readonly Vec[],
  sure: readonly boolean[],
  wide: readonly number[],
  closed: boolean,
): Vec[] {
  const n = points.length
  const first = sure.indexOf(true)
  const last = sure.lastIndexOf(true)
  if (first < 0) return [...points]
  const out: Vec[] = closed ? [] : points.slice(0, first)
  const at = (i: number): Vec => points[((i % n) + n) % n]!
  const end = closed ? first + n : last
  for (let i = first; i < end;) {
    let next = i + 1
    while (!sure[next % n]) next++
    out.push(at(i))
    if (next > i + 1) {
      const corner = cornerBetween(
        at(i - BACK),
        at(i),
        at(next),
        at(next + BACK),
        Math.max(wide[i % n]!, wide[next % n]!),
      )
      if (corner) out.push(corner)
    }
    i = next
  }
  if (!closed) out.push(...points.slice(last))
  return out
}

/** Where the ways from `a` through `p` and from `d` through `q` meet, where they turn there. */
function cornerBetween(a: Vec, p: Vec, q: Vec, d: Vec, wide: number): Vec | null {
  const [one, other] = [direction(subtract(p, a)), direction(subtract(q, d))]
  if (!one || !other) return null
  const turn = Math.acos(Math.max(-1, Math.min(1, -dot(one, other))))
  const across = cross(one, other)
  if (turn < TURN || Math.abs(across) < 1e-6) return null
  const far = cross(subtract(q, p), other) / across
  const back = cross(subtract(q, p), one) / across
  return far > -wide && back > -wide && far < REACH * wide && back < REACH * wide ? along(p, one, far) : null
}

function evenly(points: readonly Vec[], spacing: number, closed: boolean): Vec[] {
  const all = closed ? [...points, points[0]!] : points
  let length = 0
  for (let i = 1; i < all.length; i++) length += distance(all[i - 1]!, all[i]!)
  const count = Math.max(LEAST, Math.min(MOST, length / spacing))
  const even = evenlySpaced(all, length / count)
  return closed ? even.slice(0, -1) : even
}

function steadiedRound(points: readonly Vec[]): Vec[] {
  const n = points.length
  return points.map((p, i) => lerp(p, lerp(points[(i + n - 1) % n]!, points[(i + 1) % n]!, 0.5), 0.5))
}

/** The middle, gone on straight from inside each end up to the edge, or to the tip of the shape where it has one there. */
function withStraightEnds(rings: FlatRings, outer: readonly Vec[], points: readonly Vec[], spacing: number): Vec[] {
  const tips = sharpTips(outer, TIP)
  const ended = withStraightEnd(rings, outer, tips, points, spacing)
  return withStraightEnd(rings, outer, tips, ended.reverse(), spacing).reverse()
}

function withStraightEnd(
  rings: FlatRings,
  outer: readonly Vec[],
  tips: readonly Vec[],
  points: readonly Vec[],
  spacing: number,
): Vec[] {
  const { left, right } = widthsOf(rings, points, false)
  const n = points.length
  // How wide it is a little way in, where no cap is felt.
  let from = n - 2
  let run = 0
  while (from > n * 0.6) {
    run += distance(points[from]!, points[from + 1]!)
    if (run > END * Math.max(left[from]!, right[from]!)) break
    from--
  }
  const way = direction(subtract(points[from]!, points[Math.max(0, from - BACK)]!)) ?? tangentOf(points, from, false)
  const at = points[from]!
  const far = rings.ray(at, way)?.distance
  if (far === undefined) return [...points]
  const half = Math.max(left[from]!, right[from]!)
  const ahead = (p: Vec): number => dot(subtract(p, at), way)
  const near = (p: Vec): boolean =>
    ahead(p) > 0 &&
    ahead(p) < 2 * far + 4 * half + 6 * spacing &&
    Math.abs(cross(subtract(p, at), way)) < 1.5 * half + spacing
  const farthest = (of: readonly Vec[]): Vec | undefined => of.filter(near).sort((a, b) => ahead(b) - ahead(a))[0]
  const widest = Math.max(...left.map((l, i) => Math.max(l, right[i]!)))
  const tip = farthest(tips) ?? (half < THIN * widest ? farthest(outer) : undefined)
  const end = tip ?? along(at, way, far)
  const steps = Math.max(1, Math.round(distance(at, end) / spacing))
  return [...points.slice(0, from + 1), ...Array.from({ length: steps }, (_, k) => lerp(at, end, (k + 1) / steps))]
}

/** The middle of a spot: straight across where it is longest. */
export function middleOfSpot(rings: FlatRings, spacing: number): Middle | null {
  const [ring, more] = rings.rings
  if (!ring || more) return null
  let [a, b] = [ring[0]!, ring[0]!]
  for (const p of ring) for (const q of ring) if (distance(p, q) > distance(a, b)) [a, b] = [p, q]
  const count = Math.max(LEAST, Math.round(distance(a, b) / spacing))
  const points = Array.from({ length: count + 1 }, (_, k) => lerp(a, b, k / count))
  const { left, right } = widthsOf(rings, points, false)
  return { points, left, right, sure: points.map(() => true), closed: false }
}
