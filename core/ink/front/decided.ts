import type { Drawing, Front } from '../../model/model'
import type { Form } from './form'

/** Two forms, of which the first lies before the second. */
export interface Pair {
  front: Form
  back: Form
  /** Because it lies above it in the stack: then it hides nothing that lies above itself. */
  byOrder?: true
}

/** What was decided of forms. */
export interface Decided {
  /** Of which one lies before the other. */
  pairs: Pair[]
  /** Of whose first form's covering the second is spared. */
  apart: Pair[]
  /** Ids of decisions about forms that are not there. */
  waits: string[]
  /** Keys of all pairs that something was decided of. */
  known: Set<string>
}

/** What was decided of forms one by one, of those that are there. */
export function decidedOneByOne({ amendments }: Pick<Drawing, 'amendments'>, forms: readonly Form[]): Decided {
  const decided: Decided = { pairs: [], apart: [], waits: [], known: new Set() }
  const { pairs, apart, waits, known } = decided
  const bounds = boundsOf(forms)
  for (const a of (amendments ?? []).toReversed()) {
    if (a.kind !== 'front') continue
    const [front, back] = [formOf(a.front, bounds), formOf(a.back, bounds)]
    if (!front || !back || front === back) {
      waits.push(a.id)
      continue
    }
    // Of two decisions about the same forms the later one holds.
    const key = pairKey(front, back)
    if (known.has(key)) continue
    known.add(key)
    if (a.both) apart.push({ front, back }, { front: back, back: front })
    else {
      pairs.push({ front, back })
      apart.push({ front: back, back: front })
    }
  }
  return decided
}

/** By the id of a line, the form that it bounds. */
export function boundsOf(forms: readonly Form[]): ReadonlyMap<string, Form> {
  const bounds = new Map<string, Form>()
  for (const form of forms) for (const l of form.lines) bounds.set(l.id, form)
  return bounds
}

export const pairKey = (a: Form, b: Form): string => [a.key, b.key].sort().join('|')

/** The form that some lines bound: of those that have lines of theirs, the one that has most in common with them. */
export function formOf(ids: Front['front'], bounds: ReadonlyMap<string, Form>): Form | null {
  const common = new Map<Form, number>()
  for (const id of ids) {
    const form = bounds.get(id)
    if (form) common.set(form, (common.get(form) ?? 0) + 1)
  }
  let best: { form: Form; share: number } | null = null
  for (const [form, n] of common) {
    const share = n / (form.lines.length + ids.length - n)
    if (!best || share > best.share) best = { form, share }
  }
  return best?.form ?? null
}
