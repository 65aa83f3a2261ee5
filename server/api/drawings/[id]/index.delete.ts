import { defineEventHandler, getRouterParam } from 'h3'
import { store } from '../../../database/store'
import { noDrawing } from '../../../http/refuse'

/** Takes a drawing off the Desk. It is kept and can be restored. */
export default defineEventHandler(async (event) => {
  const { drawings } = (await store()).journal
  if (!drawings.markDeleted(getRouterParam(event, 'id')!, new Date().toISOString())) throw noDrawing()
  return { deleted: true }
})
