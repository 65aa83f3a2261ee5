import type { Path } from '../geometry/path'
import { areaOfCubics } from '../geometry/area'
import type { Cubic } from '../geometry/cubic'
import { reach } from '../geometry/cubic'
import { cubicsOfPath, pathOfCubics } from '../geometry/path'
import { checkPath } from '../outline/check'
import { asCircle } from './as-circle'
import { checkTolerance } from '../arrangement/contours'
import { deviationBetween } from './deviation'
import { redraw } from './redraw'
import { crossesItself } from '../arrangement/resolve'

export interface Simplified {
  contours: Path[]
  /** Largest distance between the contours before and after, measured both ways, px. */
  deviation: number
  nodesBefore: number
  nodesAfter: number
}

/** Joints that turn by more than this (radians, about 14 degrees) are corners and stay, unless the caller says otherwise. */
export const CORNER_ANGLE = 0.25

/** How much of the tolerance each attempt gives the fitter; a contour takes the first whose result holds. */
export const SHARES = [0.9, 0.45, 0.2, 0.08]

/**
 * Closed contours drawn again with the fewest cubics within `tolerance` px as measured. Corners stay, straight runs
 * become straight, circles become circles. A result that would cross itself or another, turn a contour over or lose one
 * is not taken: the contours concerned are drawn again more carefully, and at last left as they were.
 *
 * @param corner turn at which a joint is a corner, radians
 * @throws InputError for a coordinate or tolerance that is not a number
 */
export function simplifyContours(
  contours: readonly Path[],
  { tolerance, corner = CORNER_ANGLE }: { tolerance: number; corner?: number },
): Simplified {
  checkTolerance(tolerance)
  contours.forEach((c, i) => checkPath(c, `contours[${i}]`))
  const before = contours.map((c) => cubicsOfPath({ nodes: c.nodes, closed: true }).filter((s) => reach(s) > 0))
  const drawn = before.map((c): Drawn => ({ before: c, share: 0, cubics: c, deviation: 0 }))
  for (const d of drawn) take(d, tolerance, corner)
  // Contours that are sound by themselves may still have come to cross each other.
  while (
    drawn.some((d) => d.share < SHARES.length) &&
    crossesItself(
      drawn.map((d) => d.cubics),
      tolerance / 4,
    )
  ) {
    for (const d of drawn) {
      d.share++
      take(d, tolerance, corner)
    }
  }
  return {
    contours: drawn.map((d, i) => (d.cubics === d.before ? contours[i]! : pathOfCubics(d.cubics, true, 1e-6))),
    deviation: drawn.reduce((m, d) => Math.max(m, d.deviation), 0),
    nodesBefore: drawn.reduce((n, d) => n + d.before.length, 0),
    nodesAfter: drawn.reduce((n, d) => n + d.cubics.length, 0),
  }
}

/** A contour, the attempt that it has come to, and what that has given. */
interface Drawn {
  before: Cubic[]
  share: number
  cubics: Cubic[]
  deviation: number
}

/** Draws a contour by its attempt, or a more careful one, or leaves it as it was. */
function take(d: Drawn, tolerance: number, corner: number): void {
  for (; d.share < SHARES.length; d.share++) {
    const fine = SHARES[d.share]! * tolerance
    const cubics = asCircle(d.before, fine) ?? redraw(d.before, fine, corner)
    if (cubics.length >= d.before.length) break
    const deviation = deviationBetween(d.before, cubics, tolerance)
    if (
      deviation > tolerance ||
      areaOfCubics(d.before) * areaOfCubics(cubics) <= 0 ||
      crossesItself([cubics], tolerance / 4)
    )
      continue
    d.cubics = cubics
    d.deviation = deviation
    return
  }
  d.share = SHARES.length
  d.cubics = d.before
  d.deviation = 0
}
