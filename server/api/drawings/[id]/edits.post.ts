import { defineEventHandler, getRouterParam, setResponseStatus } from 'h3'
import type { AppendBody, AppendAnswer, Conflict } from '../../../../shared/edits'
import { LIMITS } from '../../../../shared/api'
import { appendSchema } from '../../../../shared/edits'
import { OtherJournal, UnfitEdit } from '../../../database/journal'
import { store } from '../../../database/store'
import { readJson } from '../../../http/body'
import { noDrawing, refuse } from '../../../http/refuse'

export default defineEventHandler(async (event): Promise<AppendAnswer | Conflict> => {
  const body = await readJson<AppendBody>(event, appendSchema, LIMITS.document)
  const { journal } = await store()
  try {
    const result = journal.append(getRouterParam(event, 'id')!, body)
    if (!result) throw noDrawing()
    if ('revision' in result) return result
    setResponseStatus(event, 409)
    return result.conflict
  } catch (e) {
    if (e instanceof UnfitEdit) throw refuse(422, e.message)
    if (e instanceof OtherJournal)
      throw refuse(
        412,
        'The server has another copy of this drawing than the one you work on: its database was put back or replaced. What you see is still here in this window.',
      )
    throw e
  }
})
