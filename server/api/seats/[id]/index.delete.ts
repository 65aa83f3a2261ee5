import { defineEventHandler, getRouterParam } from 'h3'
import { store } from '../../../database/store'
import { noSeat, refuse } from '../../../http/refuse'

/** Takes a seat away with all that belongs to it; its drawings stay on the Desk. */
export default defineEventHandler(async (event) => {
  const { seats } = await store()
  if (seats.list().length === 1) throw refuse(409, 'A Desk keeps one seat. Rename it, or add another one first.')
  if (!seats.remove(getRouterParam(event, 'id')!)) throw noSeat()
  return { deleted: true }
})
