import type { Path, PathNode } from './path'
import { derivativeAt, pointAt } from './cubic'
import type { Vec } from './point'
import { add, cross, direction, distance, dot, lerp, scale, subtract } from './point'

/** A chord's bow: how far (px) the middle of its curve has been pulled from the middle of the chord. */
export type Pull = Vec

/** How a bow bends: like a part of a circle, or like a rod that is bent between its ends. */
export type Bend = 'arc' | 'rod'

/** A bow deeper than this share of its chord is two cubics, with a node in its middle: one alone would have shoulders. */
const DEEP = 0.42

/** A bow whose middle is pulled less than this share of the chord's length stays straight. */
const STRAIGHT = 0.004

/** Handles at a smooth joint are between these shares of the chord. */
const SHORTEST = 0.08
const LONGEST = 1.4

/**
 * The path through `points`, each chord bowed: half way along its curve it lies `pulls[i]` from the chord's middle. The
 * joint at inner point i is smooth where `smooth[i]` says so (and not both its chords are straight): its tangent then is
 * the mean of its bows', or that of the one that is straight. A deep bow has a node in its middle; the nodes at `points`
 * hold these very objects.
 *
 * @param points n + 1 points for n pulls; `smooth[i]` belongs to points[i]
 * @param closed the last of as many chords as points leads back to the first of them, which is a joint like the others
 */
export function bowedPath(
  points: readonly Vec[],
  pulls: readonly Pull[],
  smooth: readonly boolean[],
  bend: Bend = 'arc',
  closed = false,
): Path {
  const next = (i: number): number => (i + 1) % points.length
  const chords = pulls.map((pull, i) => chordOf(points[i]!, points[next(i)]!, pull, bend))
  const before = (i: number): Chord | undefined => chords[i - 1] ?? (closed ? chords.at(-1) : undefined)
  const nodes = points.map((at): PathNode => ({ at, in: null, out: null, joint: 'corner' }))
  const tangents = points.map((_, i) => (smooth[i] ? tangentAtJoint(before(i), chords[i]) : null))
  chords.forEach((chord, i) => {
    const [a, b] = handles(chord, tangents[i]!, tangents[next(i)]!)
    nodes[i]!.out = a
    nodes[next(i)]!.in = b
  })
  tangents.forEach((t, i) => {
    if (t) nodes[i]!.joint = 'smooth'
  })
  return { nodes: nodes.flatMap((n, i) => (chords[i]?.middle ? [n, chords[i].middle] : [n])), closed }
}

interface Chord {
  from: Vec
  to: Vec
  pull: Pull
  isStraight: boolean
  /** The handles of a chord that is bowed by itself. */
  own: [Vec, Vec]
  /** The node in the middle of a deep bow. */
  middle: PathNode | null
}

function chordOf(from: Vec, to: Vec, pull: Pull, bend: Bend): Chord {
  const chord = subtract(to, from)
  const length = Math.hypot(chord.x, chord.y)
  const straight = isStraight(from, to, pull)
  const depth = straight || !(length > 0) ? 0 : Math.abs(cross(chord, pull)) / length ** 2
  const deep = depth > DEEP
  const { rise, run, across } = (bend === 'arc' ? arcBow : rodBow)(depth || 1, deep)
  // In units of the chord along it, and of the pull across: a pull that leans shears the bow with it.
  const at = (x: number, y: number): Vec => add(lerp(from, to, x), scale(pull, y))
  const middle = deep ? add(lerp(from, to, 0.5), pull) : null
  return {
    from,
    to,
    pull,
    isStraight: straight,
    own: [at(run, rise), at(1 - run, rise)],
    middle: middle && {
      at: middle,
      in: add(middle, scale(chord, -across)),
      out: add(middle, scale(chord, across)),
      joint: 'smooth',
    },
  }
}

/** Handles of a symmetrical bow: where the first ends (shares of the chord along it, of the depth across), and how far those of the middle reach, shares of the chord. */
interface Bow {
  run: number
  rise: number
  across: number
}

/** Part of a circle, `depth` its height as a share of its chord: handles 4/3 tan(angle / 4) radii long. */
function arcBow(depth: number, deep: boolean): Bow {
  const half = 2 * Math.atan(2 * depth)
  const radius = (depth * depth + 0.25) / (2 * depth)
  if (deep) {
    const reach = (4 / 3) * Math.tan(half / 4) * radius
    return { run: reach * Math.cos(half), rise: (reach * Math.sin(half)) / depth, across: reach }
  }
  // One cubic whose middle is where it was pulled, with the circle's tangents.
  const rise = 4 / 3
  return { run: (rise * depth) / Math.tan(half), rise, across: 0 }
}

/**
 * A rod that is bent between its ends, which turn freely (L. Euler, De curvis elasticis, 1744): with the modulus
 * k = sin(a / 2) for the angle a at its ends, height / chord = k / (2 E(k) - K(k)).
 */
function rodBow(depth: number, deep: boolean): Bow {
  let low = 0
  let high = MOST_MODULUS
  for (let i = 0; i < 40; i++) {
    const k = (low + high) / 2
    const { K, E } = ellipticIntegrals(k)
    if (2 * E > K && k < depth * (2 * E - K)) low = k
    else high = k
  }
  const k = low
  const { K } = ellipticIntegrals(k)
  const angle = 2 * Math.asin(k)
  if (!deep) return { run: ((4 / 3) * depth) / Math.tan(angle), rise: 4 / 3, across: 0 }
  // Both handles of a half are as long as gives it the rod's area, height^2 sin(angle) / 4 k^2.
  const area = (depth * depth * Math.sin(angle)) / (4 * k * k)
  let [short, long] = [0, (K * depth) / (2 * k)]
  for (let i = 0; i < 40; i++) {
    const reach = (short + long) / 2
    if (
      areaUnder(
        { x: reach * Math.cos(angle), y: reach * Math.sin(angle) },
        { x: 0.5 - reach, y: depth },
        { x: 0.5, y: depth },
      ) < area
    )
      short = reach
    else long = reach
  }
  return { run: short * Math.cos(angle), rise: (short * Math.sin(angle)) / depth, across: short }
}

/** The area between a cubic from (0, 0) and the x axis: the integral of y dx, exact by three Gauss places. */
function areaUnder(p1: Vec, p2: Vec, p3: Vec): number {
  const c = { p0: { x: 0, y: 0 }, p1, p2, p3 }
  return [0.5 - Math.sqrt(0.15), 0.5, 0.5 + Math.sqrt(0.15)].reduce(
    (sum, t, i) => sum + (i === 1 ? 4 / 9 : 5 / 18) * pointAt(c, t).y * derivativeAt(c, t).x,
    0,
  )
}

/** From this modulus on the ends of a bent rod meet. */
const MOST_MODULUS = 0.9089

/** Complete elliptic integrals of the first and second kind, by the arithmetic-geometric mean. */
function ellipticIntegrals(k: number): { K: number; E: number } {
  let a = 1
  let b = Math.sqrt(1 - k * k)
  let sum = (k * k) / 2
  for (let n = 0, power = 1; n < 12; n++, power *= 2) {
    const c = (a - b) / 2
    ;[a, b] = [(a + b) / 2, Math.sqrt(a * b)]
    sum += power * c * c
  }
  const K = Math.PI / (2 * a)
  return { K, E: K * (1 - sum) }
}

function isStraight(from: Vec, to: Vec, pull: Pull): boolean {
  const chord = subtract(to, from)
  return Math.abs(cross(chord, pull)) <= STRAIGHT * dot(chord, chord)
}

/** The unit tangent at a smooth joint; null where the joint stays a corner. */
function tangentAtJoint(before: Chord | undefined, after: Chord | undefined): Vec | null {
  if (!before || !after || (before.isStraight && after.isStraight)) return null
  const arriving = before.isStraight ? subtract(before.to, before.from) : subtract(before.to, before.own[1])
  const leaving = after.isStraight ? subtract(after.to, after.from) : subtract(after.own[0], after.from)
  const [a, b] = [direction(arriving), direction(leaving)]
  if (!a || !b) return null
  if (before.isStraight) return a
  if (after.isStraight) return b
  // Bows that turn back upon each other have no common tangent.
  return direction(add(a, b))
}

/** Both handles of a chord, given the tangents that its ends must have (null: as it likes). */
function handles(chord: Chord, start: Vec | null, end: Vec | null): [Vec | null, Vec | null] {
  const { from, to, pull } = chord
  // A straight chord needs no handles; at a smooth joint the other side's tangent already lies along it.
  if (chord.isStraight) return [start ? lerp(from, to, 1 / 3) : null, end ? lerp(from, to, 2 / 3) : null]
  const { own } = chord
  if (!start && !end) return own
  const u = start ?? direction(subtract(own[0], from))
  const v = end ?? direction(subtract(to, own[1]))
  if (!u || !v) return own
  // A deep bow keeps its middle: only the ends turn.
  if (chord.middle)
    return [
      start ? add(from, scale(u, distance(from, own[0]))) : own[0],
      end ? add(to, scale(v, -distance(to, own[1]))) : own[1],
    ]
  // With handles from + a u and to - b v the middle is where it was pulled when a u - b v = 8/3 pull.
  const length = distance(from, to)
  const d = scale(pull, 8 / 3)
  const det = cross(v, u)
  const a = det !== 0 ? cross(v, d) / det : 0
  const b = det !== 0 ? cross(u, d) / det : 0
  const isSane = (x: number): boolean => x > SHORTEST * length && x < LONGEST * length
  if (isSane(a) && isSane(b)) return [add(from, scale(u, a)), add(to, scale(v, -b))]
  const reach = distance(from, own[0])
  return [add(from, scale(u, reach)), add(to, scale(v, -reach))]
}
