import { createHmac, randomBytes, timingSafeEqual } from 'node:crypto'
import type { Access } from '../database/access'

/** A session is over after so long, s. */
export const LONGEST_SESSION = 30 * 24 * 60 * 60

export const COOKIE = 'bellatrait-session'

const signed = (what: string, secret: Buffer): Buffer => createHmac('sha256', secret).update(what).digest()

/** A session that begins now, as its cookie holds it: generation, beginning, a name of its own, and what signs them. */
export function newSession({ secret, generation }: Access, now: number): string {
  const what = `${generation}.${Math.floor(now / 1000)}.${randomBytes(12).toString('base64url')}`
  return `${what}.${signed(what, secret).toString('base64url')}`
}

/** Whether a cookie holds a session that goes on. */
export function isSession(cookie: string | undefined, { secret, generation }: Access, now: number): boolean {
  const at = cookie?.lastIndexOf('.') ?? -1
  if (at < 0) return false
  const what = cookie!.slice(0, at)
  const [own, good] = [Buffer.from(cookie!.slice(at + 1), 'base64url'), signed(what, secret)]
  if (own.length !== good.length || !timingSafeEqual(own, good)) return false
  const [of, since] = what.split('.').map(Number)
  return of === generation && now / 1000 - since! < LONGEST_SESSION
}
