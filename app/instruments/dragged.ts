import type { Path } from '#core/geometry/path'
import { changeLines } from '#core/editing/change-items'
import { repath } from '#core/editing/repath'
import { findLine } from '#core/model/find'
import type { Edits, Selection } from './worktop'

/** What a drag has made of lines, by their ids, and what that is called as a step. */
export interface Dragged {
  step: string
  paths: [string, Path][]
}

/** The chosen lines as a drag has made them so far. */
export const dragged = (worktop: Edits & Selection, step: string): Dragged => ({
  step,
  paths: worktop.selection().flatMap((id): Dragged['paths'] => {
    const found = findLine(worktop.drawing(), id)
    return found ? [[id, found.line.path]] : []
  }),
})

/** Makes what a drag had come to a step. */
export function dragAgain(worktop: Edits, { step, paths }: Dragged): void {
  const pathBy = new Map(paths)
  worktop.edit(step, (draft) => changeLines(draft, [...pathBy.keys()], (l) => repath(l, pathBy.get(l.id)!, draft)))
}
