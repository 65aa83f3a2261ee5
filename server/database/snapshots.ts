import type { Drawing } from '../../core/drawing/model'
import type { Connection } from './connection'

/** The table `snapshots`: whole documents at some revisions. */
export class SnapshotTable {
  constructor(private readonly db: Connection) {}

  insert(drawing: Drawing, revision: number): void {
    this.db
      .prepare('INSERT OR REPLACE INTO snapshots (drawing_id, revision, document) VALUES (?, ?, ?)')
      .run(drawing.id, revision, JSON.stringify(drawing))
  }

  /** The newest snapshot, or the newest that is no later than a revision. */
  latest(drawing: string, upTo = Number.MAX_SAFE_INTEGER): { revision: number; drawing: Drawing } | null {
    const row = this.db
      .prepare('SELECT revision, document FROM snapshots WHERE drawing_id = ? AND revision <= ? ORDER BY revision DESC LIMIT 1')
      .get(drawing, upTo) as { revision: number; document: string } | undefined
    return row ? { revision: row.revision, drawing: JSON.parse(row.document) as Drawing } : null
  }
}
