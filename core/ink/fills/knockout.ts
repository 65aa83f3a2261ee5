import type { Ink, Shape } from '../../model/model'
import { colourIn } from '../../model/inks'
import { asFarAsPossible, orElse } from '../../arrangement/as-far-as-possible'
import { arranged } from '../../arrangement/arranged'
import { checkTolerance, toPaths } from '../../arrangement/contours'
import type { PlanarMap } from '../../arrangement/planar-map'
import { planarMap } from '../../arrangement/planar-map'
import { contoursOfFaces } from '../../arrangement/resolve'
import { visitFaces } from '../../arrangement/winding'
import type { CombineOptions } from '../../shapes/combine'
import { loopsOf } from '../../shapes/combine'

/** How shapes leave: as they lie on each other; each less what lies above it; all that is light cut out of all that is dark. */
export const LEAVINGS = ['stacked', 'cut-out', 'one'] as const
export type Leaving = (typeof LEAVINGS)[number]

/** Inks at least as light as this are paper. */
const LIGHT = 0.5

/**
 * Shapes as they are to leave, from the bottom of the stack to its top. Cut out they look the same, overlap nowhere, and
 * neighbours share their borders exactly. As one they are a single shape: what is light on top is cut out of it.
 *
 * @throws InputError for a coordinate or tolerance that is not a number
 */
export function knockedOutShapes(
  shapes: readonly Shape[],
  inks: readonly Ink[],
  leaving: Leaving,
  { tolerance }: CombineOptions,
): Shape[] {
  checkTolerance(tolerance)
  if (leaving === 'stacked' || !shapes.length) return [...shapes]
  const out = (some: readonly Shape[]): Shape[] =>
    arranged(loopsOf(some, 'shapes'), tolerance, (a) => knockedOutOn(planarMap(a), some, inks, leaving, tolerance)) ??
    []
  // What cannot be cut out of the others looks the same as it lies on them.
  return leaving === 'cut-out' ? orElse(() => out(shapes), [...shapes]) : asFarAsPossible(shapes, out).result
}

function knockedOutOn(
  map: PlanarMap,
  shapes: readonly Shape[],
  inks: readonly Ink[],
  leaving: Leaving,
  tolerance: number,
): Shape[] {
  /** Of each face the shape on top; -1 for none. */
  const top = new Int32Array(map.faces).fill(-1)
  visitFaces(map, shapes.length, (face, { winding, covered }) => {
    if (!covered) return
    let s = shapes.length - 1
    while (winding[s] === 0) s--
    top[face] = s
  })
  const contoursWhere = (isIn: (shape: number) => boolean): Shape['contours'] =>
    toPaths(
      contoursOfFaces(
        map,
        Uint8Array.from(top, (s) => (s >= 0 && isIn(s) ? 1 : 0)),
        tolerance,
      ),
    )
  if (leaving === 'cut-out')
    return shapes
      .map((shape, i) => ({ ...shape, contours: contoursWhere((s) => s === i) }))
      .filter((s) => s.contours.length)
  const dark = shapes.map((s) => lightness(inks, s.ink) < LIGHT)
  // The darkest ink is what it is printed with.
  const [first] = shapes.filter((_, i) => dark[i]).sort((a, b) => lightness(inks, a.ink) - lightness(inks, b.ink))
  const contours = first ? contoursWhere((s) => dark[s]!) : []
  return first && contours.length
    ? [{ id: 'one', contours, ink: first.ink, from: [...new Set(shapes.flatMap((s, i) => (dark[i] ? s.from : [])))] }]
    : []
}

/** Relative luminance of an ink, 0..1 (WCAG 2.1, 2018). */
function lightness(inks: readonly Ink[], id: string): number {
  const colour = colourIn(inks, id)
  const [r, g, b] = [1, 3, 5].map((i) => {
    const v = parseInt(colour.slice(i, i + 2), 16) / 255
    return v <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4
  })
  return 0.2126 * r! + 0.7152 * g! + 0.0722 * b!
}
