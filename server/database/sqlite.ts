import type Database from 'better-sqlite3'

export type Connection = Database.Database

/** A numbered step of the schema: `0001-name.sql` and its text. */
export interface Migration {
  name: string
  sql: string
}
