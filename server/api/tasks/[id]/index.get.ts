import { defineEventHandler, getRouterParam } from 'h3'
import type { OpenTask } from '../../../../shared/seats'
import { store } from '../../../database/store'
import { noTask } from '../../../http/refuse'

/** A task with all its copies as they are now. */
export default defineEventHandler(async (event): Promise<OpenTask> => {
  const { tasks, journal } = await store()
  const task = tasks.find(getRouterParam(event, 'id')!)
  if (!task) throw noTask()
  const { id, name, madeAt, copies, template } = task
  const cards = journal.drawings.list().filter((c) => c.task === id)
  return { id, name, madeAt, copies, hasTemplate: template !== null, cards }
})
