import { defineEventHandler, getRouterParam } from 'h3'
import type { PassName } from '#core/model/pass-reached'
import { checkpointSchema, LIMITS, MOST_CHECKPOINTS } from '../../../../../shared/api'
import { store } from '../../../../database/store'
import { readJson } from '../../../../http/body'
import { noDrawing, refuse } from '../../../../http/refuse'

/** Names the drawing as it is now. With a pass, before its first visit: there is one of each, and a second is the first. */
export default defineEventHandler(async (event) => {
  const id = getRouterParam(event, 'id')!
  const { name, pass } = await readJson<{ name: string; pass?: PassName }>(event, checkpointSchema, LIMITS.document)
  const { journal, checkpoints } = await store()
  const row = journal.drawings.find(id)
  if (!row) throw noDrawing()
  const first = pass && checkpoints.ofPass(id, pass)
  if (first) return first
  if (checkpoints.count(id) >= MOST_CHECKPOINTS)
    throw refuse(400, `A drawing keeps ${MOST_CHECKPOINTS} checkpoints. Remove one before you keep another.`)
  return checkpoints.add(id, row.revision, name, pass ?? null)
})
