import type { Cubic } from '../../geometry/cubic'
import type { LatticeUnion } from '../../shapes/lattice-union'
import type { Failure } from '../outlines/outlines'
import type { Part } from './stack'

/** The union of parts, less those that cannot be united with the others. */
export interface UnitedParts {
  contours: Cubic[][]
  failed: Failure[]
}

const CANNOT =
  'Its outline cannot be united with those around it, and was left out. Move it a little, or change its size.'

/** Unites parts; one whose outline contradicts the others' is left out whole, by its name. Yields shares done. */
export function* unitedParts(union: LatticeUnion, parts: readonly Part[]): Generator<number, UnitedParts> {
  const failed: Failure[] = []
  for (let kept = parts; ;) {
    const contours = yield* union.of(kept.flatMap((p) => p.region.contours))
    const bad = new Set(kept.filter((p) => p.region.contours.some((c) => union.leftOut.has(c))))
    if (!bad.size) return { contours, failed }
    for (const { item } of bad) failed.push({ id: item.id, message: CANNOT })
    kept = kept.filter((p) => !bad.has(p))
  }
}
