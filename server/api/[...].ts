import { defineEventHandler } from 'h3'
import { refuse } from '../http/refuse'

/** Whatever no other route answers, by any method. */
export default defineEventHandler((event) => {
  throw refuse(404, `There is nothing to ${event.method} at ${event.path.slice(0, 200)}.`)
})
