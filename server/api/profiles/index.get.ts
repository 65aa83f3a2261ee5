import { defineEventHandler } from 'h3'
import { store } from '../../database/store'
import { seatAsked } from '../../http/seat-asked'

export default defineEventHandler(async (event) => {
  const { profiles, seats } = await store()
  return profiles.list(seatAsked(event, seats))
})
