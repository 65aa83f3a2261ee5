import { defineEventHandler, setResponseStatus } from 'h3'
import { LIMITS } from '../../../shared/api'
import { MOST_SEATS, newSeatSchema } from '../../../shared/seats'
import { store } from '../../database/store'
import { readJson } from '../../http/body'
import { refuse } from '../../http/refuse'
import { refusedIfTaken } from '../../http/refused-if-taken'

export default defineEventHandler(async (event) => {
  const { name, colour } = await readJson<{ name: string; colour: string }>(event, newSeatSchema, LIMITS.document)
  const { seats } = await store()
  if (seats.list().length >= MOST_SEATS)
    throw refuse(400, `A Desk has ${MOST_SEATS} seats at most. Take one away before you add another.`)
  const seat = refusedIfTaken(() => seats.add(name.trim(), colour))
  setResponseStatus(event, 201)
  return seat
})
