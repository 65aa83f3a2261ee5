import type { Path, Shape } from '../drawing/model'
import type { Cubic } from '../geometry/cubic'
import { controlLength, cubicsOfPath, pathOfCubics } from '../geometry/path'
import { areaOfCubics } from '../geometry/area'
import { InputError } from '../errors'
import { checkPath } from '../outline/check'
import { traceBoundary } from './boundary'
import { splitAtCrossings } from './crossings'
import { cutBack } from './cut-back'
import type { Loop } from './loop'
import { whole } from './loop'
import { planarMap } from './planar-map'
import { snapLoops } from './snap-grid'

/** How much of the tolerance the flattened topology may use. */
const FLATTEN_SHARE = 0.25

/**
 * Contours of the region that `loops` enclose by the non-zero rule, the region on the left of each. Contours thinner
 * than the noise of the grid are dropped.
 */
export function resolveLoops(loops: readonly Loop[], tolerance: number): Cubic[][] {
  const soup = snapLoops(loops, tolerance * FLATTEN_SHARE)
  if (!soup) return []
  const split = splitAtCrossings(soup)
  const map = planarMap(split)
  const fine = Math.max(4 * soup.step, tolerance * 0.02)
  const out: Cubic[][] = []
  for (const runs of traceBoundary(split, map, (w) => w !== 0)) {
    const cubics = cutBack(split, runs, fine)
    if (cubics.length && Math.abs(areaOfCubics(cubics)) > fine * controlLength(cubics)) out.push(cubics)
  }
  return out
}

/** The closed loop of a contour; a contour that does not end where it began is closed by a straight edge. */
export function loopOfPath(path: Path): Loop {
  const cubics = cubicsOfPath({ nodes: path.nodes, closed: true })
  return cubics.map(whole)
}

export const toPaths = (contours: readonly Cubic[][]): Path[] => contours.map((c) => pathOfCubics(c, true, 1e-6))

/** Checks the tolerance shared by the core's doors: a positive number of px. */
export function checkTolerance(tolerance: number): void {
  if (!(tolerance > 0) || !Number.isFinite(tolerance)) {
    throw new InputError('tolerance', `The tolerance must be a positive number of pixels, not ${tolerance}.`)
  }
}

/**
 * Union of shapes, each filled by the non-zero rule. Contours have the region on their left: positive area for outer
 * ones, negative for holes.
 *
 * @param tolerance px, above 0
 * @throws InputError for a coordinate or tolerance that is not a number
 */
export function unionShapes(shapes: readonly Shape[], { tolerance }: { tolerance: number }): Path[] {
  checkTolerance(tolerance)
  const loops: Loop[] = []
  shapes.forEach((shape, i) => {
    shape.contours.forEach((c, k) => checkPath(c, `shapes[${i}].contours[${k}]`))
    // One shape's opposite contours must not cancel another's, so each is made positive by itself first.
    const own = resolveLoops(shape.contours.map(loopOfPath).filter((l) => l.length), tolerance)
    for (const contour of own) loops.push(contour.map(whole))
  })
  return toPaths(shapes.length === 1 ? loops.map((l) => l.map((a) => a.curve)) : resolveLoops(loops, tolerance))
}

