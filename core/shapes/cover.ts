import type { Line, Path, Shape } from '../drawing/model'
import { boxOfCubics, overlap } from '../geometry/bounds'
import { cubicsOfPath } from '../geometry/path'
import { subtractShapes } from './combine'

/** The region that a line covers: the inside of its path when it is closed and set to cover; null otherwise. */
export const coveredRegion = (line: Line): Path | null => (line.cover && line.path.closed && line.path.nodes.length > 1 ? line.path : null)

/**
 * The contours of a shape less what `covers` hide of it: the insides of closed paths that lie above it in the stack. The
 * same array when nothing is hidden.
 */
export function uncovered(contours: Path[], covers: readonly Path[], tolerance: number): Path[] {
  if (!covers.length || !contours.length) return contours
  const box = boxOfCubics(contours.flatMap((c) => cubicsOfPath({ ...c, closed: true })))
  const near = covers.filter((c) => overlap(box, boxOfCubics(cubicsOfPath(c))))
  if (!near.length) return contours
  const shape = (contours: Path[]): Shape => ({ id: '', contours, ink: '', from: [] })
  return subtractShapes(shape(contours), near.map((c) => shape([c])), { tolerance })
}
