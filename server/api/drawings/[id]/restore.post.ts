import { defineEventHandler, getRouterParam } from 'h3'
import { store } from '../../../database/store'
import { noDrawing } from '../../../http/refuse'

export default defineEventHandler(async (event) => {
  const { drawings } = (await store()).journal
  if (!drawings.markDeleted(getRouterParam(event, 'id')!, null)) throw noDrawing()
  return { restored: true }
})
