import type { DBSchema, IDBPDatabase } from 'idb'
import { openDB } from 'idb'
import type { Edit } from '#core/drawing/edits'

interface OutboxSchema extends DBSchema {
  edits: { key: number; value: { drawing: string; edit: Edit }; indexes: { drawing: string } }
}

let opening: Promise<IDBPDatabase<OutboxSchema>> | null = null

const database = (): Promise<IDBPDatabase<OutboxSchema>> =>
  (opening ??= openDB<OutboxSchema>('bellatrait', 1, {
    upgrade(db) {
      db.createObjectStore('edits', { autoIncrement: true }).createIndex('drawing', 'drawing')
    },
  }))

/** Edits that the server has not acknowledged yet, kept in this browser, oldest first. */
export async function pendingEdits(drawing: string): Promise<Edit[]> {
  const rows = await (await database()).getAllFromIndex('edits', 'drawing', drawing)
  return rows.map((r) => r.edit)
}

export async function keepEdit(drawing: string, edit: Edit): Promise<void> {
  await (await database()).add('edits', { drawing, edit })
}

/** Forgets edits of a drawing by their ids. */
export async function forgetEdits(drawing: string, ids: ReadonlySet<string>): Promise<void> {
  const tx = (await database()).transaction('edits', 'readwrite')
  let cursor = await tx.store.index('drawing').openCursor(drawing)
  while (cursor) {
    if (ids.has(cursor.value.edit.id)) await cursor.delete()
    cursor = await cursor.continue()
  }
  await tx.done
}
