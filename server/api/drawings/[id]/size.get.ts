import { defineEventHandler, getRouterParam } from 'h3'
import { store } from '../../../database/store'
import { noDrawing } from '../../../http/refuse'

/** What a drawing takes on the server's disk, bytes. */
export default defineEventHandler(async (event) => {
  const id = getRouterParam(event, 'id')!
  const { journal, whole } = await store()
  if (!journal.drawings.find(id)) throw noDrawing()
  const { history, apart } = whole.size(id)
  return { bytes: history + apart }
})
