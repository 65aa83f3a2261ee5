import type { ArcLength } from '../geometry/arc-length'
import type { Cubic } from '../geometry/cubic'
import { derivativeAt, leastSpeed, reach, secondDerivativeAt, tangentAt } from '../geometry/cubic'
import { turn } from '../geometry/path'
import { length } from '../geometry/point'
import type { LineWidth } from '../weight/half-widths'
import { lowestBetween } from './folds'
import type { Part } from './folds'
import type { Meet } from './side-chain'
import type { Stretch } from './visible'

/** Parts that follow one another; meets[i] tells how part i meets the one before. */
export interface Parts {
  parts: Part[]
  meets: Meet[]
}

/** A bend within so small a share of the tolerance is taken to happen at a point. */
const TIGHT = 1 / 32
/** ... where it turns by more than this, radians. */
const SHARP = 0.3
/** Where the centreline is nowhere slower than this share of the segment's size, no bend is looked for. */
const MOVING = 0.3
/** The turn within a bend is summed up over so many steps: a small loop turns by more than half a circle. */
const STEPS = 64
/** The centreline stands still where its speed is less than this share of the segment's size. */
const STILL = 1e-8

/** The parts of a stretch, cut at nodes, stops, tapers' inner ends, cusps and bends too tight to be followed. */
export function partsOf(arc: ArcLength, width: LineWidth, { from, to }: Stretch, tolerance: number): Parts {
  const least = 1e-9 * arc.total
  const marks = [from, to]
  for (const s of [...arc.starts, ...width.breaks]) if (s > from + least && s < to - least) marks.push(s)
  marks.sort((a, b) => a - b)
  const out: Parts = { parts: [], meets: [] }
  const add = (part: Part, meet: Meet): void => {
    out.parts.push(part)
    out.meets.push(meet)
  }
  const tight = arc.cubics.map((c) => tightPlace(c, tolerance))
  let last: Part | null = null
  for (let i = 0; i + 1 < marks.length; i++) {
    const a = marks[i]!
    const b = marks[i + 1]!
    if (b - a <= least) continue
    const { segment } = arc.locate((a + b) / 2)
    const parameter = (s: number): number => {
      if (Math.abs(s - arc.starts[segment]!) <= least) return 0
      if (Math.abs(s - arc.starts[segment + 1]!) <= least) return 1
      return arc.locate(s).t
    }
    const part: Part = {
      segment,
      t0: parameter(a),
      t1: parameter(b),
      easeStart: width.roundStart && a <= least,
      easeEnd: width.roundEnd && b >= arc.total - least,
    }
    const meet =
      last && last.segment !== segment ? meetingOf(arc, last.segment, segment, tolerance, width, a) : 'smooth'
    const place = tight[segment]
    if (place && place.t0 > part.t0 && place.t1 < part.t1) {
      add({ ...part, t1: place.t0, easeEnd: false }, meet)
      add({ ...part, t0: place.t1, easeStart: false }, place.meet)
    } else add(part, meet)
    last = part
  }
  return out
}

/** How the first part of a closed line meets its last. */
export const seamOf = (arc: ArcLength, width: LineWidth, tolerance: number): Meet =>
  meetingOf(arc, arc.cubics.length - 1, 0, tolerance, width, arc.total)

/** Two segments meet smoothly where the turn between them shows at neither edge. */
function meetingOf(
  arc: ArcLength,
  before: number,
  after: number,
  tolerance: number,
  width: LineWidth,
  at: number,
): Meet {
  const a = tangentAt(arc.cubics[before]!, 1)
  const b = tangentAt(arc.cubics[after]!, 0)
  if (!a || !b) return 'smooth'
  const angle = Math.abs(turn(a, b))
  const h = width.at(at)
  return angle < 0.02 && angle * Math.max(h.left, h.right) < tolerance / 8 ? 'smooth' : 'corner'
}

/** A place at which a cubic is slow and so turns fast. */
interface TightPlace {
  t0: number
  t1: number
  /** Smooth where the bend can be followed; else it is taken to happen at a point, or truly does. */
  meet: Meet
}

/**
 * The inner place of a cubic at which it is slowest; null where it is nowhere slow. Parts end there, so that nobody
 * overlooks what happens within it.
 */
function tightPlace(c: Cubic, tolerance: number): TightPlace | null {
  if (leastSpeed(c) > MOVING * reach(c)) return null
  const speed = (t: number): number => length(derivativeAt(c, t))
  let slowest = -1
  for (let i = 1; i < 16; i++) {
    if (speed(i / 16) <= speed((i - 1) / 16) && speed(i / 16) <= speed((i + 1) / 16))
      slowest = slowest < 0 || speed(i / 16) < speed(slowest) ? i / 16 : slowest
  }
  if (slowest < 0) return null
  const t = lowestBetween(speed, slowest - 1 / 16, slowest + 1 / 16)
  const size = reach(c)
  const near = TIGHT * tolerance
  // Next to its slowest place the curve goes v t + a t^2 / 2.
  const v = speed(t)
  const a = length(secondDerivativeAt(c, t))
  const half = a > 0 ? (Math.sqrt(v * v + 2 * a * near) - v) / a : near / v
  const bend: TightPlace = { t0: t, t1: t, meet: 'smooth' }
  if (!(half < 0.05) || t - half <= 0 || t + half >= 1) return bend
  if (v < STILL * size) return { t0: t - half, t1: t + half, meet: 'cusp' }
  let angle = 0
  for (let i = 0; i < STEPS; i++) {
    angle += turn(
      derivativeAt(c, t + half * ((2 * i) / STEPS - 1)),
      derivativeAt(c, t + half * ((2 * (i + 1)) / STEPS - 1)),
    )
  }
  return Math.abs(angle) < SHARP ? bend : { t0: t - half, t1: t + half, meet: { pivot: angle } }
}
