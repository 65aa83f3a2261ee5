import type { Cubic } from '../geometry/cubic'
import { flatten } from '../geometry/cubic'
import { areaOfCubics } from '../geometry/area'
import { arc } from '../outline/arc'

/** Points that a contour needs at least to be taken for a circle, and how evenly they must lie around it. */
const FEWEST = 12
const WIDEST_GAP = Math.PI / 3

/** A contour as a circle of the fewest cubics, where it lies within `tolerance` px of one; else null. */
export function asCircle(contour: readonly Cubic[], tolerance: number): Cubic[] | null {
  const points = contour.flatMap((c) => flatten(c, tolerance / 8).slice(1))
  if (points.length < FEWEST) return null
  const box = points.reduce(
    (b, p) => [Math.min(b[0]!, p.x), Math.max(b[1]!, p.x), Math.min(b[2]!, p.y), Math.max(b[3]!, p.y)],
    [Infinity, -Infinity, Infinity, -Infinity],
  )
  const centre = { x: (box[0]! + box[1]!) / 2, y: (box[2]! + box[3]!) / 2 }
  let least = Infinity
  let most = 0
  let gap = 0
  points.forEach((p, i) => {
    const r = Math.hypot(p.x - centre.x, p.y - centre.y)
    least = Math.min(least, r)
    most = Math.max(most, r)
    const q = points[(i + 1) % points.length]!
    gap = Math.max(gap, Math.hypot(p.x - q.x, p.y - q.y))
  })
  if (most - least > 1.6 * tolerance || gap > WIDEST_GAP * least) return null
  const radius = (least + most) / 2
  const way = areaOfCubics(contour) > 0 ? 1 : -1
  const cubics = arc(centre, { x: radius, y: 0 }, way * 2 * Math.PI, tolerance * 0.2)
  cubics[cubics.length - 1] = { ...cubics[cubics.length - 1]!, p3: cubics[0]!.p0 }
  return cubics
}
