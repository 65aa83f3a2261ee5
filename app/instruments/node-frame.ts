import type { Vec } from '#core/geometry/point'
import { boxOfPoints } from '#core/geometry/bounds'
import { add, lerp, rotate, subtract } from '#core/geometry/point'

/** The upright frame about chosen nodes, corners from the top left clockwise, and where it is turned by. */
export interface NodeFrame {
  corners: [Vec, Vec, Vec, Vec]
  turner: Vec
}

/** How far the turning mark stands off the frame, and how wide a frame is at least, screen px. */
const OFF = 24
const ROOM = 10

/** The frame about points; null for fewer than two. */
export function frameAbout(points: readonly Vec[], zoom: number): NodeFrame | null {
  if (points.length < 2) return null
  const { minX, minY, maxX, maxY } = boxOfPoints(points)
  const pad = ROOM / zoom
  const [left, top, right, bottom] = [minX - pad, minY - pad, maxX + pad, maxY + pad]
  return {
    corners: [
      { x: left, y: top },
      { x: right, y: top },
      { x: right, y: bottom },
      { x: left, y: bottom },
    ],
    turner: { x: (left + right) / 2, y: top - OFF / zoom },
  }
}

/** What dragging a corner of a frame by `d` does to points: in proportion with `even`, about the middle with `central`. */
export function scaling(
  { corners }: NodeFrame,
  corner: number,
  d: Vec,
  even: boolean,
  central: boolean,
): (p: Vec) => Vec {
  const from = corners[corner]!
  const opposite = corners[(corner + 2) % 4]!
  const fixed = central ? lerp(from, opposite, 0.5) : opposite
  const arm = subtract(from, fixed)
  let kx = arm.x ? (arm.x + d.x) / arm.x : 1
  let ky = arm.y ? (arm.y + d.y) / arm.y : 1
  if (even) kx = ky = 1 + (d.x * arm.x + d.y * arm.y) / (arm.x * arm.x + arm.y * arm.y || 1)
  return (p) => ({ x: fixed.x + (p.x - fixed.x) * kx, y: fixed.y + (p.y - fixed.y) * ky })
}

/** By how much a map lets a frame grow on the whole: the root of what its area grows by. */
export function growth({ corners }: NodeFrame, map: (p: Vec) => Vec): number {
  const area = ([a, b, , d]: readonly Vec[]): number =>
    Math.abs((b!.x - a!.x) * (d!.y - a!.y) - (b!.y - a!.y) * (d!.x - a!.x))
  const before = area(corners)
  return before > 0 ? Math.sqrt(area(corners.map(map)) / before) : 1
}

/** What dragging the turning mark to `to` does to points: they turn about the frame's middle, in steps of 15 degrees with `stepped`. */
export function turning({ corners, turner }: NodeFrame, to: Vec, stepped: boolean): (p: Vec) => Vec {
  const middle = lerp(corners[0], corners[2], 0.5)
  const angleOf = (p: Vec): number => Math.atan2(p.y - middle.y, p.x - middle.x)
  const step = Math.PI / 12
  const angle = angleOf(to) - angleOf(turner)
  const held = stepped ? Math.round(angle / step) * step : angle
  return (p) => add(middle, rotate(subtract(p, middle), held))
}
