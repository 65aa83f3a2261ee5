import { toPaths } from '#core/arrangement/contours'
import type { Line, Shape } from '#core/model/model'
import type { Path } from '#core/geometry/path'
import type { Vec } from '#core/geometry/point'
import { boxOfCubics } from '#core/geometry/bounds'
import { cubicsOfPath, pathData } from '#core/geometry/path'
import type { Failure, Region } from '#core/ink/outlines/outlines'
import type { InkPart } from './paint-stack'

/** An item's outline ready for drawing: path data, bounds, and what it is filled with. */
export interface Outline extends InkPart {
  id: string
  ink: string
}

/** The outline of what a form throws, and the lines above which it lies in the stack. */
export interface CastOutline extends Outline {
  above: readonly string[]
}

export const outlineOfContours = (
  { id, ink }: Pick<Line | Shape, 'id' | 'ink'>,
  contours: readonly Path[],
): Outline => ({
  id,
  ink,
  data: contours.map((c) => pathData({ ...c, closed: true }, 4)).join(''),
  box: boxOfCubics(contours.flatMap((c) => cubicsOfPath({ ...c, closed: true }))),
})

/** The outline of an item whose ink is worked out; an empty one where it cannot be. */
export const outlineOfRegion = (item: Line | Shape, region: Region | Failure): Outline =>
  outlineOfContours(item, 'message' in region ? [] : toPaths(region.contours))

/** The outline of a line that was moved by `d`, px: the same path data, drawn elsewhere. */
export function shiftedOutline(outline: Outline, d: Vec): Outline {
  const { box, shift } = outline
  const by = { x: (shift?.by.x ?? 0) + d.x, y: (shift?.by.y ?? 0) + d.y }
  return {
    ...outline,
    shift: { of: shift?.of ?? outline, by },
    box: { minX: box.minX + d.x, minY: box.minY + d.y, maxX: box.maxX + d.x, maxY: box.maxY + d.y },
  }
}
