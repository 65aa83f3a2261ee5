import { defineEventHandler, getRouterParam, setResponseStatus } from 'h3'
import { newId } from '../../../../core/new-id'
import type { CopyBody } from '../../../../shared/api'
import { copySchema, LIMITS } from '../../../../shared/api'
import { renamed } from '../../../backup/restore'
import { store } from '../../../database/store'
import { asAnother } from '../../../database/whole-drawing'
import { readJson } from '../../../http/body'
import { noDrawing, refuse } from '../../../http/refuse'

/** A copy of a drawing on the same shelf: with all its history, or as it is, or as it was at a revision. */
export default defineEventHandler(async (event) => {
  const from = getRouterParam(event, 'id')!
  const { name, history, revision, seat = null } = await readJson<CopyBody>(event, copySchema, LIMITS.document)
  const { journal, whole, connection, shelves, seats } = await store()
  const row = journal.drawings.find(from)
  if (!row) throw noDrawing()
  const id = newId()
  const source = whole.read(from)!
  // All of it or nothing: where the database is held in between, the request is done again.
  connection
    .transaction(() => {
      const shelf = source.shelf === null ? null : shelves.of(source.shelf).id
      if (history) {
        whole.write(
          { ...asAnother(source, id, source.name), template: false, task: null },
          shelf,
          seats.find(seat ?? '')?.id ?? null,
        )
        renamed({ journal }, id, name.trim())
        return
      }
      const drawing = journal.at(from, revision ?? row.revision)
      if (!drawing) throw refuse(404, 'The history does not reach back to this step any more.')
      journal.create({ ...drawing, id, name: name.trim() }, { seat })
      journal.drawings.shelve(id, shelf)
    })
    .immediate()
  setResponseStatus(event, 201)
  return { id }
})
