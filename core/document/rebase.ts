import type { Edit } from './edits'
import { applyEdit, asStep } from './edits'
import type { History } from './history'
import { advance } from './history'
import type { Drawing } from '../model/model'
import type { Each, Patch } from './patch'
import { patchesBetween } from './patches-between'
import { UnfitPatch } from './patch'
import { withSnipsBound } from './settle-snips'
import { withLightSettled } from './light-settled'
import { idsOf } from './check-drawing'

/** Edits put on top of another drawing than the one they were made on. */
export interface Rebased {
  drawing: Drawing
  history: History
  /** The edits as they fit now, in order. */
  edits: Edit[]
  /** Those that do not fit any more. */
  lost: Edit[]
}

/**
 * Puts edits on top of a drawing that others changed. Each is given the inverse that leads back from where it leads now,
 * so that taking it back brings back what the others made; walks over such a step follow it. An undo or redo that no
 * longer walks over the newest step becomes a step of its own, and once a step is left out, so are walks after it: they may
 * be over that very step.
 */
export function rebase(onto: { drawing: Drawing; history: History }, edits: readonly Edit[]): Rebased {
  let { drawing, history } = onto
  const fit: Edit[] = []
  const lost: Edit[] = []
  /** Steps as they were before they were given another inverse, by id. */
  const were = new Map<string, Edit>()
  for (const edit of edits) {
    try {
      if (lost.length && edit.kind !== 'edit') throw new UnfitPatch('it walks over a step that was left out')
      const held = walkFor(edit, history, were)
      const applied = applyEdit(drawing, held)
      // What follows from lines of both hands follows anew.
      const next = withLightSettled(drawing, withSnipsBound(drawing, applied))
      const patches = next === applied ? held.patches : patchesBetween(drawing, next)
      const inverse = patchesBetween(next, drawing)
      const now = patches === held.patches && same(inverse, held.inverse) ? held : { ...held, patches, inverse }
      if (now !== edit) were.set(now.id, edit)
      drawing = next
      history = advance(history, now)
      fit.push(now)
    } catch {
      lost.push(edit)
    }
  }
  return { drawing, history, edits: fit, lost }
}

/** An edit as it is, or a walk as it walks over the newest step of this history. */
function walkFor(edit: Edit, history: History, were: ReadonlyMap<string, Edit>): Edit {
  if (edit.kind === 'edit') return edit
  const undoes = edit.kind === 'undo'
  const newest = undoes ? history.undo.at(-1) : history.redo.at(-1)
  if (!newest) return asStep(edit)
  const way = (step: Edit): Patch[] => (undoes ? step.inverse : step.patches)
  if (same(edit.patches, way(newest))) return edit
  const was = were.get(newest.id)
  if (!was || !same(edit.patches, way(was))) return asStep(edit)
  return { ...edit, patches: way(newest), inverse: undoes ? newest.patches : newest.inverse }
}

const same = (a: readonly Patch[], b: readonly Patch[]): boolean => JSON.stringify(a) === JSON.stringify(b)

/** Labels of those of `mine` that changed the very thing that one of `theirs` changed, and so stand in its place. */
export function clashes(theirs: readonly Edit[], mine: readonly Edit[]): string[] {
  const targets = theirs.flatMap((e) => e.patches.flatMap(targetsOf))
  const met = (target: string): boolean =>
    targets.some((t) => t === target || t.startsWith(`${target}/`) || target.startsWith(`${t}/`))
  return [...new Set(mine.filter((e) => e.patches.some((p) => targetsOf(p).some(met))).map((e) => e.label))]
}

/** What a patch changes, each as one text: an item that is added is named by its id, like any other. */
function targetsOf({ op, path, value }: Patch): string[] {
  const at = path.join('/')
  switch (op) {
    case 'add':
      return [[...path.slice(0, -1), (value as { id: string }).id].join('/')]
    case 'order':
      return [`${at} order`]
    case 'map':
      return idsOf({ op, value }).map((id) => `${at}/${id}/path`)
    case 'each':
      return idsOf({ op, value }).map((id) => [at, id, ...(value as Each).field].join('/'))
    case 'copy':
      return idsOf({ op, value }).map((id) => `${at}/${id}`)
    default:
      return [at]
  }
}
