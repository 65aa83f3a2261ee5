import type { Path } from './path'
import { ArcLength } from './arc-length'
import type { Box } from './bounds'
import { boxOfCubic, boxOfCubics, overlap } from './bounds'
import type { Crossing } from './crossings'
import type { Cubic } from './cubic'
import { straight } from './cubic'
import { crossingsOf, selfCrossings } from './crossings'
import { cubicsOfPath } from './path'
import { remembered } from '../remembered'

/** The cubics of a path; of a path of one node a curve that stays there, so that it has a place like any other. */
function curveOf(path: Path): Cubic[] {
  const [only, second] = path.nodes
  return only && !second ? [straight(only.at, only.at)] : cubicsOfPath(path)
}

/** Arc length of a path, measured once as long as it stays the same object. A path of one node is a place of no length. */
export const arcOfPath = remembered((path: Path): ArcLength => new ArcLength(curveOf(path)))

/** Bounds of a path's curve, measured once as long as it stays the same object. */
export const boxOfPath = remembered((path: Path): Box => boxOfCubics(curveOf(path)))

/** Bounds of each segment of a path's curve, measured once as long as it stays the same object. */
export const segmentBoxesOf = remembered((path: Path): readonly Box[] => arcOfPath(path).cubics.map(boxOfCubic))

const crossings = new WeakMap<Path, WeakMap<Path, Crossing[]>>()

/** Crossings of two paths, or of one with itself; found once as long as both stay the same objects. */
export function crossingsBetween(a: Path, b: Path): readonly Crossing[] {
  let row = crossings.get(a)
  if (!row) crossings.set(a, (row = new WeakMap()))
  let found = row.get(b)
  if (!found) row.set(b, (found = measured(a, b)))
  return found
}

function measured(a: Path, b: Path): Crossing[] {
  if (a === b) return selfCrossings(arcOfPath(a).cubics, a.closed)
  return overlap(boxOfPath(a), boxOfPath(b)) ? crossingsOf(arcOfPath(a).cubics, arcOfPath(b).cubics) : []
}
