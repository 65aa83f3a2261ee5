import type { Line, Shape } from '#core/drawing/model'
import type { Box } from '#core/geometry/bounds'
import { boxOfCubics, emptyBox, uniteBoxes } from '#core/geometry/bounds'
import { toPaths } from '#core/arrangement/contours'
import { cubicsOfPath, pathData } from '#core/geometry/path'
import type { Failure, Region } from '#core/ink/outlines'
import type { Contour } from './contour-book'

/** An expanded outline ready for drawing: path data, bounds, and what it is filled with. */
export interface Outline {
  id: string
  ink: string
  data: string
  box: Box
  nodes: number
}

export function outlineOfShape(shape: Shape): Outline {
  return {
    id: shape.id,
    ink: shape.ink,
    data: shape.contours.map((c) => pathData({ ...c, closed: true }, 4)).join(''),
    box: boxOfCubics(shape.contours.flatMap((c) => cubicsOfPath({ ...c, closed: true }))),
    nodes: shape.contours.reduce((n, c) => n + c.nodes.length, 0),
  }
}

/** The outline of a line whose ink is worked out; an empty one where it cannot be. */
export const outlineOfRegion = ({ id, ink }: Line, region: Region | Failure): Outline =>
  outlineOfShape({ id, ink, from: [], contours: 'message' in region ? [] : toPaths(region.contours) })

/** The outline of a shape whose contours are ready. */
export const outlineOfContours = (shape: Shape, contours: readonly Contour[]): Outline => ({
  id: shape.id,
  ink: shape.ink,
  data: contours.map((c) => c.data).join(''),
  box: contours.reduce((b, c) => uniteBoxes(b, c.box), emptyBox()),
  nodes: shape.contours.reduce((n, c) => n + c.nodes.length, 0),
})
