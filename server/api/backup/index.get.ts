import { Readable } from 'node:stream'
import { defineEventHandler, getQuery, sendStream, setResponseHeaders } from 'h3'
import { backupOf } from '../../backup/write-backup'
import { store } from '../../database/store'

/** A backup of the whole Desk, with what lies in the bin; with `?id=` (several) of those drawings. */
export default defineEventHandler(async (event) => {
  const opened = await store()
  const { id } = getQuery(event)
  const asked = (Array.isArray(id) ? id : id ? [id] : []).map(String)
  const made = new Date().toISOString()
  setResponseHeaders(event, { 'content-type': 'application/zip', 'content-disposition': `attachment; filename="bellatrait-${made.slice(0, 10)}.zip"`, 'cache-control': 'no-store' })
  return sendStream(event, Readable.from(backupOf(opened, asked.length ? asked : opened.whole.ids(true), made)))
})
