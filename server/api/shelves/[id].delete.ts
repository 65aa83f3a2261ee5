import { defineEventHandler, getRouterParam } from 'h3'
import { store } from '../../database/store'
import { noShelf } from '../../http/refuse'

/** Takes a shelf down; its drawings stay on the Desk. */
export default defineEventHandler(async (event) => {
  if (!(await store()).shelves.remove(getRouterParam(event, 'id')!)) throw noShelf()
  return { deleted: true }
})
