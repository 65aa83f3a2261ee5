import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import type { Migration } from './sqlite'

/** The migrations in a folder of `.sql` files: for scripts and tests, which run from the source tree. */
export function readMigrations(folder: string): Migration[] {
  return readdirSync(folder)
    .filter((f) => f.endsWith('.sql'))
    .map((name) => ({ name, sql: readFileSync(join(folder, name), 'utf8') }))
}
