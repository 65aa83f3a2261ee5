import { defineEventHandler } from 'h3'
import { BadArchive } from '../../../core/formats/archive/zip'
import type { RestoreReport } from '../../../shared/desk'
import { LIMITS } from '../../../shared/api'
import { readBackup } from '../../backup/read-backup'
import { restore } from '../../backup/restore'
import { store } from '../../database/store'
import { readBytes } from '../../http/body'
import { refuse } from '../../http/refuse'

let busy: Promise<unknown> = Promise.resolve()

/** Brings a backup in: all of it is checked before anything is written. */
export default defineEventHandler(async (event): Promise<RestoreReport> => {
  const bytes = await readBytes(event, LIMITS.backup)
  // One after the other: each may take hundreds of megabytes.
  const mine = busy.then(async () => restore(await store(), await readBackup(bytes)))
  busy = mine.catch(() => undefined)
  try {
    return await mine
  } catch (e) {
    if (e instanceof BadArchive) throw refuse(422, e.message)
    throw e
  }
})
