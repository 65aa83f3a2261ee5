import type { Drawing, Weight } from '#core/model/model'
import type { Sides } from '#core/weight/stops'
import { growStops, removeStops, slideStops } from '#core/weight/stops'
import { changeLines } from '#core/editing/change-items'
import type { StopRef } from './worktop'
import { arrowStep } from './instrument'

/** An arrow key takes stops along by this share of the line, and widens them by this multiple of half the size; with Shift five times as far. */
const NUDGE = { along: 0.01, across: 0.02, farther: 5 }

export const sameStop = (a: StopRef, b: StopRef): boolean => a.line === b.line && a.index === b.index

/** `stops` with one more, or without it where it was among them. */
export const toggledStop = (stops: readonly StopRef[], stop: StopRef): StopRef[] =>
  stops.some((s) => sameStop(s, stop)) ? stops.filter((s) => !sameStop(s, stop)) : [...stops, stop]

/** Stops by their lines. */
export function stopsByLine(stops: readonly StopRef[]): Map<string, Set<number>> {
  const out = new Map<string, Set<number>>()
  for (const { line, index } of stops) out.set(line, (out.get(line) ?? new Set()).add(index))
  return out
}

/** "a width stop", "3 width stops". */
export const stopsInWords = (stops: readonly StopRef[]): string =>
  stops.length > 1 ? `${stops.length} width stops` : 'a width stop'

/** Puts the weight of every line that has some of the stops through `change`, with the indices of its own. */
export function changeStops(
  draft: Drawing,
  stops: readonly StopRef[],
  change: (weight: Weight, indices: ReadonlySet<number>, line: string) => Weight,
): void {
  for (const [id, indices] of stopsByLine(stops))
    changeLines(draft, [id], (line) => void (line.weight = change(line.weight, indices, id)))
}

/** A change of stops that is one step of the history. */
export interface StopsChange {
  label: string
  recipe: (draft: Drawing) => void
  removes: boolean
}

export const removalOf = (stops: readonly StopRef[]): StopsChange => ({
  label: `Remove ${stopsInWords(stops)}`,
  recipe: (draft) => changeStops(draft, stops, removeStops),
  removes: true,
})

/** What a key makes of stops: arrows slide and widen, Delete removes; null for other keys. */
export function keyOnStops(stops: readonly StopRef[], key: string, shift: boolean, sides: Sides): StopsChange | null {
  if (key === 'Delete' || key === 'Backspace') return removalOf(stops)
  const step = arrowStep(key, false)
  if (!step) return null
  const far = shift ? NUDGE.farther : 1
  return {
    label: `${step.x ? 'Slide' : 'Change'} ${stopsInWords(stops)}`,
    recipe: (draft) =>
      changeStops(draft, stops, (weight, indices) =>
        step.x
          ? slideStops(weight, indices, step.x * far * NUDGE.along)
          : growStops(weight, indices, sides, -step.y * far * NUDGE.across),
      ),
    removes: false,
  }
}
