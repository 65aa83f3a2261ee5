import type { Patch } from 'immer'
import { applyPatches, enablePatches, produceWithPatches, setAutoFreeze } from 'immer'
import type { Drawing } from './model'

enablePatches()
setAutoFreeze(true)

export type { Patch }

/** What an edit does to the history: a step of its own, or a walk over an earlier step. */
export type EditKind = 'edit' | 'undo' | 'redo'

/** A labelled change of the drawing and its inverse. `id` is unique, so that a resent edit is known again. */
export interface Edit {
  id: string
  kind: EditKind
  label: string
  patches: Patch[]
  inverse: Patch[]
}

/** The drawing after `recipe`, and the edit that leads there; null when nothing changed. */
export function makeEdit(
  drawing: Drawing,
  label: string,
  recipe: (draft: Drawing) => void,
): { drawing: Drawing; edit: Edit } | null {
  const [next, patches, inverse] = produceWithPatches(drawing, (draft) => {
    recipe(draft as Drawing)
  })
  if (!patches.length) return null
  return { drawing: next, edit: { id: globalThis.crypto.randomUUID(), kind: 'edit', label, patches, inverse } }
}

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
