import { defineEventHandler, setResponseStatus } from 'h3'
import { ValidationError } from 'yup'
import { newDrawing } from '#core/model/create'
import { newId } from '../../../core/new-id'
import type { Drawing } from '#core/model/model'
import { checkDrawing } from '#core/document/check-drawing'
import { createSchema, LIMITS } from '../../../shared/api'
import { store } from '../../database/store'
import { readJson } from '../../http/body'
import { refuse } from '../../http/refuse'

export default defineEventHandler(async (event) => {
  const body = await readJson<{ name?: string; drawing?: object | null; seat?: string | null }>(
    event,
    createSchema,
    LIMITS.document,
  )
  const { journal } = await store()
  const drawing = body.drawing ? checked({ ...body.drawing, id: newId() }) : newDrawing(body.name ?? 'Untitled drawing')
  journal.create(drawing, { seat: body.seat ?? null })
  setResponseStatus(event, 201)
  return { id: drawing.id }
})

function checked(value: object): Drawing {
  try {
    return checkDrawing(value)
  } catch (e) {
    if (e instanceof ValidationError) throw refuse(400, `This drawing cannot be used: ${e.message}.`)
    throw e
  }
}
