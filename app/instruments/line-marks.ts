import type { Line } from '#core/model/model'
import type { ArcLength } from '#core/geometry/arc-length'
import { arcOfPath } from '#core/geometry/known'
import { shownParts } from '#core/relations/shown'
import { findLine } from '#core/model/find'
import type { Mark, MarkRef } from '~/canvas/marks'
import type { Edits, Selection } from './worktop'

/** More chosen lines than this are shown by their centrelines alone: their marks would hide the drawing. */
const MOST_MARKED = 60

/** Arc length of a line's path. */
export const arcOf = (line: Line): ArcLength => arcOfPath(line.path)

/** The chosen lines, as they are now. */
export function chosenLines(worktop: Edits & Selection): Line[] {
  const drawing = worktop.drawing()
  return worktop.selection().flatMap((id) => findLine(drawing, id)?.line ?? [])
}

/** Centrelines of the chosen lines, and where they are not too many the marks that each has besides. */
export function chosenMarks(worktop: Edits & Selection, besides: (line: Line) => Mark[]): Mark[] {
  const lines = chosenLines(worktop)
  if (!lines.length) return []
  const centrelines: Mark = { kind: 'paths', paths: lines.map((l) => l.path), tone: 'plum' }
  return lines.length > MOST_MARKED ? [centrelines] : [centrelines, ...lines.flatMap(besides)]
}

/** End marks of the chosen lines that go on from there when pressed; the one under the hand stands out. */
export const takenEndMarks = (worktop: Edits & Selection, over: MarkRef | null): Mark[] =>
  chosenLines(worktop).flatMap((line) =>
    endMarks(line, true).map((m) =>
      m.kind === 'end' && over && JSON.stringify(m.ref) === JSON.stringify(over) ? { ...m, hot: true } : m,
    ),
  )

/** A chevron at each open end; `taken` where a press on it is to mean something. */
export function endMarks(line: Line, taken = false): Mark[] {
  if (line.path.closed) return []
  const arc = arcOf(line)
  const first = arc.tangent(0)
  const last = arc.tangent(arc.total)
  if (!first || !last) return []
  // An end that is snipped away is not there to be gone on from.
  const [begins, ends] = [shownParts(line)[0]?.from === 0, shownParts(line).at(-1)?.to === 1]
  const marks: Mark[] = [
    {
      kind: 'end',
      at: arc.point(0),
      outward: { x: -first.x, y: -first.y },
      ref: taken ? { kind: 'end', line: line.id, end: 'first' } : null,
    },
    {
      kind: 'end',
      at: arc.point(arc.total),
      outward: last,
      ref: taken ? { kind: 'end', line: line.id, end: 'last' } : null,
    },
  ]
  return marks.filter((_, i) => (i === 0 ? begins : ends))
}
