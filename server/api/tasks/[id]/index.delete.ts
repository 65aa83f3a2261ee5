import { defineEventHandler, getRouterParam } from 'h3'
import { store } from '../../../database/store'
import { noTask } from '../../../http/refuse'

/** Takes a task down; the copies stay with their seats. */
export default defineEventHandler(async (event) => {
  if (!(await store()).tasks.remove(getRouterParam(event, 'id')!)) throw noTask()
  return { deleted: true }
})
