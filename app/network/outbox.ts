import type { DBSchema } from 'idb'
import type { Edit } from '#core/document/edits'
import { browserDatabase } from './browser-database'

interface Kept {
  drawing: string
  /** Kept edits of a drawing are sent by rising place. */
  place: number
  edit: Edit
}

interface OutboxSchema extends DBSchema {
  kept: { key: [string, string]; value: Kept; indexes: { drawing: string } }
  /** The list of version 1, in which an edit could stand twice. */
  edits: { key: number; value: { drawing: string; edit: Edit } }
}

const database = browserDatabase<OutboxSchema>('bellatrait', 2, async (db, from, _to, tx) => {
  const kept = db.createObjectStore('kept', { keyPath: ['drawing', 'edit.id'] })
  kept.createIndex('drawing', 'drawing')
  if (from !== 1) return
  for (const { drawing, edit } of await tx.objectStore('edits').getAll()) {
    if (!(await kept.get([drawing, edit.id]))) await kept.put({ drawing, place: nextPlace(), edit })
  }
  db.deleteObjectStore('edits')
})

let last = 0
const nextPlace = (): number => (last = Math.max(last + 1, Date.now() * 1000))

/** Edits that the server has not acknowledged yet, kept in this browser, oldest first, none twice. */
export async function pendingEdits(drawing: string): Promise<Edit[]> {
  const rows = await (await database()).getAllFromIndex('kept', 'drawing', drawing)
  return rows.sort((a, b) => a.place - b.place).map((r) => r.edit)
}

/** Keeps edits after those that are kept already, in place of earlier forms of the same, and forgets others by their ids, all or nothing. */
export async function keepEdits(drawing: string, edits: readonly Edit[], gone: Iterable<string> = []): Promise<void> {
  const tx = (await database()).transaction('kept', 'readwrite')
  for (const id of gone) void tx.store.delete([drawing, id])
  for (const edit of edits) void tx.store.put({ drawing, place: nextPlace(), edit })
  await tx.done
}

/** Forgets edits of a drawing by their ids. */
export const forgetEdits = (drawing: string, ids: Iterable<string>): Promise<void> => keepEdits(drawing, [], ids)
