import type { Edit } from '#core/document/edits'
import type { PassName } from '#core/model/pass-reached'

/** A step of the history as it is listed; `walk` steps are taken back to go there, negative ones brought again. */
export interface Step {
  id: string
  label: string
  walk: number
  done: boolean
  pass: PassName | null
  madeAt: string | null
}

/** Steps that were made in one sitting in one pass, the newest first. */
export interface StepGroup {
  key: string
  pass: PassName | null
  /** From when to when, ISO 8601. */
  from: string | null
  to: string | null
  steps: Step[]
}

/** A pause longer than this begins another sitting, ms. */
const SITTING = 20 * 60_000

/** The steps of a history from the newest back, undone ones first. */
export function stepsOf(
  history: { undo: readonly Edit[]; redo: readonly Edit[] },
  madeAt: (id: string) => string | null,
): Step[] {
  const step = (e: Edit, walk: number, done: boolean): Step => ({
    id: e.id,
    label: e.label,
    walk,
    done,
    pass: e.pass ?? null,
    madeAt: madeAt(e.id),
  })
  return [
    ...history.redo.map((e, i) => step(e, i - history.redo.length, false)),
    ...[...history.undo].reverse().map((e, i) => step(e, i, true)),
  ]
}

/** Steps by pass and time. */
export function groupSteps(steps: readonly Step[]): StepGroup[] {
  const groups: StepGroup[] = []
  for (const step of steps) {
    const last = groups.at(-1)
    const before = last?.steps.at(-1)
    const apart =
      !last ||
      !before ||
      last.pass !== step.pass ||
      before.done !== step.done ||
      (before.madeAt && step.madeAt && Math.abs(Date.parse(before.madeAt) - Date.parse(step.madeAt)) > SITTING)
    if (apart) groups.push({ key: step.id, pass: step.pass, from: step.madeAt, to: step.madeAt, steps: [step] })
    else {
      last.steps.push(step)
      last.from = step.madeAt
    }
  }
  return groups
}
