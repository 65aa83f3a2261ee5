import type { Shape } from '#core/drawing/model'
import type { Box } from '#core/geometry/bounds'
import { boxOfCubics, emptyBox, uniteBoxes } from '#core/geometry/bounds'
import { cubicsOfPath, pathData } from '#core/geometry/path'
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

/** The outline of a shape whose contours are ready. */
export const outlineOfContours = (shape: Shape, contours: readonly Contour[]): Outline => ({
  id: shape.id,
  ink: shape.ink,
  data: contours.map((c) => c.data).join(''),
  box: contours.reduce((b, c) => uniteBoxes(b, c.box), emptyBox()),
  nodes: shape.contours.reduce((n, c) => n + c.nodes.length, 0),
})
