import type { DBSchema } from 'idb'
import type { Edit } from '#core/document/edits'
import { applyEdit } from '#core/document/edits'
import { advance } from '#core/document/history'
import type { OpenDrawing } from '#shared/edits'
import { PICTURES } from './caches'
import { browserDatabase } from './browser-database'

/** So many drawings, those opened last, can be opened without the server. */
const MOST = 12
/** And as far as all of them take no more than so many bytes. */
const ROOM = 128 * 2 ** 20
/** So many ids of edits tell which of them the server has. */
const RECENT = 500

interface Kept {
  id: string
  name: string
  /** When it was opened last, ms. */
  at: number
  /** What the server answered then. */
  opened: Blob
}

/** An edit of a drawing, as the server has it. */
interface KeptEdit {
  drawing: string
  revision: number
  edit: Edit
}

interface KeptSchema extends DBSchema {
  drawings: { key: string; value: Kept; indexes: { at: number } }
  /** Edits that the server is known to have, each once, by the revision that it made. */
  since: { key: [string, number]; value: KeptEdit }
}

/** The edits of a drawing, from a revision to another. */
const editsOf = (drawing: string, from = 0, to = Infinity): IDBKeyRange =>
  IDBKeyRange.bound([drawing, from], [drawing, to])

const database = browserDatabase<KeptSchema>('bellatrait-drawings', 1, (db) => {
  db.createObjectStore('drawings', { keyPath: 'id' }).createIndex('at', 'at')
  db.createObjectStore('since', { keyPath: ['drawing', 'revision'] })
})

/** Keeps a drawing as the server answered it; those opened longest ago go. */
export async function keepOpened(id: string, { drawing, revision }: OpenDrawing, opened: Blob): Promise<void> {
  const tx = (await database()).transaction(['drawings', 'since'], 'readwrite')
  const drawings = tx.objectStore('drawings')
  void drawings.put({ id, name: drawing.name, at: Date.now(), opened })
  let room = ROOM
  const gone = (await drawings.index('at').getAll())
    .reverse()
    .filter((d, i) => (room -= d.opened.size) < 0 || i >= MOST)
    .map((d) => d.id)
  for (const old of gone) void drawings.delete(old)
  // What another window heard of meanwhile goes on from there.
  void tx.objectStore('since').delete(editsOf(id, 0, revision))
  for (const old of gone) void tx.objectStore('since').delete(editsOf(old))
  await tx.done
}

/** Adds what the server has of a drawing now, too. */
export async function keepAcknowledged(drawing: string, edits: readonly Omit<KeptEdit, 'drawing'>[]): Promise<void> {
  const tx = (await database()).transaction(['drawings', 'since'], 'readwrite')
  if (await tx.objectStore('drawings').getKey(drawing))
    for (const { revision, edit } of edits) void tx.objectStore('since').put({ drawing, revision, edit })
  await tx.done
}

/** A drawing as the server last had it, as far as this browser knows; null where it was not open lately. */
export async function keptDrawing(id: string): Promise<OpenDrawing | null> {
  const db = await database()
  const kept = await db.get('drawings', id)
  if (!kept) return null
  const opened = JSON.parse(await kept.opened.text()) as OpenDrawing
  const since = await db.getAll('since', editsOf(id, opened.revision + 1))
  // Where one is not known, what came after it fits nothing here.
  const known = since.filter((s, i) => s.revision === opened.revision + 1 + i)
  return known.map((s) => s.edit).reduce(withEdit, opened)
}

/** A drawing as the server has it after one more edit. */
function withEdit(opened: OpenDrawing, edit: Edit): OpenDrawing {
  const revision = opened.revision + 1
  const entries = [...opened.undo, ...opened.redo, { revision, madeAt: new Date().toISOString(), edit }]
  const entryOf = new Map(entries.map((e) => [e.edit.id, e]))
  const { undo, redo } = advance({ undo: opened.undo.map((e) => e.edit), redo: opened.redo.map((e) => e.edit) }, edit)
  return {
    ...opened,
    drawing: applyEdit(opened.drawing, edit),
    revision,
    undo: undo.map((e) => entryOf.get(e.id)!),
    redo: redo.map((e) => entryOf.get(e.id)!),
    recent: [edit.id, ...opened.recent].slice(0, RECENT),
  }
}

/** The drawings that can be opened without the server, those opened last first. */
export async function keptDrawings(): Promise<{ id: string; name: string }[]> {
  const all = await (await database()).getAllFromIndex('drawings', 'at')
  return all.reverse().map(({ id, name }) => ({ id, name }))
}

/** Forgets a drawing that is gone. */
export async function forgetKept(id: string): Promise<void> {
  const tx = (await database()).transaction(['drawings', 'since'], 'readwrite')
  void tx.objectStore('drawings').delete(id)
  void tx.objectStore('since').delete(editsOf(id))
  await tx.done
}

/** Forgets all drawings, and the pictures in them: whoever comes next to this browser finds none. */
export async function forgetAllKept(): Promise<void> {
  const tx = (await database()).transaction(['drawings', 'since'], 'readwrite')
  void tx.objectStore('drawings').clear()
  void tx.objectStore('since').clear()
  await tx.done
  await globalThis.caches?.delete(PICTURES)
}
