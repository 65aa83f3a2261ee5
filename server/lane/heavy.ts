import type { H3Event } from 'h3'
import { getRequestHeader, getRequestPath } from 'h3'
import type { Store } from '../database/store'

/** Bodies and drawings above this size are work for the lane, bytes: they take no longer than a few hundredths of a second here. */
const LIGHT_BODY = 256 * 1024
const LIGHT_DRAWING = 1024 * 1024

/** What goes through whole histories, or makes files. */
const ALWAYS =
  /^\/api\/(backup|deliveries|desk|tasks)\b|^\/api\/seats\/[^/]+\/studio$|^\/api\/drawings\/[^/]+\/(copy|size|let-go)$/

const OF_DRAWING = /^\/api\/drawings\/([^/]+)/

/** Whether a request may take so long that others would have to wait for it. */
export async function isHeavy(event: H3Event, store: () => Promise<Store>): Promise<boolean> {
  const [path = ''] = getRequestPath(event).split('?')
  if (!path.startsWith('/api/')) return false
  if (ALWAYS.test(path)) return true
  if (event.method !== 'GET' && event.method !== 'HEAD') {
    const length = Number(getRequestHeader(event, 'content-length'))
    // Without a length nobody knows.
    if (!(length <= LIGHT_BODY) && (length > 0 || getRequestHeader(event, 'transfer-encoding'))) return true
  }
  const id = OF_DRAWING.exec(path)?.[1]
  return id !== undefined && (await store()).journal.weight(id) > LIGHT_DRAWING
}
