import type { Path } from '../../geometry/path'
import type { Shape } from '../../model/model'
import type { Box } from '../../geometry/bounds'
import { overlap } from '../../geometry/bounds'
import { intersectShapes, unionShapes } from '../../shapes/combine'
import { boxOfPaths } from './drawing-builder'

/** A region outside of which nothing shows. */
export interface Clip {
  contours: Path[]
  box: Box
  /** It is just its box, upright. */
  isBox: boolean
}

const shapeOf = (contours: readonly Path[]): Shape => ({ id: '', contours: [...contours], ink: '', from: [] })

/** A clip of closed contours, px, and their bounds. */
export const clipOf = (contours: readonly Path[]): Clip => ({
  contours: [...contours],
  box: boxOfPaths(contours),
  isBox: isBox(contours),
})

/** A clip of all that some regions cover. */
export const clipOfAll = (regions: readonly (readonly Path[])[], tolerance: number): Clip =>
  clipOf(unionShapes(regions.map(shapeOf), { tolerance }))

function isBox([only, ...more]: readonly Path[]): boolean {
  if (!only || more.length || only.nodes.length !== 4 || only.nodes.some((n) => n.in || n.out)) return false
  return only.nodes.every((n, i) => {
    const next = only.nodes[(i + 1) % 4]!.at
    return n.at.x === next.x || n.at.y === next.y
  })
}

const holds = (outer: Box, inner: Box): boolean =>
  inner.minX >= outer.minX && inner.minY >= outer.minY && inner.maxX <= outer.maxX && inner.maxY <= outer.maxY

/** What of a region shows within clips: `'all'` of it where none of them cuts it, else what is left, which may be nothing. */
export function within(
  box: Box,
  clips: readonly Clip[],
  contours: () => readonly Path[],
  tolerance: number,
): 'all' | Path[] {
  const cutting = clips.filter((c) => !(c.isBox && holds(c.box, box)))
  if (!cutting.length) return 'all'
  if (cutting.some((c) => !c.contours.length || !overlap(c.box, box))) return []
  return intersectShapes([shapeOf(contours()), ...cutting.map((c) => shapeOf(c.contours))], { tolerance })
}
