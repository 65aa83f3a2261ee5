import type { Path } from '../../geometry/path'
import type { Loop } from '../../arrangement/loop'
import { loopOf, loopOfPoints } from '../../arrangement/loop'
import { toPaths } from '../../arrangement/contours'
import { resolveLoops } from '../../arrangement/resolve'
import { areaOfCubics } from '../../geometry/area'
import type { Cubic } from '../../geometry/cubic'
import { along } from '../../geometry/point'
import { windingOf } from '../../geometry/winding-at'
import { cubicsOfPath } from '../../geometry/path'
import { simplifyContours } from '../../shapes/simplify'
import type { Edge, EdgePlace } from '../regions/edge'
import type { Face } from '../regions/faces'

/** A fill goes a little past the middle of the ink, so that what comes from both sides of a line within it meets. */
const SHARE = 1.1
/** Where the middle of the ink is not known, it goes so far, px of the usual page. */
const LITTLE = 0.3
/** The edge beneath the ink is not seen: it may lie off by this share of how far it runs. */
const SLACK = 0.25

/**
 * The shape of a fill: its region, and beneath the ink about it up to its middle, or up to `under` px where that is less.
 * It goes beneath all of an island that has no paper of its own.
 */
export function trapped(
  face: Face,
  edge: Edge,
  under: number | null,
  { tolerance, perPx }: { tolerance: number; perPx: number },
): Cubic[][] {
  const solid = face.contours.flatMap((c, i) => (i > 0 && !face.hollow[i] ? [] : [i]))
  const loops: Loop[] = solid.map((i) => loopOf(face.contours[i]!))
  if (under === 0) return resolveLoops(face.contours.map(loopOf), tolerance)
  let least = Infinity
  for (const i of solid) {
    const reaches = smoothed(edge[i]!.map((p) => reachAt(p, under, perPx)))
    const points = edge[i]!.map((p, k) => along(p.at, p.inward, reaches[k]!))
    least = reaches.reduce((m, r) => (r > 0.05 * perPx && r < m ? r : m), least)
    if (points.length > 2) loops.push(loopOfPoints(points))
  }
  const all = resolveLoops(loops, tolerance)
  // What is left open within hollow islands is no fill's; any other hole lies beneath ink.
  const islands = face.contours.filter((_, i) => i > 0 && face.hollow[i])
  const wide = all.filter((c) => areaOfCubics(c) > 0 || islands.some((island) => windingOf(island, c[0]!.p0) !== 0))
  return simplified(toPaths(wide), SLACK * Math.min(least, perPx), tolerance)
}

function simplified(contours: Path[], slack: number, tolerance: number): Cubic[][] {
  const all = slack > tolerance ? simplifyContours(contours, { tolerance: slack }).contours : contours
  return all.map((c) => cubicsOfPath({ ...c, closed: true }))
}

function reachAt({ middle }: EdgePlace, under: number | null, perPx: number): number {
  const half = middle === null ? LITTLE * perPx : middle * SHARE
  return under === null ? half : Math.min(half, under)
}

/** No place goes much farther than its neighbours, so that the edge beneath the ink has no steps that it could leave it by. */
const smoothed = (reaches: readonly number[]): number[] =>
  reaches.map((r, i) =>
    Math.min(r, reaches[(i + 1) % reaches.length]! * 1.5, reaches[(i + reaches.length - 1) % reaches.length]! * 1.5),
  )
