import type { LightRule, Line } from '#core/drawing/model'
import { changeLines } from '~/stores/find'
import type { Worktop } from './instrument'

/** Weights that are tried on: they show on the canvas, and the drawing stays as it is until they are accepted. */
export interface Trial {
  /** How a line would be; the same object each time it is asked for the same line. */
  of: (line: Line) => Line
  /** What would happen, in words. */
  summary: string
  /** The light that is tried, if it is one. */
  light?: LightRule
  /** Whether there is anything to accept. */
  changes: boolean
  accept: () => void
  drop: () => void
  /** Looks at more than it does now. */
  wider?: { title: string; run: () => void }
}

/** Makes what was tried on the lines named a step of the history. */
export function makeStep(worktop: Worktop, label: string, of: (line: Line) => Line, ids: Iterable<string>): void {
  const wanted = new Set(ids)
  const weights = new Map(worktop.allLines(true).filter((l) => wanted.has(l.id)).map((l) => [l.id, of(l).weight]))
  worktop.tryOn(null)
  worktop.edit(label, (draft) => void changeLines(draft, [...weights.keys()], (line) => void (line.weight = weights.get(line.id)!)))
}

/** What a summary says of lines that a rule passes over. */
export const leftAlone = (pinned: number): string => (pinned ? ` ${pinned} pinned ${pinned === 1 ? 'line is' : 'lines are'} left alone.` : '')

/** `of` with its answers kept, so that an outline is expanded once. */
export function kept(of: (line: Line) => Line): (line: Line) => Line {
  const known = new WeakMap<Line, Line>()
  return (line) => {
    let tried = known.get(line)
    if (!tried) known.set(line, (tried = of(line)))
    return tried
  }
}
