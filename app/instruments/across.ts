import type { Line } from '#core/model/model'
import type { Vec } from '#core/geometry/point'
import { along, leftNormal } from '#core/geometry/point'
import { LineWidth } from '#core/weight/half-widths'
import { arcOf } from './line-marks'

/** The cross-section of a line at a share of its length. */
export interface Across {
  centre: Vec
  normal: Vec
  left: number
  right: number
}

/** Where the ink's edges are there. */
export const edgesOf = ({ centre, normal, left, right }: Across): { left: Vec; right: Vec } => ({
  left: along(centre, normal, left),
  right: along(centre, normal, -right),
})

/** Signed distance of `p` from the centre along the normal: positive on the left. */
export const offset = ({ centre, normal }: Across, p: Vec): number =>
  (p.x - centre.x) * normal.x + (p.y - centre.y) * normal.y

/** Whether a drag goes more across the line than along it. */
export function goesAcross(normal: Vec, d: Vec): boolean {
  const outward = d.x * normal.x + d.y * normal.y
  return outward * outward * 2 > d.x * d.x + d.y * d.y
}

export const widthOf = (line: Line): LineWidth =>
  new LineWidth(line.weight, line.finish.align, arcOf(line).total, line.path.closed)

/** The cross-section at a share of the line's length, with the ink's half-widths there. */
export function acrossAt(line: Line, at: number): Across {
  const arc = arcOf(line)
  const s = at * arc.total
  const tangent = arc.tangent(s) ?? { x: 1, y: 0 }
  const { left, right } = widthOf(line).at(s)
  return { centre: arc.point(s), normal: leftNormal(tangent), left, right }
}
