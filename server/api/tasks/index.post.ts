import { defineEventHandler, setResponseStatus } from 'h3'
import type { TaskBody } from '../../../shared/seats'
import { LIMITS } from '../../../shared/api'
import { taskSchema } from '../../../shared/seats'
import { store } from '../../database/store'
import { readJson } from '../../http/body'
import { cardPicture } from '../../render/card-picture'
import { handOut } from '../../task/hand-out'

/** Hands a drawing out to seats, a copy each. */
export default defineEventHandler(async (event) => {
  const { name, template, seats, guided } = await readJson<TaskBody>(event, taskSchema, LIMITS.document)
  const opened = await store()
  // Drawn once, for all copies.
  await cardPicture(template)
  const task = { id: '', name: name.trim(), copies: 0 }
  opened.connection
    .transaction(() => {
      task.id = opened.tasks.add(task.name, template, guided)
      task.copies = handOut(opened, task, template, seats)
    })
    .immediate()
  setResponseStatus(event, 201)
  return { id: task.id, copies: task.copies }
})
