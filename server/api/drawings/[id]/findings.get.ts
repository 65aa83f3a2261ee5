import { defineEventHandler, getRouterParam } from 'h3'
import { store } from '../../../database/store'
import { noDrawing } from '../../../http/refuse'
import { derivingThread, keptIfCan } from '../../../render/derive'

/** How many findings Proof has of the drawing as it is now; null where finding out takes too long. */
export default defineEventHandler(async (event) => {
  const { journal, proofs } = await store()
  const head = journal.head(getRouterParam(event, 'id')!)
  if (!head) throw noDrawing()
  const { drawing, revision } = head
  const known = proofs.find(drawing.id, revision)
  if (known !== undefined) return { findings: known }
  const findings = await (await derivingThread()).make('findings', drawing, revision)
  if (findings !== null) keptIfCan(() => proofs.keep(drawing.id, revision, findings))
  return { findings }
})
