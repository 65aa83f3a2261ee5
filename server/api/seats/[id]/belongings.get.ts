import { defineEventHandler, getRouterParam } from 'h3'
import { store } from '../../../database/store'
import { noSeat } from '../../../http/refuse'

/** All that belongs to a seat besides its shelf of profiles. */
export default defineEventHandler(async (event) => {
  const id = getRouterParam(event, 'id')!
  const { seats, belongings } = await store()
  if (!seats.find(id)) throw noSeat()
  return belongings.read(id)
})
