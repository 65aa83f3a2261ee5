import type { H3Event } from 'h3'
import { getCookie } from 'h3'
import { store } from '../database/store'
import { refuse } from '../http/refuse'
import { isOpen } from './lock'
import { COOKIE, isSession } from './session'

/** What is there without a session: the page that asks for the passphrase, its code, and the route that takes it. */
const OPEN = /^\/(?:enter\/?$|mark\.svg$|icon-\d+\.png$|sw\.js$|manifest\.webmanifest$|_nuxt\/|api\/session$)/

/** Whether whoever asks named the passphrase, where one is needed. */
export async function hasSession(event: H3Event): Promise<boolean> {
  // An open Desk shows its pages also where its database cannot be used: they say so.
  if (isOpen()) return true
  // It is known once the store is there.
  const { access } = await store()
  if (isOpen()) return true
  const known = access.read()
  return !!known && isSession(getCookie(event, COOKIE), known, Date.now())
}

/**
 * Whether a request may go on; a page that may not is to be asked for the passphrase.
 *
 * @throws 401 where a route is asked
 */
export async function isWithin(event: H3Event): Promise<boolean> {
  const [path = ''] = event.path.split('?')
  if (OPEN.test(path) || (await hasSession(event))) return true
  if (path.startsWith('/api')) throw refuse(401, 'This Desk is locked. Enter its passphrase to go on.')
  return false
}
