import { produce, setAutoFreeze } from 'immer'
import { withPointsOnGrid } from './grid'
import type { Drawing, TraceSample } from '../model/model'
import type { PassName } from '../model/pass-reached'
import type { Patch } from './patch'
import { applyPatches } from './apply-patches'
import { patchesBetween } from './patches-between'
import { withLightSettled } from './light-settled'
import { withoutEmptyLists } from './optional-fields'
import { withSnipsSettled } from './settle-snips'

setAutoFreeze(true)

/** What an edit does to the history: a step of its own, or a walk over an earlier step. */
export type EditKind = 'edit' | 'undo' | 'redo'

/** A labelled change of the drawing and its inverse. `id` is unique, so that a resent edit is known again. */
export interface Edit {
  id: string
  kind: EditKind
  label: string
  patches: Patch[]
  inverse: Patch[]
  /** The pass in which it was made, where that is known. */
  pass?: PassName
  /** Samples of traces that it brings, by their hash, until the server has them. */
  traces?: Record<string, TraceSample[]>
}

export type Recipe = (draft: Drawing) => void

/** The drawing as `recipe` makes it; snips keep to the crossings that bound them, and a light that follows edits falls anew. */
export const changed = (drawing: Drawing, recipe: Recipe): Drawing =>
  withLightSettled(drawing, underHand(drawing, recipe))

/** The drawing as it is to be seen while a hand drags: snips keep to their crossings, but the light waits for the hand to let go. */
export const underHand = (drawing: Drawing, recipe: Recipe): Drawing =>
  shownAs(
    drawing,
    produce(drawing, (draft) => void recipe(draft as Drawing)),
  )

/** As `underHand`, of a drawing that is made already: drafts of thousands of points take longer than a frame. */
export function shownAs(drawing: Drawing, next: Drawing): Drawing {
  const shown = withSnipsSettled(drawing, withPointsOnGrid(drawing, withoutEmptyLists(next)))
  Object.freeze(shown.layers)
  return shown
}

/** The edit that leads from one drawing to the other; null when they are the same. */
export function editBetween(before: Drawing, after: Drawing, label: string): Edit | null {
  const patches = patchesBetween(before, after)
  if (!patches.length) return null
  return { id: globalThis.crypto.randomUUID(), kind: 'edit', label, patches, inverse: patchesBetween(after, before) }
}

/** The drawing after `recipe`, and the edit that leads there; null when nothing changed. */
export function makeEdit(drawing: Drawing, label: string, recipe: Recipe): { drawing: Drawing; edit: Edit } | null {
  const next = changed(drawing, recipe)
  const edit = editBetween(drawing, next, label)
  return edit && { drawing: next, edit }
}

/** @throws UnfitPatch when the edit was made on a drawing that had what this one lacks */
export const applyEdit = (drawing: Drawing, edit: Pick<Edit, 'patches'>): Drawing => applyPatches(drawing, edit.patches)

/** The edit that takes `edit` back, or brings it again: its patches change places. */
export function walkOver(edit: Edit, kind: 'undo' | 'redo'): Edit {
  return {
    id: globalThis.crypto.randomUUID(),
    kind,
    label: edit.label,
    patches: kind === 'undo' ? edit.inverse : edit.patches,
    inverse: kind === 'undo' ? edit.patches : edit.inverse,
  }
}

/** A walk over a step as a step of its own, for when it is no longer the newest that it walks over. */
export const asStep = (walk: Edit): Edit => ({
  ...walk,
  id: globalThis.crypto.randomUUID(),
  kind: 'edit',
  label: `${walk.kind === 'undo' ? 'Undo' : 'Redo'} ${walk.label}`,
})
