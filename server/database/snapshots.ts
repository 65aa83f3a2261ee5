import type { Drawing } from '#core/model/model'
import type { Connection } from './sqlite'

/** The table `snapshots`: whole documents at some revisions. */
export class SnapshotTable {
  constructor(private readonly db: Connection) {}

  insert(drawing: Drawing, revision: number): void {
    this.db
      .prepare('INSERT OR REPLACE INTO snapshots (drawing_id, revision, document) VALUES (?, ?, ?)')
      .run(drawing.id, revision, JSON.stringify(drawing))
  }

  /**
   * Takes out snapshots that are close together for their age: of the newest `few` each stays, of older ones about as many for
   * each doubling of their age, and the first, so that any revision is found by replaying no more than its age. Those from
   * before revision `from` are all that is left of their moments: they stay.
   */
  thin(drawing: string, from = 0, few = 3): void {
    const all = this.db
      .prepare('SELECT revision FROM snapshots WHERE drawing_id = ? AND revision >= ? ORDER BY revision DESC')
      .pluck()
      .all(drawing, from) as number[]
    const drop = this.db.prepare('DELETE FROM snapshots WHERE drawing_id = ? AND revision = ?')
    let newer = all[few - 1] ?? 0
    for (let i = few; i < all.length - 1; i++) {
      // Without this one, replaying from the one before it would still take less than a third of its age.
      if (newer - all[i + 1]! <= (all[0]! - newer) / 3) drop.run(drawing, all[i])
      else newer = all[i]!
    }
  }

  removeBefore(drawing: string, revision: number): void {
    this.db.prepare('DELETE FROM snapshots WHERE drawing_id = ? AND revision < ?').run(drawing, revision)
  }

  /** Revision and size, bytes, of the newest snapshot. */
  newest(drawing: string): { revision: number; size: number } | undefined {
    return this.db
      .prepare(
        'SELECT revision, octet_length(document) AS size FROM snapshots WHERE drawing_id = ? ORDER BY revision DESC LIMIT 1',
      )
      .get(drawing) as { revision: number; size: number } | undefined
  }

  /** The newest snapshot, or the newest that is no later than a revision. */
  latest(drawing: string, upTo = Number.MAX_SAFE_INTEGER): { revision: number; drawing: Drawing } | null {
    const row = this.db
      .prepare(
        'SELECT revision, document FROM snapshots WHERE drawing_id = ? AND revision <= ? ORDER BY revision DESC LIMIT 1',
      )
      .get(drawing, upTo) as { revision: number; document: string } | undefined
    return row ? { revision: row.revision, drawing: JSON.parse(row.document) as Drawing } : null
  }
}
