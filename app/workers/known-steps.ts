import type { Drawing } from '#core/model/model'
import type { Patch } from '#core/document/patch'
import { patchesBetween } from '#core/document/patches-between'

const steps = new WeakMap<Drawing, { from: Drawing; patches: readonly Patch[] }>()

/** Notes by which patches a drawing came from another, so that nobody has to look for them again. */
export const noteStep = (from: Drawing, to: Drawing, patches: readonly Patch[]): void =>
  void steps.set(to, { from, patches })

/** The patches that lead from one drawing to another: those that were noted, or what is found to differ. */
export function patchesTo(from: Drawing, to: Drawing): readonly Patch[] {
  const known = steps.get(to)
  return known?.from === from ? known.patches : patchesBetween(from, to)
}
