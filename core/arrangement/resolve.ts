import { areaOfCubics } from '../geometry/area'
import type { Cubic } from '../geometry/cubic'
import { reverse, subcurve } from '../geometry/cubic'
import { controlLength } from '../geometry/path'
import type { Arrangement } from './arrangement'
import { arranged } from './arranged'
import { borderOf, traceBoundary } from './boundary'
import { CutBack } from './cut-back'
import type { Loop } from './loop'
import { loopOf } from './loop'
import type { PlanarMap } from './planar-map'
import { planarMap } from './planar-map'
import { tidied } from './tidy'
import type { Covering } from './winding'
import { visitFaces } from './winding'

/** Pieces shorter than so many grid steps are noise. */
export const FINE_STEPS = 4

/** Holes whose area is below this share of tolerance x length are cracks. */
const CRACK = 0.15

/** So often is a result looked through for crossings and resolved again before it is taken off the grid itself. */
const LOOKS = 3

/**
 * Contours of the region that `loops` enclose by the non-zero rule, the region on the left of each. Contours thinner
 * than the noise of the grid are dropped.
 */
export const resolveLoops = (loops: readonly Loop[], tolerance: number): Cubic[][] =>
  resolveGroups([loops], tolerance, ({ covered }) => covered > 0)

/**
 * Contours of the region where `inside` holds of the groups' winding numbers. The result is looked through again: where
 * true curves cross that no chord told of, they are cut there too, so that no contour crosses itself or another by more
 * than two grid steps (a 128th of the tolerance).
 */
export function resolveGroups(
  groups: readonly (readonly Loop[])[],
  tolerance: number,
  inside: (covering: Covering) => boolean,
): Cubic[][] {
  const contours = arranged(groups, tolerance, (arrangement) => {
    if (!arrangement.met && groups.length === 1 && groups[0]!.length === 1)
      return aloneOf(groups[0]![0]!, arrangement, tolerance)
    const map = planarMap(arrangement)
    return contoursOfFaces(map, facesWhere(map, groups.length, inside), tolerance)
  })
  return contours ?? []
}

/** The faces in which `inside` holds, 1 for each. */
function facesWhere(map: PlanarMap, groups: number, inside: (covering: Covering) => boolean): Uint8Array {
  const faces = new Uint8Array(map.faces)
  visitFaces(map, groups, (face, covering) => {
    faces[face] = inside(covering) ? 1 : 0
  })
  return faces
}

/** Contours of the region that faces make (1 for each), looked through again as in `resolveGroups`. */
export function contoursOfFaces(before: PlanarMap, chosen: Uint8Array, tolerance: number): Cubic[][] {
  let [map, faces] = [before, chosen]
  let contours = tracedContours(map, faces, tolerance)
  if (!map.arrangement.met || map.arrangement.fine) return contours
  for (let look = 1; contours.length; look++) {
    const next = arranged([contours.map(loopOf)], tolerance, (again) => (again.met ? lookedAt(again) : null))
    if (!next?.crossed()) return contours
    if (look === LOOKS) return polygonsOf(map, faces)
    ;({ map, faces } = next)
    contours = tracedContours(map, faces, tolerance)
  }
  return contours
}

/** The contours of one loop that meets nothing, not even itself: the loop as it is, or nothing. */
function aloneOf(loop: Loop, { grid }: Arrangement, tolerance: number): Cubic[][] {
  const fine = FINE_STEPS * grid.step
  const curves = loop.map((a) => (a.t0 === 0 && a.t1 === 1 ? a.curve : subcurve(a.curve, a.t0, a.t1)))
  const ahead = areaOfCubics(curves) >= 0
  const contour = tidied(ahead ? curves : curves.map(reverse).reverse(), fine)
  return contour.length && !isNoise(contour, fine, tolerance) ? [contour] : []
}

/** Whether contours cross themselves or each other by more than two grid steps (a 128th of the tolerance). */
export function crossesItself(contours: readonly Cubic[][], tolerance: number): boolean {
  return !!arranged([contours.map(loopOf)], tolerance, (again) => again.met && lookedAt(again).crossed())
}

/** A region's own contours arranged again: its faces, and whether one wider than the noise has a winding number other than 0 or 1. */
function lookedAt(arrangement: Arrangement): { map: PlanarMap; faces: Uint8Array; crossed: () => boolean } {
  const map = planarMap(arrangement)
  const strange: number[] = []
  const faces = new Uint8Array(map.faces)
  visitFaces(map, 1, (face, { winding }) => {
    faces[face] = winding[0]! > 0 ? 1 : 0
    if (winding[0]! < 0 || winding[0]! > 1) strange.push(face)
  })
  return { map, faces, crossed: () => strange.length > 0 && anyWide(map, strange) }
}

function tracedContours(map: PlanarMap, faces: Uint8Array, tolerance: number): Cubic[][] {
  const fine = FINE_STEPS * map.arrangement.grid.step
  const cutter = new CutBack(map, fine)
  const contours: Cubic[][] = []
  for (const { runs } of traceBoundary(map, borderOf(map, faces))) {
    const cubics = cutter.contour(runs)
    if (cubics.length && !isNoise(cubics, fine, tolerance)) contours.push(cubics)
  }
  return contours
}

/**
 * Whether a contour is no more than what rounding makes of nothing. Holes are held to more than ink: a crack finer than
 * a fit may be off is one that the fits have opened, but ink may truly be as thin as that.
 */
export function isNoise(contour: readonly Cubic[], fine: number, tolerance: number): boolean {
  const area = areaOfCubics(contour)
  const length = controlLength(contour)
  return Math.abs(area) <= 0.25 * fine * length || (area < 0 && -area < CRACK * tolerance * length)
}

/** Whether any of the faces is wider than two grid steps: its area against its outline. */
function anyWide(m: PlanarMap, faces: readonly number[]): boolean {
  const { vertices } = m.chains
  const asked = new Uint8Array(m.faces)
  for (const f of faces) asked[f] = 1
  const area = new Float64Array(m.faces)
  const outline = new Float64Array(m.faces)
  for (let h = 0; h < m.origin.length; h++) {
    const f = m.face[h]!
    if (!asked[f]) continue
    const c = h >> 1
    for (let i = m.chains.start[c]!; i < m.chains.start[c + 1]!; i++) {
      const e = m.chains.edges[i]!
      const a = m.chains.from[e]!
      const b = m.chains.to[e]!
      const ox = vertices.x[0]!
      const oy = vertices.y[0]!
      const swept = (vertices.x[a]! - ox) * (vertices.y[b]! - oy) - (vertices.x[b]! - ox) * (vertices.y[a]! - oy)
      area[f]! += (h & 1 ? -swept : swept) / 2
      outline[f]! += Math.hypot(vertices.x[b]! - vertices.x[a]!, vertices.y[b]! - vertices.y[a]!)
    }
  }
  return faces.some((f) => Math.abs(area[f]!) > outline[f]!)
}

function polygonsOf(map: PlanarMap, faces: Uint8Array): Cubic[][] {
  const cutter = new CutBack(map, 0)
  return traceBoundary(map, borderOf(map, faces), true)
    .map(({ runs }) => cutter.polygon(runs))
    .filter((c) => c.length > 2)
}
