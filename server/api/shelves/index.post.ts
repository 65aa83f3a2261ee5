import { defineEventHandler, setResponseStatus } from 'h3'
import { LIMITS } from '../../../shared/api'
import { shelfNameSchema } from '../../../shared/desk'
import { store } from '../../database/store'
import { readJson } from '../../http/body'
import { refusedIfTaken } from '../../http/refused-if-taken'

export default defineEventHandler(async (event) => {
  const { name } = await readJson<{ name: string }>(event, shelfNameSchema, LIMITS.document)
  const { shelves } = await store()
  const made = refusedIfTaken(() => shelves.add(name.trim()))
  setResponseStatus(event, 201)
  return made
})
