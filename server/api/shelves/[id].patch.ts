import { defineEventHandler, getRouterParam } from 'h3'
import { LIMITS, shelfNameSchema } from '../../../shared/api'
import { NameTaken } from '../../database/shelves'
import { store } from '../../database/store'
import { readJson } from '../../http/body'
import { noShelf, refuse } from '../../http/refuse'

export default defineEventHandler(async (event) => {
  const { name } = await readJson<{ name: string }>(event, shelfNameSchema, LIMITS.document)
  const { shelves } = await store()
  try {
    if (!shelves.rename(getRouterParam(event, 'id')!, name.trim())) throw noShelf()
    return { renamed: true }
  } catch (e) {
    if (e instanceof NameTaken) throw refuse(409, e.message)
    throw e
  }
})
