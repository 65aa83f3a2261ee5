import { defineEventHandler, getRouterParam } from 'h3'
import { store } from '../../../database/store'
import { noDrawing } from '../../../http/refuse'

export default defineEventHandler(async (event) => {
  const open = (await store()).journal.open(getRouterParam(event, 'id')!)
  if (!open) throw noDrawing()
  return open
})
