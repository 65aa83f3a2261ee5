import { defineEventHandler, getRequestHeader, getRequestURL, setResponseHeaders } from 'h3'
import { refuse } from '../http/refuse'

/** Safe headers on everything; writes only from our own pages. */
export default defineEventHandler((event) => {
  setResponseHeaders(event, {
    'x-content-type-options': 'nosniff',
    'referrer-policy': 'no-referrer',
    'cross-origin-opener-policy': 'same-origin',
    'cross-origin-resource-policy': 'same-origin',
  })
  if (event.method === 'GET' || event.method === 'HEAD') return
  const origin = getRequestHeader(event, 'origin')
  const host = getRequestHeader(event, 'host') ?? getRequestURL(event).host
  if (!origin || !URL.canParse(origin) || new URL(origin).host !== host) {
    throw refuse(403, 'This change did not come from a Bellatrait page, so it was not made. Open the page again and retry.')
  }
})
