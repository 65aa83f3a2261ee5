import { defineEventHandler } from 'h3'
import type { ShelfProfile } from '../../../core/weight/shelf'
import { LIMITS, shelfSchema } from '../../../shared/api'
import { store } from '../../database/store'
import { readJson } from '../../http/body'

/** Puts a whole shelf of own profiles in place of the one before. */
export default defineEventHandler(async (event) => {
  const { profiles } = await readJson<{ profiles: ShelfProfile[] }>(event, shelfSchema, LIMITS.document)
  ;(await store()).profiles.replace(profiles)
  return { count: profiles.length }
})
