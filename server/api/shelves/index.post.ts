import { defineEventHandler, setResponseStatus } from 'h3'
import { LIMITS, shelfNameSchema } from '../../../shared/api'
import { NameTaken } from '../../database/shelves'
import { store } from '../../database/store'
import { readJson } from '../../http/body'
import { refuse } from '../../http/refuse'

export default defineEventHandler(async (event) => {
  const { name } = await readJson<{ name: string }>(event, shelfNameSchema, LIMITS.document)
  const { shelves } = await store()
  try {
    const made = shelves.add(name.trim())
    setResponseStatus(event, 201)
    return made
  } catch (e) {
    if (e instanceof NameTaken) throw refuse(409, e.message)
    throw e
  }
})
