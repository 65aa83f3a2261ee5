import { defineEventHandler, getRouterParam } from 'h3'
import { store } from '../../../../../database/store'
import { refuse } from '../../../../../http/refuse'

/** Forgets a checkpoint; the history stays. */
export default defineEventHandler(async (event) => {
  const { checkpoints } = await store()
  if (!checkpoints.remove(getRouterParam(event, 'id')!, getRouterParam(event, 'checkpoint')!))
    throw refuse(404, 'This checkpoint is not there any more.')
  return {}
})
