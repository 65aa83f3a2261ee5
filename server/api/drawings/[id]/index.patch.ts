import { defineEventHandler, getRouterParam } from 'h3'
import { makeEdit } from '#core/document/edits'
import { LIMITS, renameSchema } from '../../../../shared/api'
import { store } from '../../../database/store'
import { readJson } from '../../../http/body'
import { noDrawing } from '../../../http/refuse'

/** Renames a drawing: one more edit in its journal, so that it can be undone. */
export default defineEventHandler(async (event) => {
  const id = getRouterParam(event, 'id')!
  const { name } = await readJson<{ name: string }>(event, renameSchema, LIMITS.document)
  const { journal } = await store()
  const head = journal.head(id)
  if (!head) throw noDrawing()
  const made = makeEdit(head.drawing, `Rename to ${name}`, (draft) => {
    draft.name = name
  })
  return made ? journal.append(id, { base: head.revision, edits: [made.edit] }) : { revision: head.revision }
})
