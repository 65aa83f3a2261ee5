import type { Path } from '../geometry/path'
import type { Cubic } from '../geometry/cubic'
import { cubicsOfPath, pathOfCubics } from '../geometry/path'
import { InputError } from '../errors'
import type { Loop } from './loop'
import { whole } from './loop'

/** The closed loop of a contour; a contour that does not end where it began is closed by a straight edge. */
export function loopOfPath(path: Path): Loop {
  const cubics = cubicsOfPath({ nodes: path.nodes, closed: true })
  return cubics.map(whole)
}

/** Closed contours, px, as closed paths. */
export const toPaths = (contours: readonly Cubic[][]): Path[] => contours.map((c) => pathOfCubics(c, true, 1e-6))

/** Checks the tolerance shared by the core's doors: a positive number of px. */
export function checkTolerance(tolerance: number): void {
  if (!(tolerance > 0) || !Number.isFinite(tolerance)) {
    throw new InputError('tolerance', `The tolerance must be a positive number of pixels, not ${tolerance}.`)
  }
}
