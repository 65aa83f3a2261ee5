import type { Path } from '../geometry/path'
import type { Shape } from '../model/model'
import { areaOfCubics } from '../geometry/area'
import { arrange } from '../arrangement/arrange'
import { traceBoundary } from '../arrangement/boundary'
import type { CombineOptions } from './combine'
import { loopsOf } from './combine'
import { checkTolerance, toPaths } from '../arrangement/contours'
import { CutBack } from '../arrangement/cut-back'
import { planarMap } from '../arrangement/planar-map'
import { FINE_STEPS } from '../arrangement/resolve'
import { visitFaces } from '../arrangement/winding'

/** One of the pieces into which shapes divide each other. */
export interface Piece {
  /** Its outer contour, of positive area, and its holes. */
  contours: Path[]
  /** Which shapes cover it: their places in the list, ascending. */
  covers: number[]
}

/**
 * The pieces into which the outlines of shapes divide each other, each with the shapes that cover it. Neighbouring
 * pieces share their borders exactly. Pieces that no shape covers are left out.
 *
 * @throws InputError for a coordinate or tolerance that is not a number
 */
export function piecesOf(shapes: readonly Shape[], { tolerance }: CombineOptions): Piece[] {
  checkTolerance(tolerance)
  const arrangement = arrange(loopsOf(shapes, 'shapes'), tolerance)
  if (!arrangement) return []
  const map = planarMap(arrangement)
  const covers: (number[] | null)[] = new Array<number[] | null>(map.faces).fill(null)
  visitFaces(map, shapes.length, (face, { covered, winding }) => {
    if (covered === 0) return
    const list: number[] = []
    for (let g = 0; list.length < covered; g++) if (winding[g] !== 0) list.push(g)
    covers[face] = list
  })
  const fine = FINE_STEPS * arrangement.grid.step
  const cutter = new CutBack(map, fine)
  const pieces = new Map<number, Piece>()
  for (const { face, runs } of traceBoundary(map, (h) => covers[map.face[h]!] !== null)) {
    const cubics = cutter.contour(runs)
    if (!cubics.length || Math.abs(areaOfCubics(cubics)) === 0) continue
    const piece = pieces.get(face) ?? { contours: [], covers: covers[face]! }
    pieces.set(face, piece)
    piece.contours.push(...toPaths([cubics]))
  }
  return [...pieces.values()]
}
