import { defineEventHandler, getRouterParam } from 'h3'
import { store } from '../../../../database/store'
import { noDrawing } from '../../../../http/refuse'

/** The checkpoints of a drawing, the newest first. */
export default defineEventHandler(async (event) => {
  const id = getRouterParam(event, 'id')!
  const { journal, checkpoints } = await store()
  if (!journal.drawings.find(id)) throw noDrawing()
  return checkpoints.list(id)
})
