import { defineEventHandler, getRouterParam } from 'h3'
import { LIMITS } from '../../../shared/api'
import { shelfNameSchema } from '../../../shared/desk'
import { store } from '../../database/store'
import { readJson } from '../../http/body'
import { noShelf } from '../../http/refuse'
import { refusedIfTaken } from '../../http/refused-if-taken'

export default defineEventHandler(async (event) => {
  const { name } = await readJson<{ name: string }>(event, shelfNameSchema, LIMITS.document)
  const { shelves } = await store()
  if (!refusedIfTaken(() => shelves.rename(getRouterParam(event, 'id')!, name.trim()))) throw noShelf()
  return { renamed: true }
})
