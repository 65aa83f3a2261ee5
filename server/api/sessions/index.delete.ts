import { defineEventHandler, deleteCookie } from 'h3'
import { COOKIE } from '../../access/session'
import { store } from '../../database/store'

/** Ends all sessions, also of cookies that somebody took. */
export default defineEventHandler(async (event) => {
  const { access } = await store()
  access.endSessions()
  deleteCookie(event, COOKIE, { path: '/' })
  return { done: true }
})
