import { findShape } from '#core/model/find'
import type { Mark } from '~/canvas/marks'
import type { Edits, Selection } from './worktop'

/** Outlines of the chosen blots and fills. */
export function chosenSolidMarks(worktop: Edits & Selection): Mark[] {
  const shapes = worktop.solids().flatMap((id) => findShape(worktop.drawing(), id)?.shape ?? [])
  return shapes.length
    ? [{ kind: 'paths', paths: shapes.flatMap((s) => s.contours.map((c) => ({ ...c, closed: true }))), tone: 'plum' }]
    : []
}
