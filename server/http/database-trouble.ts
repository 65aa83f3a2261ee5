import { databaseFile } from '../database/recalled'
import type { H3Error } from 'h3'
import { DatabaseGone } from '../database/connection'
import { OtherDatabase } from '../database/version'
import { refuse } from './refuse'

const KEPT = 'What you drew is kept in this browser and saved as soon as it can be.'

/** What stands in the way of the database, by the first words of its error codes. */
const TROUBLES: readonly [RegExp, number, string][] = [
  [/^SQLITE_FULL/, 507, `The disk of the server is full, so nothing was saved. Make room on it. ${KEPT}`],
  [
    /^SQLITE_(READONLY|PERM|CANTOPEN)/,
    503,
    `The server may not write to its database, so nothing was saved. Let it write there again. ${KEPT}`,
  ],
  [
    /^SQLITE_(BUSY|LOCKED)/,
    503,
    `Another program holds the server's database, so nothing was saved. Close it. ${KEPT}`,
  ],
  [/^SQLITE_IOERR/, 503, `The disk of the server cannot be read or written, so nothing was saved. ${KEPT}`],
  [
    /^SQLITE_(CORRUPT|NOTADB)/,
    503,
    `The server's database is damaged, so nothing was saved. Put back a copy and start the server again. ${KEPT}`,
  ],
]

/** What keeps a database from being opened, by the first words of its error codes. */
const UNOPENED: readonly [RegExp, string][] = [
  [/^SQLITE_(BUSY|LOCKED)/, 'is held by another program. Close that, and start again.'],
  [/^SQLITE_(CORRUPT|NOTADB)/, 'is damaged, or no database. Put back a copy, or name another file in BELLATRAIT_DB.'],
  [
    /^SQLITE_(READONLY|PERM|CANTOPEN)|^E(ACCES|PERM|ROFS|ISDIR|NOTDIR|EXIST)$/,
    'cannot be written to. Let the server write there, or name another file in BELLATRAIT_DB.',
  ],
  [/^SQLITE_FULL|^ENOSPC$/, 'cannot be written to: the disk is full. Make room on it.'],
]

/** Why the database could not be opened at start, as a sentence that says what to do. */
export function whyUnopened(e: unknown): string {
  if (e instanceof OtherDatabase) return e.message
  const file = databaseFile()
  const code = (e as { code?: unknown } | null)?.code
  const why = typeof code === 'string' && UNOPENED.find(([words]) => words.test(code))
  return why
    ? `${file} ${why[1]}`
    : `${file} cannot be opened (${(e as Error).message}). Name another file in BELLATRAIT_DB, or put back a copy.`
}

/** An error of the database as a sentence that says what to do; null for any other error. */
export function databaseTrouble(e: unknown): H3Error | null {
  if (e instanceof DatabaseGone)
    return refuse(
      503,
      `The server's database was deleted or replaced while it ran, so nothing was saved. Start the server again. ${KEPT}`,
    )
  const code = (e as { code?: unknown } | null)?.code
  const trouble = typeof code === 'string' && TROUBLES.find(([words]) => words.test(code))
  return trouble ? refuse(trouble[1], trouble[2]) : null
}
