import type { Path } from '../drawing/model'
import { fitCurve } from '../fit/fit-curve'
import { CubicChain } from '../fit/source'
import { areaOfCubics } from '../geometry/area'
import type { Cubic } from '../geometry/cubic'
import { pointAt, reach, straight, tangentAt } from '../geometry/cubic'
import { cubicsOfPath, pathOfCubics, turn } from '../geometry/path'
import type { Vec } from '../geometry/point'
import { checkPath } from '../outline/check'
import { deviationBetween } from './deviation'
import { checkTolerance } from './union'
import { crossesItself } from './resolve'

export interface Simplified {
  contours: Path[]
  /** Largest distance between the contours before and after, measured both ways, px. */
  deviation: number
  nodesBefore: number
  nodesAfter: number
}

/** Joints that turn by more than this (radians, about 14 degrees) are corners and stay. */
const CORNER = 0.25

/** How much of the tolerance each attempt gives the fitter; the first whose result holds is taken. */
const ATTEMPTS = [0.9, 0.45, 0.2, 0.08]

/**
 * Closed contours drawn again with fewer nodes, within `tolerance` px as measured. Corners stay, straight runs become
 * straight, and a result that would cross itself, turn a contour over or lose one is not taken.
 *
 * @throws InputError for a coordinate or tolerance that is not a number
 */
export function simplifyContours(contours: readonly Path[], { tolerance }: { tolerance: number }): Simplified {
  checkTolerance(tolerance)
  contours.forEach((c, i) => checkPath(c, `contours[${i}]`))
  const before = contours.map((c) => cubicsOfPath({ nodes: c.nodes, closed: true }).filter((s) => reach(s) > 0))
  const nodesBefore = before.reduce((n, c) => n + c.length, 0)
  const flatBefore = before.flat()
  for (const share of ATTEMPTS) {
    const after = before.map((c) => simplifyContour(c, tolerance * share))
    const nodesAfter = after.reduce((n, c) => n + c.length, 0)
    if (nodesAfter >= nodesBefore) break
    const deviation = deviationBetween(flatBefore, after.flat(), tolerance)
    if (deviation <= tolerance && keepsForm(before, after, tolerance)) {
      return { contours: after.map((c) => pathOfCubics(c, true, 1e-6)), deviation, nodesBefore, nodesAfter }
    }
  }
  return { contours: [...contours], deviation: 0, nodesBefore, nodesAfter: nodesBefore }
}

function keepsForm(before: readonly Cubic[][], after: readonly Cubic[][], tolerance: number): boolean {
  const sameWay = before.every((c, i) => areaOfCubics(c) * areaOfCubics(after[i]!) > 0 || !c.length)
  if (!sameWay) return false
  return !crossesItself(after, tolerance / 16)
}

function simplifyContour(cubics: readonly Cubic[], tolerance: number): Cubic[] {
  if (cubics.length < 2) return [...cubics]
  const corners = cubics.flatMap((c, i) => (isCorner(cubics[(i + cubics.length - 1) % cubics.length]!, c) ? [i] : []))
  const start = corners[0] ?? 0
  const turned = [...cubics.slice(start), ...cubics.slice(0, start)]
  const cuts = corners.length ? corners.map((i) => i - start) : smoothCuts(turned)
  cuts.push(turned.length)
  return cuts.slice(1).flatMap((end, i) => simplifyChain(turned.slice(cuts[i], end), tolerance))
}

/** A contour without corners is cut at its start and at the joint farthest from it, so that every part has a chord. */
function smoothCuts(cubics: readonly Cubic[]): number[] {
  const origin = cubics[0]!.p0
  let far = 1
  let best = -1
  cubics.forEach((c, i) => {
    const d = Math.hypot(c.p0.x - origin.x, c.p0.y - origin.y)
    if (i > 0 && d > best) {
      best = d
      far = i
    }
  })
  return [0, far]
}

function isCorner(a: Cubic, b: Cubic): boolean {
  const ta = tangentAt(a, 1)
  const tb = tangentAt(b, 0)
  return !ta || !tb || Math.abs(turn(ta, tb)) > CORNER
}

function simplifyChain(chain: readonly Cubic[], tolerance: number): Cubic[] {
  const first = chain[0]!
  const last = chain[chain.length - 1]!
  if (isNearChord(chain, first.p0, last.p3, tolerance * 0.5)) return [straight(first.p0, last.p3)]
  if (chain.length === 1) return [...chain]
  const fits = fitCurve(new CubicChain(chain), tolerance)
  return fits.length < chain.length ? fits.map((f) => f.cubic) : [...chain]
}

function isNearChord(chain: readonly Cubic[], a: Vec, b: Vec, tolerance: number): boolean {
  const l = Math.hypot(b.x - a.x, b.y - a.y)
  if (l <= tolerance) return false
  return chain.every((c) =>
    [0.2, 0.4, 0.6, 0.8, 1].every((t) => {
      const p = pointAt(c, t)
      const off = ((b.x - a.x) * (p.y - a.y) - (b.y - a.y) * (p.x - a.x)) / l
      const on = ((b.x - a.x) * (p.x - a.x) + (b.y - a.y) * (p.y - a.y)) / l
      return Math.abs(off) <= tolerance && on >= -tolerance && on <= l + tolerance
    }),
  )
}
