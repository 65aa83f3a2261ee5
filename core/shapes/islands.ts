import Flatbush from 'flatbush'
import { areaOfCubics } from '../geometry/area'
import type { Box } from '../geometry/bounds'
import { boxOfCubics } from '../geometry/bounds'
import type { Cubic } from '../geometry/cubic'
import type { Vec } from '../geometry/point'
import { windingAt, windingOf } from '../geometry/winding-at'

/** One connected shape: the places of its contours in the list, its outer one first. */
export type Island = readonly number[]

/**
 * The connected shapes that contours make which do not cross, each with its region on its left: every outer contour with
 * the holes in it, in the order of the outer ones.
 */
export function islandsOf(contours: readonly (readonly Cubic[])[]): Island[] {
  const areas = contours.map(areaOfCubics)
  const outer = contours.flatMap((_, i) => (areas[i]! > 0 ? [i] : []))
  if (!outer.length) return []
  const boxes = outer.map((i) => boxOfCubics(contours[i]!))
  const index = new Flatbush(outer.length)
  for (const b of boxes) index.add(b.minX, b.minY, b.maxX, b.maxY)
  index.finish()
  const islands = outer.map((i) => [i])
  contours.forEach((hole, i) => {
    if (areas[i]! >= 0 || !hole.length) return
    const { x, y } = hole[0]!.p0
    const about = index.search(x, y, x, y).filter((k) => windingOf(contours[outer[k]!]!, { x, y }) !== 0)
    const [own] = about.sort((a, b) => areas[outer[a]!]! - areas[outer[b]!]!)
    if (own !== undefined) islands[own]!.push(i)
  })
  return islands
}

/** The island that has a point in its ink; null where none has. */
export function islandAt(contours: readonly (readonly Cubic[])[], islands: readonly Island[], p: Vec): Island | null {
  const isIn = (box: Box): boolean => p.x >= box.minX && p.x <= box.maxX && p.y >= box.minY && p.y <= box.maxY
  return islands.find((island) => isIn(boxOfCubics(contours[island[0]!]!)) && windingAt(island.map((i) => contours[i]!), p) !== 0) ?? null
}
