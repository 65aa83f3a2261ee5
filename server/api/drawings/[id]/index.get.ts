import { defineEventHandler, getRouterParam } from 'h3'
import type { OpenDrawing } from '../../../../shared/edits'
import { store } from '../../../database/store'
import { noDrawing } from '../../../http/refuse'

export default defineEventHandler(async (event): Promise<OpenDrawing> => {
  const id = getRouterParam(event, 'id')!
  const { journal, tasks } = await store()
  const open = journal.open(id)
  if (!open) throw noDrawing()
  return tasks.isGuided(id) ? { ...open, guided: true } : open
})
