import { isIP } from 'node:net'
import type { H3Event } from 'h3'
import { defineEventHandler, getRequestHeader, sendRedirect, setResponseHeaders } from 'h3'
import { defineNitroPlugin } from 'nitropack/runtime'
import { isWithin } from '../access/within'
import { store } from '../database/store'
import { databaseTrouble } from '../http/database-trouble'
import { withPatience } from '../http/patience'
import { refuse } from '../http/refuse'
import { isHeavy } from '../lane/heavy'
import { answeredBy, laneAtHand } from '../lane/lane'

const HEADERS = {
  'x-content-type-options': 'nosniff',
  'referrer-policy': 'no-referrer',
  'cross-origin-opener-policy': 'same-origin',
  'cross-origin-resource-policy': 'same-origin',
}

/**
 * Stands before everything that is served, files and errors too: safe headers on every answer, no request under a foreign
 * name, writes only from our own pages, what is heavy to a process of its own, and a sentence where the database cannot be
 * used.
 */
export default defineNitroPlugin((nitro) => {
  const { handler } = nitro.h3App
  nitro.h3App.handler = defineEventHandler(async (event) => {
    setResponseHeaders(event, HEADERS)
    checkHost(event)
    checkOrigin(event)
    checkPath(event)
    try {
      return await withPatience(async () => {
        if (!(await isWithin(event))) return sendRedirect(event, `/enter?to=${encodeURIComponent(event.path)}`)
        const lane = laneAtHand()
        return lane && (await isHeavy(event, store)) ? answeredBy(lane, event) : ((await handler(event)) as unknown)
      })
    } catch (e) {
      throw databaseTrouble(e) ?? e
    }
  })
})

const hostOf = (event: H3Event): string => getRequestHeader(event, 'host') ?? ''

/** Names under which this server is reached, besides localhost and plain addresses: HOST and those in BELLATRAIT_NAMES. */
const ownNames = (): string[] =>
  [process.env.HOST ?? '', ...(process.env.BELLATRAIT_NAMES ?? '').split(/[ ,]+/)]
    .map((n) => n.toLowerCase())
    .filter(Boolean)

/** A page elsewhere may point a name of its own at this machine, and would then be served as one of ours. */
function checkHost(event: H3Event): void {
  const url = `http://${hostOf(event)}`
  const name = URL.canParse(url) ? new URL(url).hostname.replace(/^\[|\]$/g, '') : ''
  if (name === 'localhost' || isIP(name) || ownNames().includes(name)) return
  throw refuse(
    421,
    'Bellatrait is not served under this name. Open it by its address, or name it in BELLATRAIT_NAMES where it is started.',
  )
}

/** Where there is something: pages, what is served as files, and routes, which answer for themselves. */
const SERVED =
  /^\/(?:$|enter\/?$|(?:drawings|tasks)\/[\w-]{1,80}\/?$|mark\.svg$|icon-\d+\.png$|sw\.js$|manifest\.webmanifest$|practice\/[\w-]+\.inkml$|_nuxt\/|api(?:\/|$))/

/** Any other path would be answered by the page of the Desk, as if it were there, whatever was to be done with it. */
function checkPath(event: H3Event): void {
  const [path = ''] = event.path.split('?')
  if (!SERVED.test(path)) throw refuse(404, 'There is nothing at this address.')
  if (!path.startsWith('/api') && event.method !== 'GET' && event.method !== 'HEAD')
    throw refuse(405, `Pages are only read: there is nothing to ${event.method} here.`)
}

function checkOrigin(event: H3Event): void {
  if (event.method === 'GET' || event.method === 'HEAD') return
  const origin = getRequestHeader(event, 'origin')
  if (origin && URL.canParse(origin) && new URL(origin).host === hostOf(event)) return
  throw refuse(
    403,
    'This change did not come from a Bellatrait page, so it was not made. Open the page again and retry.',
  )
}
