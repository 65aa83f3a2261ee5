import { randomBytes, scrypt, timingSafeEqual } from 'node:crypto'
import type { Access } from '../database/access'

/** Shorter ones are guessed, letters. */
export const SHORTEST_PASS = 8
export const LONGEST_PASS = 200

/** About a tenth of a second and 64 MB for each try (C. Percival, Stronger key derivation via sequential memory-hard functions, 2009). */
const COST = { N: 2 ** 16, r: 8, p: 1, maxmem: 128 * 2 ** 20 }
const BYTES = 32

/** What is kept of a passphrase. */
function hashOf(pass: string, salt: Buffer): Promise<Buffer> {
  return new Promise((resolve, reject) =>
    scrypt(pass.normalize('NFKC'), salt, BYTES, COST, (e, hash) => (e ? reject(e) : resolve(hash))),
  )
}

export async function hashed(pass: string): Promise<Pick<Access, 'salt' | 'hash'>> {
  const salt = randomBytes(16)
  return { salt, hash: await hashOf(pass, salt) }
}

export const isPass = async (pass: string, { salt, hash }: Access): Promise<boolean> =>
  timingSafeEqual(await hashOf(pass, salt), hash)
