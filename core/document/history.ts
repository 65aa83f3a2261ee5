import type { Edit, EditKind } from './edits'
import { applyEdit } from './edits'
import type { Drawing } from '../model/model'

/** Steps that can be taken back and brought again, the nearest last in both. */
export interface History {
  undo: Edit[]
  redo: Edit[]
}

/** The history of a drawing in which nothing was done yet. */
export const emptyHistory = (): History => ({ undo: [], redo: [] })

/** The history after one more edit of the journal. An undo moves the last step over, an edit forgets what was undone. */
export function advance(history: History, edit: Edit): History {
  switch (edit.kind) {
    case 'edit':
      return { undo: [...history.undo, edit], redo: [] }
    case 'undo': {
      const step = history.undo[history.undo.length - 1]
      return step ? { undo: history.undo.slice(0, -1), redo: [...history.redo, step] } : history
    }
    case 'redo': {
      const step = history.redo[history.redo.length - 1]
      return step ? { undo: [...history.undo, step], redo: history.redo.slice(0, -1) } : history
    }
  }
}

/**
 * The steps that a journal leaves to undo and to redo, the nearest last in both. Works on whole edits or on anything
 * that knows its kind; the journal must be whole, since an undo may reach back to any earlier step.
 */
export function replay<T extends { kind: EditKind }>(journal: readonly T[]): { undo: T[]; redo: T[] } {
  const undo: T[] = []
  let redo: T[] = []
  for (const edit of journal) {
    if (edit.kind === 'edit') {
      undo.push(edit)
      redo = []
    } else {
      const [from, to] = edit.kind === 'undo' ? [undo, redo] : [redo, undo]
      const step = from.pop()
      if (step) to.push(step)
    }
  }
  return { undo, redo }
}

/** The drawing before its last `steps` steps, or with so many undone ones where negative; null where these do not fit it any more. */
export function drawingAtStep(drawing: Drawing, { undo, redo }: History, steps: number): Drawing | null {
  const patches =
    steps > 0
      ? undo
          .slice(undo.length - steps)
          .reverse()
          .map((e) => e.inverse)
      : steps < 0
        ? redo
            .slice(steps)
            .reverse()
            .map((e) => e.patches)
        : []
  try {
    return patches.reduce((now, p) => applyEdit(now, { patches: p }), drawing)
  } catch {
    return null
  }
}

/**
 * How many of the oldest edits of a journal can be let go, at most `limit`, so that the steps that are left can be walked
 * over just as before: none of the later edits walks over one of those that go.
 */
export function mostToLetGo(kinds: readonly EditKind[], limit: number): number {
  const depths = [0]
  const redos = [0]
  for (const kind of kinds) {
    const [undo, redo] = [depths.at(-1)!, redos.at(-1)!]
    const by = kind === 'undo' ? (undo ? -1 : 0) : kind === 'redo' ? (redo ? 1 : 0) : 1
    depths.push(undo + by)
    redos.push(kind === 'edit' ? 0 : redo - by)
  }
  let lowest = Infinity
  let best = 0
  for (let n = kinds.length; n > 0 && !best; n--) {
    lowest = Math.min(lowest, depths[n]!)
    const redoable = redos[n]! > 0 && kinds[n] !== 'edit'
    if (n <= limit && lowest >= depths[n]! && !redoable) best = n
  }
  return best
}
