import { defineEventHandler } from 'h3'
import type { SessionState } from '../../../shared/api'
import { isLocked } from '../../access/lock'
import { hasSession } from '../../access/within'

/** Whether this Desk asks for a passphrase, and whether whoever asks has named it. */
export default defineEventHandler(async (event): Promise<SessionState> => {
  const within = await hasSession(event)
  return { locked: isLocked(), within }
})
