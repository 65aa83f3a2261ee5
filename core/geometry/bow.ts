import type { Path, PathNode } from '../drawing/model'
import type { Vec } from './point'
import { add, cross, direction, distance, dot, lerp, scale, subtract } from './point'

/** A chord's bow: how far (px) the middle of its curve has been pulled from the middle of the chord. */
export type Pull = Vec

/** A bow whose middle is pulled less than this share of the chord's length stays straight. */
const STRAIGHT = 0.004

/** Handles at a smooth joint are between these shares of the chord. */
const SHORTEST = 0.08
const LONGEST = 1.4

/**
 * The path through `points`, each chord bowed: half way along its curve it lies `pulls[i]` from the chord's middle. The
 * joint at inner point i is smooth where `smooth[i]` says so (and not both its chords are straight): its tangent then is
 * the mean of its bows', or that of the one that is straight.
 *
 * @param points n + 1 points for n pulls; `smooth[i]` belongs to points[i]
 */
export function bowedPath(points: readonly Vec[], pulls: readonly Pull[], smooth: readonly boolean[]): Path {
  const chords = pulls.map((pull, i): Chord => ({ from: points[i]!, to: points[i + 1]!, pull, isStraight: isStraight(points[i]!, points[i + 1]!, pull) }))
  const nodes = points.map((at): PathNode => ({ at, in: null, out: null, joint: 'corner' }))
  const tangents = points.map((_, i) => (smooth[i] ? tangentAtJoint(chords[i - 1], chords[i]) : null))
  chords.forEach((chord, i) => {
    const [a, b] = handles(chord, tangents[i]!, tangents[i + 1]!)
    nodes[i]!.out = a
    nodes[i + 1]!.in = b
  })
  tangents.forEach((t, i) => {
    if (t) nodes[i]!.joint = 'smooth'
  })
  return { nodes, closed: false }
}

interface Chord {
  from: Vec
  to: Vec
  pull: Pull
  isStraight: boolean
}

function isStraight(from: Vec, to: Vec, pull: Pull): boolean {
  const chord = subtract(to, from)
  return Math.abs(cross(chord, pull)) <= STRAIGHT * dot(chord, chord)
}

/** The handles of a chord bowed by itself: a parabola's, so that the curve's middle lies where it was pulled. */
const ownHandles = ({ from, to, pull }: Chord): [Vec, Vec] => [add(lerp(from, to, 1 / 3), scale(pull, 4 / 3)), add(lerp(from, to, 2 / 3), scale(pull, 4 / 3))]

/** The unit tangent at a smooth joint; null where the joint stays a corner. */
function tangentAtJoint(before: Chord | undefined, after: Chord | undefined): Vec | null {
  if (!before || !after || (before.isStraight && after.isStraight)) return null
  const arriving = before.isStraight ? subtract(before.to, before.from) : subtract(before.to, ownHandles(before)[1])
  const leaving = after.isStraight ? subtract(after.to, after.from) : subtract(ownHandles(after)[0], after.from)
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
  const own = ownHandles(chord)
  if (!start && !end) return own
  const u = start ?? direction(subtract(own[0], from))
  const v = end ?? direction(subtract(to, own[1]))
  if (!u || !v) return own
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
