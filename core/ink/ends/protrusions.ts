import type { Box } from '../../geometry/bounds'
import { holdsBox, overlap } from '../../geometry/bounds'
import type { Cubic } from '../../geometry/cubic'
import type { Vec } from '../../geometry/point'
import { arranged } from '../../arrangement/arranged'
import type { Arrangement } from '../../arrangement/arrangement'
import { windingAt } from '../../geometry/winding-at'
import type { Areas } from '../../arrangement/areas'
import { areasOf } from '../../arrangement/areas'
import { loopOf } from '../../arrangement/loop'
import type { PlanarMap } from '../../arrangement/planar-map'
import { facesAt, planarMap } from '../../arrangement/planar-map'
import { contoursOfFaces } from '../../arrangement/resolve'
import { visitFaces } from '../../arrangement/winding'

/** Ink that an end of a line keeps within. */
export interface Met {
  contours: readonly (readonly Cubic[])[]
  /** The end lies beneath it: not even over it does it show. */
  under: boolean
}

/** An end of a line that meets other ink. */
export interface MeetingEnd {
  tip: Vec
  /** Points in the middle of the line's ink: its last stretch from the tip back, and some along all the rest. */
  near: readonly Vec[]
  rest: readonly Vec[]
  /** Both edges, a little too wide, from the end back over its last stretch, and points a little beyond its cap. */
  edges: readonly [readonly Vec[], readonly Vec[]]
  cap: readonly Vec[]
  /** It was lengthened into what it meets, farther than its edges and its cap tell. */
  ranIn: boolean
  within: readonly Met[]
  /** Half the width of the end, px. */
  half: number
  /** What pokes out lies within so many px of the tip. */
  reach: number
}

/** Kinds of faces: of the line alone, over what it meets, and over what it lies beneath. */
const ALONE = 1
const OVER = 2
const UNDER = 3

/**
 * A line's contours less what of an end shows beyond what that end meets. The ink that it meets divides the line's into
 * areas: the one that the line's middle comes from, and all others along it, are its body; what borders on the meeting
 * and is none of these pokes out. Curves that nothing cuts come back as they are; the same contours when nothing pokes out.
 */
export function withoutProtrusions(
  contours: readonly Cubic[][],
  end: MeetingEnd,
  tolerance: number,
): readonly Cubic[][] {
  if (!mayPoke(end)) return contours
  const groups = [contours, ...end.within.map((m) => m.contours)].map((g) => g.map(loopOf))
  return arranged(groups, tolerance, (arrangement) => kept(contours, end, arrangement, tolerance)) ?? contours
}

/** @param arrangement of the line's contours, and of those of each thing that the end meets */
function kept(
  contours: readonly Cubic[][],
  end: MeetingEnd,
  arrangement: Arrangement,
  tolerance: number,
): readonly Cubic[][] {
  if (!arrangement.met) return contours
  const map = planarMap(arrangement)
  const kinds = new Uint8Array(map.faces)
  visitFaces(map, end.within.length + 1, (face, { winding, covered }) => {
    if (winding[0] === 0) return
    kinds[face] = covered === 1 ? ALONE : end.within.some((m, i) => m.under && winding[i + 1] !== 0) ? UNDER : OVER
  })
  const areas = areasOf(map, kinds)
  const gone = poking(map, areas, end)
  if (!gone.size) return contours
  const left = Uint8Array.from(kinds, (kind, f) => (kind && !gone.has(areas.of[f]!) ? 1 : 0))
  return contoursOfFaces(map, left, tolerance)
}

/** Whether anything can poke out: unless the cap lies within what the end meets, and so do both edges until they leave it for good. */
function mayPoke({ within, edges, cap, ranIn }: MeetingEnd): boolean {
  if (ranIn || within.some((m) => m.under)) return true
  const isIn = (p: Vec): boolean => within.some((m) => windingAt(m.contours, p) !== 0)
  return (
    !cap.every(isIn) ||
    edges.some((edge) => {
      const first = edge.findIndex((p) => !isIn(p))
      return first === 0 || (first > 0 && edge.slice(first).some(isIn))
    })
  )
}

/** The areas that do not show. */
function poking(map: PlanarMap, areas: Areas, { tip, near, rest, half, reach }: MeetingEnd): Set<number> {
  const at = [...facesAt(map, [...near, ...rest])].map((f) => areas.of[f]!)
  const body = bodyFrom(at.slice(0, near.length), areas)
  const gone = new Set<number>()
  if (body < 0) return gone
  const kept = new Set(at.slice(body).filter((a) => a >= 0 && areas.kind[a] === ALONE))
  const tipBox = about(tip, half)
  const meeting = new Set(at.slice(0, body).filter((a) => a >= 0 && areas.kind[a] !== ALONE))
  areas.kind.forEach((kind, a) => kind !== ALONE && overlap(areas.box[a]!, tipBox) && meeting.add(a))
  const within = about(tip, reach)
  for (const a of meeting) {
    if (areas.kind[a] === UNDER) gone.add(a)
    for (const b of areas.beside[a]!)
      if (areas.kind[b] === ALONE && !kept.has(b) && holdsBox(within, areas.box[b]!)) gone.add(b)
  }
  return gone
}

/** The place in the list, from the tip back, where the body begins; -1 where all of the line lies over what it meets. */
function bodyFrom(at: readonly number[], areas: Areas): number {
  let first = -1
  let met = false
  for (const [i, a] of at.entries()) {
    if (a < 0) continue
    if (areas.kind[a] !== ALONE) met = true
    else if (met || (first >= 0 && at[first] !== a)) return i
    else if (first < 0) first = i
  }
  return met ? -1 : first
}

const about = ({ x, y }: Vec, by: number): Box => ({ minX: x - by, minY: y - by, maxX: x + by, maxY: y + by })
