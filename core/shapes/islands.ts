import Flatbush from 'flatbush'
import { areaOfCubics } from '../geometry/area'
import type { Box } from '../geometry/bounds'
import { boxOfCubics } from '../geometry/bounds'
import type { Cubic } from '../geometry/cubic'
import type { Vec } from '../geometry/point'
import { windingAt, windingOf } from '../geometry/winding-at'

/** One connected shape: the places of its contours in the list, its outer one first. */
export type Island = readonly number[]

/** A closed contour as far as it matters to which island it belongs. */
export interface Ring {
  /** px squared, above 0 for an outer contour, which has its region on its left. */
  area: number
  box: Box
  /** A point of it. */
  at: Vec
  /** Its winding number about a point. */
  winding: (p: Vec) => number
}

/** What matters of a contour; null of one that has no curves. */
function ringOf(cubics: readonly Cubic[]): Ring | null {
  const [first] = cubics
  return first
    ? { area: areaOfCubics(cubics), box: boxOfCubics(cubics), at: first.p0, winding: (p) => windingOf(cubics, p) }
    : null
}

/**
 * For each of the contours of a shape, which do not cross, the place of the outer one that its island has: its own for an
 * outer contour; -1 where it lies in none.
 */
export function ownersOf(rings: readonly (Ring | null)[]): Int32Array {
  const outer = rings.flatMap((r, i) => (r && r.area > 0 ? [i] : []))
  const owners = new Int32Array(rings.length).fill(-1)
  if (!outer.length) return owners
  const index = new Flatbush(outer.length)
  for (const i of outer) {
    const { minX, minY, maxX, maxY } = rings[i]!.box
    index.add(minX, minY, maxX, maxY)
    owners[i] = i
  }
  index.finish()
  rings.forEach((hole, i) => {
    if (!hole || hole.area >= 0) return
    const { x, y } = hole.at
    // The smallest one about it is its own: most often the first that is looked at.
    const about = index
      .search(x, y, x, y)
      .map((k) => outer[k]!)
      .sort((a, b) => rings[a]!.area - rings[b]!.area)
    owners[i] = about.find((k) => rings[k]!.winding(hole.at) !== 0) ?? -1
  })
  return owners
}

/** Islands by the owners of contours, in the order of the outer ones. */
export function islandsByOwner(owners: Int32Array): Island[] {
  const islands = new Map<number, number[]>()
  owners.forEach((owner, i) => owner === i && islands.set(i, [i]))
  owners.forEach((owner, i) => owner !== i && islands.get(owner)?.push(i))
  return [...islands.values()]
}

/**
 * The connected shapes that contours make which do not cross, each with its region on its left: every outer contour with
 * the holes in it, in the order of the outer ones.
 */
export const islandsOf = (contours: readonly (readonly Cubic[])[]): Island[] =>
  islandsByOwner(ownersOf(contours.map(ringOf)))

/** The island that has a point in its ink; null where none has. */
export function islandAt(contours: readonly (readonly Cubic[])[], islands: readonly Island[], p: Vec): Island | null {
  const isIn = (box: Box): boolean => p.x >= box.minX && p.x <= box.maxX && p.y >= box.minY && p.y <= box.maxY
  return (
    islands.find(
      (island) =>
        isIn(boxOfCubics(contours[island[0]!]!)) &&
        windingAt(
          island.map((i) => contours[i]!),
          p,
        ) !== 0,
    ) ?? null
  )
}
