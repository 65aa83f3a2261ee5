import type { Edit, Patch } from '../../core/drawing/edits'
import type { JournalEntry } from '../../shared/api'
import type { Connection } from './connection'

interface EditRow {
  revision: number
  edit_id: string
  kind: Edit['kind']
  label: string
  patches: string
  inverse: string
  made_at: string
}

/** The table `edits`: the append-only journal of every drawing. */
export class EditTable {
  constructor(private readonly db: Connection) {}

  append(drawing: string, revision: number, edit: Edit, at: string): void {
    this.db
      .prepare(
        `INSERT INTO edits (drawing_id, revision, edit_id, kind, label, patches, inverse, made_at)
         VALUES (?, ?, ?, ?, ?, ?, ?, ?)`,
      )
      .run(drawing, revision, edit.id, edit.kind, edit.label, JSON.stringify(edit.patches), JSON.stringify(edit.inverse), at)
  }

  /** Edits after revision `after`, oldest first. */
  after(drawing: string, after: number): JournalEntry[] {
    const rows = this.db.prepare('SELECT * FROM edits WHERE drawing_id = ? AND revision > ? ORDER BY revision').all(drawing, after)
    return (rows as EditRow[]).map(entryOf)
  }

  /** The last `limit` edits before revision `before`, oldest first. */
  before(drawing: string, before: number, limit: number): JournalEntry[] {
    const rows = this.db
      .prepare('SELECT * FROM edits WHERE drawing_id = ? AND revision < ? ORDER BY revision DESC LIMIT ?')
      .all(drawing, before, limit)
    return (rows as EditRow[]).reverse().map(entryOf)
  }
}

const entryOf = (row: EditRow): JournalEntry => ({
  revision: row.revision,
  madeAt: row.made_at,
  edit: {
    id: row.edit_id,
    kind: row.kind,
    label: row.label,
    patches: JSON.parse(row.patches) as Patch[],
    inverse: JSON.parse(row.inverse) as Patch[],
  },
})
