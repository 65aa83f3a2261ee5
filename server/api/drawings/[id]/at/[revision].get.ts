import { defineEventHandler, getRouterParam } from 'h3'
import { store } from '../../../../database/store'
import { noDrawing, refuse } from '../../../../http/refuse'

/** The drawing as it was at a revision. */
export default defineEventHandler(async (event) => {
  const revision = Number(getRouterParam(event, 'revision'))
  if (!Number.isInteger(revision) || revision < 0) throw refuse(400, 'Name the revision as a whole number.')
  const { journal } = await store()
  const id = getRouterParam(event, 'id')!
  if (!journal.drawings.find(id)) throw noDrawing()
  const drawing = journal.at(id, revision)
  if (!drawing) throw refuse(404, 'The history of this drawing does not go that far.')
  return drawing
})
