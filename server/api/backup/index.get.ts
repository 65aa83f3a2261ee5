import { Readable } from 'node:stream'
import { defineEventHandler, getQuery, sendStream, setResponseHeaders } from 'h3'
import { LIMITS } from '../../../shared/api'
import { backupOf } from '../../backup/write-backup'
import { store } from '../../database/store'
import { refuse } from '../../http/refuse'

/** Patches and documents are packed to about this share. */
const PACKED = 0.3

/** A backup of the whole Desk, with what lies in the bin; with `?id=` (several) of those drawings. `?check=1` only tells whether it can be made. */
export default defineEventHandler(async (event) => {
  const opened = await store()
  const { id, check } = getQuery(event)
  const asked = (Array.isArray(id) ? id : id ? [id] : []).map(String)
  const ids = asked.length ? asked : opened.whole.ids(true)
  const { history, apart } = opened.whole.size(...ids)
  // One that could not be brought in again is none.
  if (history * PACKED + apart > LIMITS.backup || history + apart > LIMITS.unpackedBackup) {
    throw refuse(
      413,
      `These drawings take ${Math.round((history + apart) / 1024 ** 2)} MB with their history and sketches, more than one backup holds. Choose some of them and back them up in parts.`,
    )
  }
  if (check === '1') return { bytes: history + apart }
  const made = new Date().toISOString()
  setResponseHeaders(event, {
    'content-type': 'application/zip',
    'content-disposition': `attachment; filename="bellatrait-${made.slice(0, 10)}.zip"`,
    'cache-control': 'no-store',
  })
  return sendStream(event, Readable.from(backupOf(opened, ids, made)))
})
