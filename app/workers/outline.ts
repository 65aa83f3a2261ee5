import { toPaths } from '#core/arrangement/contours'
import type { Line, Path, Shape } from '#core/drawing/model'
import type { Box } from '#core/geometry/bounds'
import { boxOfCubics } from '#core/geometry/bounds'
import { cubicsOfPath, pathData } from '#core/geometry/path'
import type { Failure, Region } from '#core/ink/outlines'

/** An item's outline ready for drawing: path data, bounds, and what it is filled with. */
export interface Outline {
  id: string
  ink: string
  data: string
  box: Box
}

export const outlineOfContours = ({ id, ink }: Pick<Line | Shape, 'id' | 'ink'>, contours: readonly Path[]): Outline => ({
  id,
  ink,
  data: contours.map((c) => pathData({ ...c, closed: true }, 4)).join(''),
  box: boxOfCubics(contours.flatMap((c) => cubicsOfPath({ ...c, closed: true }))),
})

/** The outline of a line whose ink is worked out; an empty one where it cannot be. */
export const outlineOfRegion = (line: Line, region: Region | Failure): Outline => outlineOfContours(line, 'message' in region ? [] : toPaths(region.contours))
