import { defineEventHandler, getQuery, getRouterParam } from 'h3'
import { store } from '../../../database/store'
import { noDrawing, refuse } from '../../../http/refuse'

/** A page of steps to undo from before a revision, for undoing far back. */
export default defineEventHandler(async (event) => {
  const id = getRouterParam(event, 'id')!
  const before = Number(getQuery(event).before)
  if (!Number.isInteger(before) || before < 1)
    throw refuse(400, 'Name the revision before which to look, as a whole number.')
  const { journal } = await store()
  if (!journal.drawings.find(id)) throw noDrawing()
  return journal.older(id, before)
})
