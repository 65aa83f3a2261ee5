import { createReadStream } from 'node:fs'
import { defineEventHandler, getRouterParam, sendStream, setResponseHeaders } from 'h3'
import { jobOf } from '../../../delivery/jobs'
import { noDelivery } from '../../../http/refuse'

/** The archive of a delivery that is done. */
export default defineEventHandler((event) => {
  const job = jobOf(getRouterParam(event, 'id')!)
  if (job?.state.state !== 'ready') throw noDelivery()
  setResponseHeaders(event, {
    'content-type': 'application/zip',
    'content-length': job.state.size,
    'content-disposition': 'attachment; filename="drawings.zip"',
    'cache-control': 'no-store',
  })
  return sendStream(event, createReadStream(job.file))
})
