import { defineEventHandler, setResponseStatus } from 'h3'
import { LIMITS, shelfNameSchema } from '../../../shared/api'
import { store } from '../../database/store'
import { readJson } from '../../http/body'
import { unlessTaken } from '../../http/unless-taken'

export default defineEventHandler(async (event) => {
  const { name } = await readJson<{ name: string }>(event, shelfNameSchema, LIMITS.document)
  const { shelves } = await store()
  const made = unlessTaken(() => shelves.add(name.trim()))
  setResponseStatus(event, 201)
  return made
})
