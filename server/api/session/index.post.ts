import { defineEventHandler, getRequestHeader, getRequestIP, setCookie, setResponseHeader } from 'h3'
import type { SessionState } from '../../../shared/api'
import { passSchema } from '../../../shared/api'
import { isLocked } from '../../access/lock'
import { isPass } from '../../access/passphrase'
import { COOKIE, LONGEST_SESSION, newSession } from '../../access/session'
import { Tries } from '../../access/tries'
import { store } from '../../database/store'
import { readJson } from '../../http/body'
import { refuse } from '../../http/refuse'

const tries = new Tries()
const LONGEST_BODY = 4096
/** Each try takes much memory: one after the other, and no more than so many wait. */
const MOST_WAITING = 8
let waiting = 0
let last: Promise<unknown> = Promise.resolve()

const tooMany = (seconds: number): Error =>
  refuse(429, `There were too many tries. Wait ${seconds === 1 ? 'a second' : `${seconds} seconds`} and try again.`)

/** Takes the passphrase, and begins a session. */
export default defineEventHandler(async (event): Promise<SessionState> => {
  const { pass } = await readJson<{ pass: string }>(event, passSchema, LONGEST_BODY)
  const { access } = await store()
  const known = access.read()
  if (!isLocked() || !known) return { locked: false, within: true }
  const address = getRequestIP(event) ?? ''
  if (waiting >= MOST_WAITING) throw tooMany(1)
  waiting++
  const mine = last.then(async () => {
    const wait = Math.ceil(tries.wait(address, Date.now()) / 1000)
    if (wait) {
      setResponseHeader(event, 'retry-after', wait)
      throw tooMany(wait)
    }
    if (await isPass(pass, known)) return
    tries.wrong(address, Date.now())
    throw refuse(403, 'This is not the passphrase. Try again.')
  })
  last = mine.catch(() => undefined)
  try {
    await mine
  } finally {
    waiting--
  }
  tries.right(address)
  setCookie(event, COOKIE, newSession(known, Date.now()), {
    httpOnly: true,
    sameSite: 'lax',
    path: '/',
    maxAge: LONGEST_SESSION,
    // Told by the proxy that puts TLS before it.
    secure: getRequestHeader(event, 'x-forwarded-proto') === 'https',
  })
  return { locked: true, within: true }
})
