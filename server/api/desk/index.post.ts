import { defineEventHandler } from 'h3'
import type { ActBody } from '../../../shared/desk'
import { LIMITS } from '../../../shared/api'
import { actSchema } from '../../../shared/desk'
import type { Store } from '../../database/store'
import { store } from '../../database/store'
import { readJson } from '../../http/body'
import { noSeat, noShelf, refuse } from '../../http/refuse'

/** Does one thing with several drawings, in one transaction; answers with how many it was done. */
export default defineEventHandler(async (event) => {
  const { ids, act, shelf = null, seat = '' } = await readJson<ActBody>(event, actSchema, LIMITS.document)
  const opened = await store()
  if (act === 'shelve' && shelf !== null && !opened.shelves.list().some((s) => s.id === shelf)) throw noShelf()
  if (act === 'hand over' && !opened.seats.find(seat)) throw noSeat()
  if (act === 'erase') return { done: erase(opened, ids) }
  const { drawings } = opened.journal
  const now = new Date().toISOString()
  const one: Record<Exclude<ActBody['act'], 'erase'>, (id: string) => boolean> = {
    shelve: (id) => drawings.shelve(id, shelf),
    'hand over': (id) => drawings.handTo(id, seat),
    bin: (id) => drawings.markDeleted(id, now),
    restore: (id) => drawings.markDeleted(id, null),
    template: (id) => drawings.markTemplate(id, true),
    'no template': (id) => drawings.markTemplate(id, false),
  }
  return { done: opened.connection.transaction(() => ids.filter(one[act]).length)() }
})

/** Only what lies in the bin is thrown away. */
function erase({ whole, connection, journal }: Store, ids: readonly string[]): number {
  const bin = new Set(journal.drawings.list('in the bin').map((d) => d.id))
  const gone = ids.filter((id) => bin.has(id))
  if (!gone.length) throw refuse(409, 'Only drawings in the bin are thrown away. Put this one into the bin first.')
  connection.transaction(() => whole.erase(gone)).immediate()
  return gone.length
}
