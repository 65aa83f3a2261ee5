import { defineEventHandler, setResponseStatus } from 'h3'
import type { ManyBody, ManyState } from '../../../shared/desk'
import { LIMITS } from '../../../shared/api'
import { manySchema } from '../../../shared/desk'
import { startMany } from '../../delivery/jobs'
import { readJson } from '../../http/body'
import { refuse } from '../../http/refuse'

/** Begins to deliver several drawings as one archive. */
export default defineEventHandler(async (event): Promise<ManyState> => {
  const job = await startMany(await readJson<ManyBody>(event, manySchema, LIMITS.document))
  if (!job) throw refuse(429, 'Two deliveries are being made already. Wait until one is done, or stop it.')
  setResponseStatus(event, 202)
  return job.state
})
