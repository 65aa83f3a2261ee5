import { defineEventHandler, getRouterParam } from 'h3'
import { LIMITS } from '../../../../shared/api'
import { seatSchema } from '../../../../shared/seats'
import { store } from '../../../database/store'
import { readJson } from '../../../http/body'
import { noSeat } from '../../../http/refuse'
import { refusedIfTaken } from '../../../http/refused-if-taken'

export default defineEventHandler(async (event) => {
  const { name, colour } = await readJson<{ name?: string; colour?: string }>(event, seatSchema, LIMITS.document)
  const { seats } = await store()
  const change = { ...(name !== undefined && { name: name.trim() }), ...(colour !== undefined && { colour }) }
  if (!refusedIfTaken(() => seats.change(getRouterParam(event, 'id')!, change))) throw noSeat()
  return { changed: true }
})
