import { randomBytes } from 'node:crypto'
import type { Connection } from './sqlite'

/** How a Desk is entered. */
export interface Access {
  salt: Buffer
  /** scrypt of the passphrase. */
  hash: Buffer
  /** By which sessions are signed. */
  secret: Buffer
  /** Sessions of an earlier one are over. */
  generation: number
}

/** The table `access`: one row, or none where nobody ever named a passphrase. */
export class AccessTable {
  constructor(private readonly db: Connection) {}

  read(): Access | null {
    return (this.db.prepare('SELECT salt, hash, secret, generation FROM access').get() as Access | undefined) ?? null
  }

  /** Another passphrase: all sessions are over. */
  set(salt: Buffer, hash: Buffer): void {
    this.db
      .prepare(
        `INSERT INTO access (id, salt, hash, secret, generation) VALUES (1, ?, ?, ?, 1)
         ON CONFLICT (id) DO UPDATE SET salt = excluded.salt, hash = excluded.hash, secret = excluded.secret, generation = generation + 1`,
      )
      .run(salt, hash, randomBytes(32))
  }

  /** Ends all sessions that there are. */
  endSessions(): void {
    this.db.prepare('UPDATE access SET generation = generation + 1').run()
  }
}
