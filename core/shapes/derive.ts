import type { Drawing, Line, Retouch, Shape } from '../drawing/model'
import { InputError } from '../errors'
import { expandLines } from '../outline/expand'
import { atOnce } from '../turns'
import { ArrangementFault } from './check-arrangement'
import { coveredRegion, uncovered } from './cover'
import { withRetouches } from './retouch'
import { simplifyContours } from './simplify'
import { unionShapes } from './combine'

/** The shapes that a drawing's visible layers make, and what simplifying them did. */
export interface ShapesResult {
  shapes: Shape[]
  nodesBefore: number
  nodesAfter: number
  /** Measured, px. */
  deviation: number
  /** How many retouches of outlines wait, because no outline runs where they were made. */
  waiting: number
  /** Lines that have no ink, because it cannot be worked out, each with a sentence that says why. */
  failed: { id: string; message: string }[]
}

/**
 * The shapes of a drawing by its settings: every visible line expanded less what
 * others cover, united by ink where asked, simplified. A
 * generator, so that long work can report (shares 0..1) and be dropped between steps.
 */
export function* deriveShapes(drawing: Drawing): Generator<number, ShapesResult> {
  const { unite, tolerance, simplify } = drawing.settings.shapes
  const parts: Shape[] = []
  const failed: ShapesResult['failed'] = []
  const lines = drawing.layers.flatMap((l): (Line | Shape)[] => (l.visible && l.kind !== 'sketch' ? l.items : []))
  const covers = lines.map((item) => ('path' in item ? coveredRegion(item) : null))
  for (const [i, item] of lines.entries()) {
    const above = covers.slice(i + 1).filter((c) => c !== null)
    const own = 'path' in item ? expanded(item, tolerance, failed) : [item]
    for (const part of own) {
      const contours = uncovered(part.contours, above, tolerance)
      if (contours.length) parts.push(contours === part.contours ? part : { ...part, contours })
    }
    yield (0.5 * (i + 1)) / lines.length
  }
  const whole = unite ? yield* unitedByInk(parts, tolerance) : parts
  const result: ShapesResult = { shapes: [], nodesBefore: 0, nodesAfter: 0, deviation: 0, waiting: 0, failed }
  for (const [i, shape] of whole.entries()) {
    const before = shape.contours.reduce((n, c) => n + c.nodes.length, 0)
    result.nodesBefore += before
    if (simplify > 0) {
      const slim = simplifyContours(shape.contours, { tolerance: simplify })
      result.shapes.push({ ...shape, contours: slim.contours })
      result.nodesAfter += slim.nodesAfter
      result.deviation = Math.max(result.deviation, slim.deviation)
    } else {
      result.shapes.push(shape)
      result.nodesAfter += before
    }
    yield 0.7 + (0.3 * (i + 1)) / whole.length
  }
  const { retouches } = drawing.settings
  return retouches?.length ? retouched(result, retouches) : result
}

/** The shape of a line; one whose ink cannot be worked out loses nothing but its own. */
function expanded(line: Line, tolerance: number, failed: ShapesResult['failed']): Shape[] {
  try {
    return expandLines([line], { tolerance, union: false })
  } catch (e) {
    if (!(e instanceof InputError || e instanceof ArrangementFault)) throw e
    failed.push({ id: line.id, message: e.message })
    return []
  }
}

function retouched(result: ShapesResult, retouches: readonly Retouch[]): ShapesResult {
  const { shapes, waiting } = withRetouches(result.shapes, retouches)
  const nodesAfter = shapes.reduce((n, s) => n + s.contours.reduce((m, c) => m + c.nodes.length, 0), 0)
  return { ...result, shapes, nodesAfter, waiting }
}

/** As `deriveShapes`, in one go. */
export const shapesOf = (drawing: Drawing): ShapesResult => atOnce(deriveShapes(drawing))

/** One shape an ink; an ink's shape takes the place of its first part in the stack. */
function* unitedByInk(parts: readonly Shape[], tolerance: number): Generator<number, Shape[]> {
  const inks = [...new Set(parts.map((p) => p.ink))]
  const out: Shape[] = []
  for (const ink of inks) {
    yield 0.5 + (0.2 * out.length) / inks.length
    const mine = parts.filter((p) => p.ink === ink)
    out.push({ id: `${ink}:united`, contours: unionShapes(mine, { tolerance }), ink, from: mine.flatMap((p) => p.from) })
  }
  return out.filter((s) => s.contours.length)
}
