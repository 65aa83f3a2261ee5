import { fitCurve } from '../fit/fit-curve'
import { CubicChain } from '../fit/source'
import type { Cubic } from '../geometry/cubic'
import { isStraight, pointAt, reach, straight, tangentAt } from '../geometry/cubic'
import { turn } from '../geometry/path'
import type { Vec } from '../geometry/point'
import { distance, subtract } from '../geometry/point'

/** A straight segment stays straight when it is so many tolerances long and so many times as long as its neighbours. */
const LONG = 24
const LONGER = 3

/** Corners are looked for over so many tolerances on either side, so that steps finer than that are none. */
const WINDOW = 2

/** A closed contour drawn again with fewer cubics within `tolerance` px; corners (radians) and straight runs stay. */
export const redraw = (cubics: readonly Cubic[], tolerance: number, corner: number): Cubic[] =>
  cubics.length < 2
    ? [...cubics]
    : chainsOf(cubics, tolerance, corner).flatMap((chain) => redrawChain(chain, tolerance))

/**
 * The chains that a closed contour is made of, from corner to corner and from straight run to straight run. Where there
 * are two or more they do not depend on where the contour begins.
 */
export function chainsOf(cubics: readonly Cubic[], tolerance: number, corner: number): Cubic[][] {
  const breaks = cubics.flatMap((_, i) => (isBreak(cubics, i, tolerance, corner) ? [i] : []))
  const start = breaks[0] ?? 0
  const turned = [...cubics.slice(start), ...cubics.slice(0, start)]
  const cuts = breaks.length ? breaks.map((i) => i - start) : [0, farthest(turned)]
  cuts.push(turned.length)
  return cuts.slice(1).map((end, i) => turned.slice(cuts[i], end))
}

/** Whether the contour is cut before segment `i`: at a corner, or at the end of a straight run. */
function isBreak(cubics: readonly Cubic[], i: number, tolerance: number, corner: number): boolean {
  const n = cubics.length
  const before = cubics[(i + n - 1) % n]!
  const after = cubics[i]!
  if (keepsStraight(cubics, (i + n - 1) % n, tolerance) !== keepsStraight(cubics, i, tolerance)) return true
  const a = direction(cubics, i, -1, WINDOW * tolerance)
  const b = direction(cubics, i, 1, WINDOW * tolerance)
  if (!a || !b) return !tangentAt(before, 1) || !tangentAt(after, 0)
  return Math.abs(turn(a, b)) > corner
}

/** The way in to (-1) or out from (1) the joint before segment `i`: its tangent, or the chord over short segments. */
function direction(cubics: readonly Cubic[], i: number, way: 1 | -1, window: number): Vec | null {
  const n = cubics.length
  const first = cubics[way === 1 ? i : (i + n - 1) % n]!
  if (reach(first) >= window) return tangentAt(first, way === 1 ? 0 : 1)
  const joint = cubics[i]!.p0
  for (let k = 0; k < n; k++) {
    const c = cubics[(((way === 1 ? i + k : i - 1 - k) % n) + n) % n]!
    const p = way === 1 ? c.p3 : c.p0
    if (distance(p, joint) >= window) return way === 1 ? subtract(p, joint) : subtract(joint, p)
  }
  return null
}

function keepsStraight(cubics: readonly Cubic[], i: number, tolerance: number): boolean {
  const n = cubics.length
  const c = cubics[i]!
  const l = distance(c.p0, c.p3)
  if (l < LONG * tolerance || !isStraight(c, 0.05 * tolerance)) return false
  return [cubics[(i + n - 1) % n]!, cubics[(i + 1) % n]!].some(
    (d) => !isStraight(d, 0.05 * tolerance) || LONGER * distance(d.p0, d.p3) < l,
  )
}

/** A contour without corners is cut at its start and at the joint farthest from it, so that every part has a chord. */
function farthest(cubics: readonly Cubic[]): number {
  let far = 1
  let best = -1
  cubics.forEach((c, i) => {
    const d = distance(c.p0, cubics[0]!.p0)
    if (i > 0 && d > best) {
      best = d
      far = i
    }
  })
  return far
}

/** A chain drawn again with fewer cubics, or as it is. */
export function redrawChain(chain: readonly Cubic[], tolerance: number): Cubic[] {
  const first = chain[0]!
  const last = chain[chain.length - 1]!
  if (isNearChord(chain, first.p0, last.p3, tolerance * 0.5)) return [straight(first.p0, last.p3)]
  if (chain.length === 1) return [...chain]
  const fits = fitCurve(new CubicChain(chain), tolerance)
  return fits.length < chain.length ? fits.map((f) => f.cubic) : [...chain]
}

function isNearChord(chain: readonly Cubic[], a: Vec, b: Vec, tolerance: number): boolean {
  const l = distance(a, b)
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
