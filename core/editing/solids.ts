import { areaOfCubics } from '../geometry/area'
import { boxOfCubics, overlap } from '../geometry/bounds'
import { cubicsOfPath } from '../geometry/path'
import { outlineOf } from '../outline/expand'
import { subtractShapes, unionShapes } from '../shapes/combine'
import { toPaths } from '../arrangement/contours'
import { simplifyContours } from '../shapes/simplify'
import { newId } from '../new-id'
import type { Line, Shape } from '../model/model'
import type { Path } from '../geometry/path'

/**
 * How far a solid mark may lie from what the hand painted, px of the usual page: for its outline, and for having few
 * nodes. `scale`, where it is asked for, is px of this page for each of the usual one.
 */
const TOLERANCE = 0.05
const SLIM = 0.1

const bounds = (contours: readonly Path[]): ReturnType<typeof boxOfCubics> =>
  boxOfCubics(contours.flatMap((c) => cubicsOfPath({ ...c, closed: true })))

const slim = (contours: readonly Path[], scale: number): Path[] =>
  contours.length ? simplifyContours(contours, { tolerance: SLIM * scale }).contours : []

/** The contours that a stroke covers, with few nodes. */
export const paintedBy = (stroke: Line, scale = 1): Path[] => slim(toPaths(outlineOf(stroke, TOLERANCE * scale)), scale)

/** The shapes among `others` that share ink with some contours. */
export function touchedBy(contours: readonly Path[], others: readonly Shape[], scale = 1): Shape[] {
  const box = bounds(contours)
  const paint: Shape = { id: '', contours: [...contours], ink: '', from: [] }
  return others.filter((o) => {
    if (!overlap(box, bounds(o.contours))) return false
    // Where one shape eats nothing of the other they lie apart.
    const rest = subtractShapes(o, [paint], { tolerance: TOLERANCE * scale })
    return Math.abs(areaOf(rest) - areaOf(o.contours)) > TOLERANCE * scale ** 2
  })
}

const areaOf = (contours: readonly Path[]): number =>
  contours.reduce((sum, c) => sum + areaOfCubics(cubicsOfPath({ ...c, closed: true })), 0)

/** One shape of painted contours and the shapes that they touch. */
export const merged = (contours: Path[], ink: string, touched: readonly Shape[], scale = 1): Shape => ({
  id: touched[0]?.id ?? newId(),
  contours: touched.length
    ? slim(unionShapes([...touched, { id: '', contours, ink, from: [] }], { tolerance: TOLERANCE * scale }), scale)
    : contours,
  ink,
  from: [...new Set(touched.flatMap((t) => t.from))],
})

/** A shape without what a stroke takes away; null when nothing is left, the shape itself when nothing is taken. */
export function scrapedShape(shape: Shape, away: readonly Path[], scale = 1): Shape | null {
  if (!touchedBy(away, [shape], scale).length) return shape
  const contours = slim(
    subtractShapes(shape, [{ id: '', contours: [...away], ink: '', from: [] }], { tolerance: TOLERANCE * scale }),
    scale,
  )
  return contours.length ? { ...shape, contours } : null
}

/** A line with more of its ink scraped away: its path and weight stay, and the scrapings can be taken back. */
export function scrapedLine(line: Line, away: readonly Path[], scale = 1): Line {
  const ink: Shape = { id: '', contours: toPaths(outlineOf(line, TOLERANCE * scale)), ink: '', from: [] }
  if (!touchedBy(away, [ink], scale).length) return line
  const all = [...(line.scrapes ?? []), ...away].map((c): Shape => ({ id: '', contours: [c], ink: '', from: [] }))
  return { ...line, scrapes: slim(unionShapes(all, { tolerance: TOLERANCE * scale }), scale) }
}
