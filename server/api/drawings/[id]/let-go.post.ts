import { defineEventHandler, getRouterParam } from 'h3'
import { letGoSchema, LIMITS } from '../../../../shared/api'
import { store } from '../../../database/store'
import { readJson } from '../../../http/body'
import { noDrawing } from '../../../http/refuse'

/** Lets old steps of the history go; answers how many went. */
export default defineEventHandler(async (event) => {
  const { before } = await readJson<{ before: string }>(event, letGoSchema, LIMITS.document)
  const gone = (await store()).journal.letGoBefore(getRouterParam(event, 'id')!, before)
  if (gone === null) throw noDrawing()
  return { gone }
})
