import { mkdirSync, statSync } from 'node:fs'
import { dirname } from 'node:path'
import Database from 'better-sqlite3'
import type { Connection, Migration } from './sqlite'
import { STEPS } from './migration-steps'
import { checkVersion, versionOf } from './version'

/**
 * Opens (and makes) the database file and brings its schema up to date, each migration in a transaction of its own.
 *
 * @throws OtherDatabase where a later version made it
 */
export function openDatabase(file: string, migrations: readonly Migration[]): Connection {
  if (file !== ':memory:') mkdirSync(dirname(file), { recursive: true })
  const db = new Database(file)
  try {
    checkVersion(db, migrations, file)
  } catch (e) {
    db.close()
    throw e
  }
  db.pragma('journal_mode = WAL')
  db.pragma('foreign_keys = ON')
  // An acknowledged edit must survive a power cut, not only a crash of the process.
  db.pragma('synchronous = FULL')
  db.pragma('busy_timeout = 5000')
  if (versionOf(db, migrations) !== 'same') migrate(db, migrations)
  return db
}

/** The database file is not the one that was opened: what is written to it would be lost. */
export class DatabaseGone extends Error {}

/** A check that a file is still the one that is there now; it throws `DatabaseGone` where that was deleted or replaced. */
export function watched(file: string): () => void {
  if (file === ':memory:') return () => undefined
  const { dev, ino } = statSync(file)
  return () => {
    const now = statSync(file, { throwIfNoEntry: false })
    if (now?.dev !== dev || now.ino !== ino) throw new DatabaseGone('the database file is gone')
  }
}

function migrate(db: Connection, migrations: readonly Migration[]): void {
  db.exec('CREATE TABLE IF NOT EXISTS migrations (name TEXT PRIMARY KEY, applied_at TEXT NOT NULL) STRICT')
  const known = db.prepare('SELECT 1 FROM migrations WHERE name = ?')
  const record = db.prepare('INSERT INTO migrations (name, applied_at) VALUES (?, ?)')
  for (const m of [...migrations].sort((a, b) => a.name.localeCompare(b.name))) {
    db.transaction(() => {
      if (known.get(m.name)) return
      db.exec(m.sql)
      STEPS[m.name]?.(db)
      record.run(m.name, new Date().toISOString())
    }).immediate()
  }
}
