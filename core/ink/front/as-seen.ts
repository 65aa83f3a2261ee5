import type { Path } from '../../geometry/path'
import { arcOfPath } from '../../geometry/known'
import type { Vec } from '../../geometry/point'
import type { Line, Snip } from '../../model/model'
import type { EndContact } from '../../relations/end-contacts'
import { placesAlong } from '../../relations/crossing-places'
import { shownParts } from '../../relations/shown'
import { isSameList } from '../../same-list'
import { isIn } from './form'

/** By the id of a line that is hidden in part, the closed paths of what lies in front of it. */
export type InFrontOf = ReadonlyMap<string, readonly Path[]>

const known = new WeakMap<Line, { loops: readonly Path[]; seen: Line }>()

/**
 * A line as it is seen behind what lies in front of it: what is hidden is snipped away, for whatever goes by lines. The same
 * object where nothing hides it, and for as long as the same hides it.
 *
 * @param loops closed paths within which it is hidden
 */
export function asSeen(line: Line, loops: readonly Path[] | undefined): Line {
  if (!loops?.length) return line
  const was = known.get(line)
  if (was && isSameList(was.loops, loops)) return was.seen
  const snips = loops.flatMap((loop) => snipsWithin(line.path, loop))
  const seen = snips.length ? { ...line, snips: [...line.snips, ...snips] } : line
  known.set(line, { loops, seen })
  return seen
}

/** Whether a place of a line lies behind what lies in front of it. */
export const isBehind = (p: Vec, loops: readonly Path[] | undefined): boolean =>
  loops?.some((loop) => isIn({ loop }, p)) ?? false

/** Whether an end is to be seen, and so is what it meets or goes past. */
export function isInSight(
  { line, at, under }: Pick<EndContact, 'line' | 'at' | 'under'>,
  inFront: InFrontOf,
  lines: ReadonlyMap<string, Line>,
): boolean {
  if (isBehind(at, inFront.get(line))) return false
  const other = under && inFront.has(under.line) ? lines.get(under.line) : undefined
  if (!other) return true
  const arc = arcOfPath(other.path)
  return !isBehind(arc.point(under!.at * arc.total), inFront.get(other.id))
}

/** Whether nothing of a line shows, as it is seen. */
export const isUnseen = (seen: Line): boolean => !shownParts(seen).length

/** What of a path lies within a loop, as snips from crossing to crossing. */
function snipsWithin(path: Path, loop: Path): Snip[] {
  const arc = arcOfPath(path)
  const places = [0, ...placesAlong(path, loop), 1]
  return places.slice(1).flatMap((to, i): Snip[] => {
    const from = places[i]!
    return to > from && isIn({ loop }, arc.point(((from + to) / 2) * arc.total)) ? [{ from, to }] : []
  })
}
