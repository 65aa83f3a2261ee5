import { defineEventHandler, getRouterParam } from 'h3'
import { LIMITS } from '../../../../shared/api'
import { copiesSchema } from '../../../../shared/seats'
import { store } from '../../../database/store'
import { readJson } from '../../../http/body'
import { noTask, refuse } from '../../../http/refuse'
import { handOut } from '../../../task/hand-out'

/** Hands the drawing of a task to whoever comes later; who has a copy keeps it. */
export default defineEventHandler(async (event) => {
  const { seats } = await readJson<{ seats: string[] }>(event, copiesSchema, LIMITS.document)
  const opened = await store()
  const task = opened.tasks.find(getRouterParam(event, 'id')!)
  if (!task) throw noTask()
  const { template } = task
  if (!template) throw refuse(409, 'What this task hands out is not there any more. Put it back from the bin.')
  return { copies: opened.connection.transaction(() => handOut(opened, task, template, seats)).immediate() }
})
