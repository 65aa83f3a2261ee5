import type { Edit } from './edits'

/** Steps that can be taken back and brought again, the nearest last in both. */
export interface History {
  undo: Edit[]
  redo: Edit[]
}

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

/** The history that a journal leaves behind. */
export function replay(journal: readonly Edit[]): History {
  const undo: Edit[] = []
  let redo: Edit[] = []
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
