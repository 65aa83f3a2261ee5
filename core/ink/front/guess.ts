import type { Line } from '../../model/model'
import type { EndContact } from '../../relations/end-contacts'
import { isShownAt } from '../../relations/shown'
import { arcOfPath } from '../../geometry/known'
import type { Form } from './form'
import { isIn } from './form'

/** How much each sign says, as the logarithm of the odds. */
const SAYS = {
  /** The line of one is snipped away within the other. */
  snipped: 3,
  /** A line of one comes to an end at the outline of the other: it goes on behind that. */
  stops: 2,
  /** Its layer lies above the other's. */
  layer: 1.2,
  /** Its outline runs on unbroken, as one line. */
  whole: 0.8,
  /** It was laid later on the same layer. */
  later: 0.4,
} as const

/** So many places of a line are looked at for what is snipped away of it. */
const PLACES = 40

/** What is known of where lines lie. */
export interface Places {
  /** The layer of a line, by its id, and its place among all lines; both count from the bottom. */
  layerOf: (id: string) => number
  placeOf: (id: string) => number
  endsOf: (id: string) => readonly EndContact[]
}

/**
 * Which of two forms that overlap lies in front, 0 or 1, and how sure that is, 0..1; from what is there already: snips, lines that
 * stop at the other's outline, layers, which outline is whole, which was laid later.
 */
export function guessFront([a, b]: readonly [Form, Form], places: Places): { guess: 0 | 1 | null; sure: number } {
  const odds = signsFor(a, b, places) - signsFor(b, a, places)
  if (Math.abs(odds) < 1e-9) return { guess: null, sure: 0 }
  const p = 1 / (1 + Math.exp(-Math.abs(odds)))
  return { guess: odds > 0 ? 0 : 1, sure: 2 * p - 1 }
}

/** What says that a form lies before another. */
function signsFor(form: Form, other: Form, { layerOf, placeOf, endsOf }: Places): number {
  const top = (f: Form, of: (id: string) => number): number => Math.max(...f.lines.map((l) => of(l.id)))
  const [layer, otherLayer] = [top(form, layerOf), top(other, layerOf)]
  let odds = 0
  if (other.lines.some((l) => isSnippedIn(l, form))) odds += SAYS.snipped
  const own = new Set(form.lines.map((l) => l.id))
  const stops = other.lines.some((l) =>
    endsOf(l.id).some((c) => c.kind === 'meeting' && c.touched.some((t) => own.has(t.line) && !t.ends)),
  )
  if (stops) odds += SAYS.stops
  if (layer > otherLayer) odds += SAYS.layer
  if (form.lines.length === 1 && !form.bridge && (other.lines.length > 1 || other.bridge)) odds += SAYS.whole
  if (layer === otherLayer && top(form, placeOf) > top(other, placeOf)) odds += SAYS.later
  return odds
}

/** Whether a stretch of a line within a form is snipped away. */
function isSnippedIn(line: Line, form: Form): boolean {
  if (!line.snips.some((s) => !s.idle)) return false
  const arc = arcOfPath(line.path)
  return Array.from({ length: PLACES }, (_, i) => (i + 0.5) / PLACES).some(
    (at) => !isShownAt(line, at) && isIn(form, arc.point(at * arc.total)),
  )
}
