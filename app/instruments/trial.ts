import type { Drawing, Line } from '#core/model/model'
import { changeLines } from '#core/editing/change-items'
import type { Edits, Hits, View } from './worktop'

/** Makes what was tried on the lines named a step of the history. */
export function makeStep(
  worktop: Edits & Hits & View,
  label: string,
  of: (line: Line) => Line,
  ids: Iterable<string>,
  also: (draft: Drawing) => void = () => undefined,
): void {
  const wanted = new Set(ids)
  const weights = new Map(
    worktop
      .allLines(true)
      .filter((l) => wanted.has(l.id))
      .map((l) => [l.id, of(l).weight]),
  )
  worktop.tryOn(null)
  worktop.edit(label, (draft) => {
    changeLines(draft, [...weights.keys()], (line) => void (line.weight = weights.get(line.id)!))
    also(draft)
  })
}

/** What a summary says of lines that a rule passes over. */
export const leftAlone = (pinned: number): string =>
  pinned ? ` ${pinned} pinned ${pinned === 1 ? 'line is' : 'lines are'} left alone.` : ''
