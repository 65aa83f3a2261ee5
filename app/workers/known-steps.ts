import type { Drawing } from '#core/model/model'
import type { Patch } from '#core/document/patch'
import { patchesBetween } from '#core/document/patches-between'

/** The newest step alone: each would hold the drawing before it, and so all there ever were. */
let newest: { from: Drawing; to: Drawing; patches: readonly Patch[] } | null = null

/** Notes by which patches a drawing came from another, so that nobody has to look for them again. */
export const noteStep = (from: Drawing, to: Drawing, patches: readonly Patch[]): void =>
  void (newest = { from, to, patches })

/** The patches that lead from one drawing to another: those that were noted, or what is found to differ. */
export const patchesTo = (from: Drawing, to: Drawing): readonly Patch[] =>
  newest?.from === from && newest.to === to ? newest.patches : patchesBetween(from, to)
