import type { Connection, Migration } from './sqlite'

/** A database that this version cannot use; the message is a sentence that says what to do. */
export class OtherDatabase extends Error {}

/** How a database stands to this version: none yet, made by this one, by an earlier or a later one, or by something else. */
export type Version = 'empty' | 'same' | 'earlier' | 'later' | 'foreign'

/** What version made a database; it is only read. */
export function versionOf(db: Connection, migrations: readonly Migration[]): Version {
  const tables = db
    .prepare("SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite_%'")
    .pluck()
    .all() as string[]
  if (!tables.length) return 'empty'
  if (!tables.includes('migrations')) return 'foreign'
  const own = new Set(migrations.map((m) => m.name))
  const put = db.prepare('SELECT name FROM migrations').pluck().all() as string[]
  if (put.some((name) => !own.has(name))) return 'later'
  return put.length < own.size ? 'earlier' : 'same'
}

/**
 * Says whether a database can be brought up to this version and worked with.
 *
 * @throws OtherDatabase where a later version made it, or it is no Desk at all; nothing is written to it
 */
export function checkVersion(db: Connection, migrations: readonly Migration[], file: string): void {
  const version = versionOf(db, migrations)
  if (version === 'later')
    throw new OtherDatabase(
      `${file} was last used by a newer Bellatrait. Bring this one up to date, or name another file in BELLATRAIT_DB. Nothing was changed in it.`,
    )
  if (version === 'foreign')
    throw new OtherDatabase(
      `${file} is a database of something else, not a Desk. Name another file in BELLATRAIT_DB. Nothing was changed in it.`,
    )
}
