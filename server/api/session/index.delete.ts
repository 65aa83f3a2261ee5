import { defineEventHandler, deleteCookie } from 'h3'
import { COOKIE } from '../../access/session'

/** Leaves: this browser has to name the passphrase again. */
export default defineEventHandler((event) => {
  deleteCookie(event, COOKIE, { path: '/' })
  return { done: true }
})
