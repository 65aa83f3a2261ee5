import type { Edit } from '#core/document/edits'
import type { Patch } from '#core/document/patch'
import type { JournalEntry } from '../../shared/edits'
import type { Connection } from './sqlite'

interface EditRow {
  revision: number
  edit_id: string
  kind: Edit['kind']
  label: string
  patches: string
  inverse: string
  made_at: string
  pass: Edit['pass'] | null
}

/** The table `edits`: the append-only journal of every drawing. */
export class EditTable {
  constructor(private readonly db: Connection) {}

  append(drawing: string, revision: number, edit: Edit, at: string): void {
    this.db
      .prepare(
        `INSERT INTO edits (drawing_id, revision, edit_id, kind, label, patches, inverse, made_at, pass)
         VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)`,
      )
      .run(
        drawing,
        revision,
        edit.id,
        edit.kind,
        edit.label,
        JSON.stringify(edit.patches),
        JSON.stringify(edit.inverse),
        at,
        edit.pass ?? null,
      )
  }

  /** Edits after revision `after`, up to another where it is named, oldest first. */
  after(drawing: string, after: number, upTo = Number.MAX_SAFE_INTEGER): JournalEntry[] {
    const rows = this.db
      .prepare('SELECT * FROM edits WHERE drawing_id = ? AND revision > ? AND revision <= ? ORDER BY revision')
      .all(drawing, after, upTo)
    return (rows as EditRow[]).map(entryOf)
  }

  /** Kind and revision of every edit, oldest first: enough to fold the history, without its patches. */
  kinds(drawing: string): { revision: number; kind: Edit['kind'] }[] {
    return this.db.prepare('SELECT revision, kind FROM edits WHERE drawing_id = ? ORDER BY revision').all(drawing) as {
      revision: number
      kind: Edit['kind']
    }[]
  }

  /** The edits of the named revisions, in the order in which they are named. */
  at(drawing: string, revisions: readonly number[]): JournalEntry[] {
    const one = this.db.prepare('SELECT * FROM edits WHERE drawing_id = ? AND revision = ?')
    return revisions.map((r) => entryOf(one.get(drawing, r) as EditRow))
  }

  /** Bytes of the patches of all edits after a revision. */
  size(drawing: string, after: number): number {
    return this.db
      .prepare('SELECT coalesce(sum(octet_length(patches)), 0) FROM edits WHERE drawing_id = ? AND revision > ?')
      .pluck()
      .get(drawing, after) as number
  }

  /** The id of the edit that made a revision. */
  idAt(drawing: string, revision: number): string | undefined {
    return this.db
      .prepare('SELECT edit_id FROM edits WHERE drawing_id = ? AND revision = ?')
      .pluck()
      .get(drawing, revision) as string | undefined
  }

  /** Ids of those of some edits that the journal has. */
  known(drawing: string, edits: readonly Pick<Edit, 'id'>[]): string[] {
    const one = this.db.prepare('SELECT 1 FROM edits WHERE drawing_id = ? AND edit_id = ?')
    return edits.map((e) => e.id).filter((id) => one.get(drawing, id) !== undefined)
  }

  /** How many of the oldest edits were made before a moment. */
  countBefore(drawing: string, moment: string): number {
    return this.db
      .prepare(
        'SELECT count(*) FROM edits WHERE drawing_id = @drawing AND revision < coalesce((SELECT min(revision) FROM edits WHERE drawing_id = @drawing AND made_at >= @moment), 9e15)',
      )
      .pluck()
      .get({ drawing, moment }) as number
  }

  removeUpTo(drawing: string, revision: number): void {
    this.db.prepare('DELETE FROM edits WHERE drawing_id = ? AND revision <= ?').run(drawing, revision)
  }

  /** Ids of the newest `limit` edits. */
  recentIds(drawing: string, limit: number): string[] {
    return this.db
      .prepare('SELECT edit_id FROM edits WHERE drawing_id = ? ORDER BY revision DESC LIMIT ?')
      .pluck()
      .all(drawing, limit) as string[]
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
    ...(row.pass && { pass: row.pass }),
  },
})
