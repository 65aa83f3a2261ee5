import type { Path } from '../geometry/path'
import type { Shape } from '../model/model'
import { checkPath } from '../outline/check'
import { checkTolerance, loopOfPath, toPaths } from '../arrangement/contours'
import type { Loop } from '../arrangement/loop'
import { resolveGroups } from '../arrangement/resolve'

export interface CombineOptions {
  /** px, above 0; the grid on which crossings are decided is a 256th of it. */
  tolerance: number
}

/**
 * Union of shapes, each filled by the non-zero rule. Contours have the region on their left: positive area for outer
 * ones, negative for holes. Curves that nothing crosses come out as they went in.
 *
 * @throws InputError for a coordinate or tolerance that is not a number
 */
export function unionShapes(shapes: readonly Shape[], { tolerance }: CombineOptions): Path[] {
  checkTolerance(tolerance)
  return toPaths(resolveGroups(loopsOf(shapes, 'shapes'), tolerance, ({ covered }) => covered > 0))
}

/** What of `shape` none of `others` covers; otherwise as `unionShapes`. */
export function subtractShapes(shape: Shape, others: readonly Shape[], { tolerance }: CombineOptions): Path[] {
  checkTolerance(tolerance)
  const groups = [...loopsOf([shape], 'shape'), ...loopsOf(others, 'others')]
  return toPaths(resolveGroups(groups, tolerance, ({ covered, winding }) => covered === 1 && winding[0] !== 0))
}

/** What all of `shapes` cover; otherwise as `unionShapes`. Nothing, of no shapes. */
export function intersectShapes(shapes: readonly Shape[], { tolerance }: CombineOptions): Path[] {
  checkTolerance(tolerance)
  const all = shapes.length
  return toPaths(resolveGroups(loopsOf(shapes, 'shapes'), tolerance, ({ covered }) => all > 0 && covered === all))
}

/** What contours fill by the even-odd rule, as contours that fill it by the non-zero rule too; otherwise as `unionShapes`. */
export function evenOddContours(contours: readonly Path[], { tolerance }: CombineOptions): Path[] {
  checkTolerance(tolerance)
  return toPaths(
    resolveGroups(
      loopsOf([{ id: '', contours: [...contours], ink: '', from: [] }], 'contours'),
      tolerance,
      ({ winding }) => winding[0]! % 2 !== 0,
    ),
  )
}

/** The closed loops of each shape. */
export function loopsOf(shapes: readonly Shape[], field: string): Loop[][] {
  return shapes.map((shape, i) => {
    shape.contours.forEach((c, k) => checkPath(c, `${field}[${i}].contours[${k}]`))
    return shape.contours.map(loopOfPath).filter((l) => l.length)
  })
}
