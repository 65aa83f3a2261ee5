import type { Line } from '../../model/model'
import type { Vec } from '../../geometry/point'
import { crossingsOf } from '../../geometry/crossings'
import type { Cubic } from '../../geometry/cubic'
import { straight } from '../../geometry/cubic'
import { along, lerp } from '../../geometry/point'
import { windingAt } from '../../geometry/winding-at'
import { loopOf } from '../../arrangement/loop'
import { resolveLoops } from '../../arrangement/resolve'
import type { EndContact } from '../../relations/end-contacts'
import { ahead, sectionAt } from './corner-finish'
import type { Neighbour } from './inked'

/** An edge that is still outside goes on by so many sizes of its line at most. */
const MOST = 3
/** It comes from outside when it has been there for so many half-widths, looked at so often. */
const BACK = 2
const LOOKS = 4
/** It runs in by so much of a half-width, so that its end lies inside. */
const INSIDE = 0.3

/** An end's ink, run on. */
export interface RunIn {
  contours: readonly Cubic[][]
  /** Whether contours made of these show any of what was added other than on its way in: then it is better left alone. */
  strays: (contours: readonly Cubic[][]) => boolean
}

/** Points that are looked at for that: along what was added, and across. */
const ALONG = 8
const ACROSS = 6

/**
 * A line's ink with an end that meets a line at a slant run on into it: the middle of the end is inside already, but the edge
 * on the near side is not, and a cap would bulge there. Both edges go straight on until they are in. Null where both are.
 */
export function runIn(
  line: Line,
  ink: readonly Cubic[][],
  contact: EndContact,
  others: readonly Neighbour[],
  tolerance: number,
): RunIn | null {
  if (line.weight.nib || !others.length) return null
  const isIn = (p: Vec): boolean => others.some((o) => windingAt(o.contours, p) !== 0)
  const { at, outward, left, right, leftWay, rightWay, half } = sectionAt(line, contact.end, contact.place)
  if (!(half > 2 * tolerance) || !isIn(at)) return null
  const limit = MOST * line.weight.size
  const ways: number[] = []
  for (const [edge, way] of [
    [left, leftWay],
    [right, rightWay],
  ] as const) {
    ways.push(0)
    if (isIn(edge)) continue
    // On the far side it has come out of the other line again: that is what tucking takes away.
    if (Array.from({ length: LOOKS }, (_, i) => along(edge, outward, (-BACK * half * (i + 1)) / LOOKS)).some(isIn))
      continue
    const enters = entry(edge, way, limit, others)
    if (enters === null) return null
    ways[ways.length - 1] = enters
  }
  const by = Math.max(...ways)
  if (!by) return null
  const reach = by + INSIDE * half
  const strip = ahead([
    straight(left, along(left, leftWay, reach)),
    straight(along(left, leftWay, reach), along(right, rightWay, reach)),
    straight(along(right, rightWay, reach), right),
    straight(right, left),
  ])
  const strays = (contours: readonly Cubic[][]): boolean => {
    for (let i = 0; i < ALONG; i++) {
      for (let k = 0; k < ACROSS; k++) {
        const [s, u] = [((i + 0.5) / ALONG) * reach, (k + 0.5) / ACROSS]
        if (s <= ways[0]! * (1 - u) + ways[1]! * u) continue
        const p = lerp(along(left, leftWay, s), along(right, rightWay, s), u)
        if (windingAt(contours, p) !== 0 && !isIn(p) && windingAt(ink, p) === 0) return true
      }
    }
    return false
  }
  return { contours: resolveLoops([...ink, strip].map(loopOf), tolerance), strays }
}

/** How far ahead of a point a ray first meets the outline of one of the lines; null where that is not within `limit` px. */
function entry(from: Vec, way: Vec, limit: number, others: readonly Neighbour[]): number | null {
  const ray = straight(from, along(from, way, limit))
  const hits = others.flatMap((o) => o.contours.flatMap((c) => crossingsOf([ray], c))).map((h) => h.a.t * limit)
  return hits.length ? Math.min(...hits) : null
}
