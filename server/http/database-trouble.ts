import type { H3Error } from 'h3'
import { DatabaseGone } from '../database/connection'
import { refuse } from './refuse'

const KEPT = 'What you drew is kept in this browser and saved as soon as it can be.'

/** What stands in the way of the database, by the first words of its error codes. */
const TROUBLES: readonly [RegExp, number, string][] = [
  [/^SQLITE_FULL/, 507, `The disk of the server is full, so nothing was saved. Make room on it. ${KEPT}`],
  [/^SQLITE_(READONLY|PERM|CANTOPEN)/, 503, `The server may not write to its database, so nothing was saved. Let it write there again. ${KEPT}`],
  [/^SQLITE_(BUSY|LOCKED)/, 503, `Another program holds the server's database, so nothing was saved. Close it. ${KEPT}`],
  [/^SQLITE_IOERR/, 503, `The disk of the server cannot be read or written, so nothing was saved. ${KEPT}`],
  [/^SQLITE_(CORRUPT|NOTADB)/, 503, `The server's database is damaged, so nothing was saved. Put back a copy and start the server again. ${KEPT}`],
]

/** An error of the database as a sentence that says what to do; null for any other error. */
export function databaseTrouble(e: unknown): H3Error | null {
  if (e instanceof DatabaseGone) return refuse(503, `The server's database was deleted or replaced while it ran, so nothing was saved. Start the server again. ${KEPT}`)
  const code = (e as { code?: unknown } | null)?.code
  const trouble = typeof code === 'string' && TROUBLES.find(([words]) => words.test(code))
  return trouble ? refuse(trouble[1], trouble[2]) : null
}
