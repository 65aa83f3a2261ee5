import { applyEdit } from '#core/document/edits'
import { checkDrawing, checkTouched } from '#core/document/check-drawing'
import type { Drawing } from '#core/model/model'
import type { Patch } from '#core/document/patch'
import { patchesBetween } from '#core/document/patches-between'

/** A step of a history that is being brought in. */
export interface Step {
  label: string
  patches: Patch[]
  inverse: Patch[]
}

/**
 * The drawing after all its steps, checked as at every other door. Each document on the way must be what they lead to, and
 * each inverse must lead to a drawing. One that leads elsewhere than back, as earlier versions wrote for a few fields, is
 * written anew, in `steps`, so that undo is exact.
 *
 * @param documents whole documents by how many steps they come after
 * @throws Error that says what is wrong, of which step or document
 */
export function replayed(first: Drawing, steps: Step[], documents: ReadonlyMap<number, Drawing>): Drawing {
  let drawing = first
  for (const [i, step] of steps.entries()) {
    const before = drawing
    drawing = led(before, step.patches, `"${step.label}"`)
    if (!isSame(led(drawing, step.inverse, `what takes "${step.label}" back`), before))
      step.inverse = patchesBetween(drawing, before)
    const kept = documents.get(i + 1)
    if (kept && !isSame(kept, drawing))
      throw new Error(`the document after "${step.label}" is not what the history leads to`)
  }
  return checkDrawing(drawing)
}

function led(drawing: Drawing, patches: Patch[], what: string): Drawing {
  try {
    const next = applyEdit(drawing, { patches })
    checkTouched(next, patches)
    return next
  } catch (e) {
    throw new Error(`${what} does not fit: ${(e as Error).message}`)
  }
}

/** The same data, whatever the order of its fields. */
function isSame(a: unknown, b: unknown): boolean {
  if (Object.is(a, b)) return true
  if (typeof a !== 'object' || typeof b !== 'object' || !a || !b || Array.isArray(a) !== Array.isArray(b)) return false
  const [left, right] = [a as Record<string, unknown>, b as Record<string, unknown>]
  const fields = (of: Record<string, unknown>): string[] => Object.keys(of).filter((k) => of[k] !== undefined)
  const names = fields(left)
  return names.length === fields(right).length && names.every((k) => isSame(left[k], right[k]))
}
