import type { DBSchema } from 'idb'
import { browserDatabase } from '~/network/browser-database'

/** What is kept of a drawing takes so much at most, and that of all, bytes. */
const MOST_OF_ONE = 128 * 2 ** 20
const MOST_OF_ALL = 384 * 2 ** 20

/** From so many pages on, they are written anew as one. */
const MOST_PAGES = 6

interface About {
  drawing: string
  bytes: number
  pages: number
  /** When it was last read or written, ms. */
  used: number
}

interface RecallSchema extends DBSchema {
  pages: { key: [drawing: string, page: number]; value: Uint8Array }
  drawings: { key: string; value: About }
}

const database = browserDatabase<RecallSchema>('bellatrait-recall', 1, (db) => {
  db.createObjectStore('pages')
  db.createObjectStore('drawings', { keyPath: 'drawing' })
})

const pagesOf = (drawing: string): IDBKeyRange => IDBKeyRange.bound([drawing, 0], [drawing, Infinity])

/** The pages that are kept of a drawing, oldest first. */
export async function readPages(drawing: string): Promise<Uint8Array[]> {
  const tx = (await database()).transaction(['pages', 'drawings'], 'readwrite')
  const about = await tx.objectStore('drawings').get(drawing)
  if (about) void tx.objectStore('drawings').put({ ...about, used: Date.now() })
  const pages = await tx.objectStore('pages').getAll(pagesOf(drawing))
  await tx.done
  return pages
}

/** Whether a page more should be one page in place of all. */
export async function isCrowded(drawing: string): Promise<boolean> {
  const about = await (await database()).get('drawings', drawing)
  return (about?.pages ?? 0) >= MOST_PAGES
}

/**
 * Keeps a page of a drawing after those that are kept, or in place of them. What was not used for longest is given back
 * where all of it takes too much.
 */
export async function keepPage(drawing: string, page: Uint8Array, inPlace: boolean): Promise<void> {
  const tx = (await database()).transaction(['pages', 'drawings'], 'readwrite')
  const [pages, drawings] = [tx.objectStore('pages'), tx.objectStore('drawings')]
  const before = inPlace ? undefined : await drawings.get(drawing)
  if (!before) void pages.delete(pagesOf(drawing))
  const bytes = (before?.bytes ?? 0) + page.length
  const number = before?.pages ?? 0
  if (bytes > MOST_OF_ONE) {
    void pages.delete(pagesOf(drawing))
    void drawings.delete(drawing)
  } else {
    void pages.put(page, [drawing, number])
    void drawings.put({ drawing, bytes, pages: number + 1, used: Date.now() })
  }
  const others = (await drawings.getAll()).filter((d) => d.drawing !== drawing).sort((a, b) => b.used - a.used)
  let all = bytes
  for (const other of others) {
    all += other.bytes
    if (all <= MOST_OF_ALL) continue
    void pages.delete(pagesOf(other.drawing))
    void drawings.delete(other.drawing)
  }
  await tx.done
}

/** Forgets what is kept of drawings. */
export async function forgetPages(drawings: readonly string[]): Promise<void> {
  const tx = (await database()).transaction(['pages', 'drawings'], 'readwrite')
  for (const drawing of drawings) {
    void tx.objectStore('pages').delete(pagesOf(drawing))
    void tx.objectStore('drawings').delete(drawing)
  }
  await tx.done
}
