import { defineEventHandler, getRouterParam } from 'h3'
import { belongingsChangeSchema } from '../../../../core/formats/studio/belongings'
import type { BelongingsChange } from '../../../../core/formats/studio/list-change'
import { store } from '../../../database/store'
import { readJson } from '../../../http/body'
import { noSeat } from '../../../http/refuse'

const LONGEST = 8 * 1024 * 1024

/** Changes what belongs to a seat: what is not named, or was added elsewhere meanwhile, stays. */
export default defineEventHandler(async (event) => {
  const id = getRouterParam(event, 'id')!
  const change = await readJson<BelongingsChange>(event, belongingsChangeSchema, LONGEST)
  const { seats, belongings } = await store()
  if (!seats.find(id)) throw noSeat()
  belongings.change(id, change)
  return { changed: true }
})
