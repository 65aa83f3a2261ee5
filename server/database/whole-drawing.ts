import { randomUUID } from 'node:crypto'
import type { Drawing } from '#core/model/model'
import type { Checkpoint } from '../../shared/api'
import { CheckpointTable } from './checkpoints'
import type { Connection } from './sqlite'

/** An edit as its row has it: patches and inverse are JSON. */
export interface EditRow {
  revision: number
  id: string
  kind: string
  label: string
  patches: string
  inverse: string
  madeAt: string
  pass: string | null
}

/** A drawing with all that is kept of it: its history, its checkpoints, and where it lies. Pictures and pen traces are kept apart, by their hashes. */
export interface WholeDrawing {
  id: string
  name: string
  revision: number
  firstRevision: number
  lineCount: number
  pass: string
  template: boolean
  /** The name of its shelf. */
  shelf: string | null
  /** The name of the seat whose it is. */
  seat: string | null
  /** The id of the task that it is a copy for. */
  task: string | null
  createdAt: string
  updatedAt: string
  deletedAt: string | null
  /** Documents are JSON. */
  snapshots: { revision: number; document: string }[]
  edits: EditRow[]
  checkpoints: Checkpoint[]
}

const HASH = /"([0-9a-f]{64})"/g

/** Whole drawings in and out of the database. */
export class WholeDrawings {
  private readonly checkpoints: CheckpointTable

  /** @param changed is told of each drawing that is written or erased here, so that nobody goes on with what was */
  constructor(
    private readonly db: Connection,
    private readonly changed: (id: string) => void,
  ) {
    this.checkpoints = new CheckpointTable(db)
  }

  /** Ids of all drawings, with those in the bin where that is asked for. */
  ids(bin = false): string[] {
    return this.db
      .prepare(`SELECT id FROM drawings ${bin ? '' : 'WHERE deleted_at IS NULL'} ORDER BY created_at, id`)
      .pluck()
      .all() as string[]
  }

  read(id: string): WholeDrawing | null {
    const row = this.db
      .prepare(
        `SELECT d.id, d.name, d.revision, d.first_revision AS firstRevision, d.line_count AS lineCount, d.pass, d.is_template AS template,
         s.name AS shelf, w.name AS seat, d.task_id AS task, d.created_at AS createdAt, d.updated_at AS updatedAt, d.deleted_at AS deletedAt
         FROM drawings d LEFT JOIN shelves s ON s.id = d.shelf_id LEFT JOIN seats w ON w.id = d.seat_id WHERE d.id = ?`,
      )
      .get(id) as
      (Omit<WholeDrawing, 'template' | 'snapshots' | 'edits' | 'checkpoints'> & { template: number }) | undefined
    if (!row) return null
    return {
      ...row,
      template: row.template === 1,
      snapshots: this.db
        .prepare('SELECT revision, document FROM snapshots WHERE drawing_id = ? ORDER BY revision')
        .all(id) as WholeDrawing['snapshots'],
      edits: this.db
        .prepare(
          'SELECT revision, edit_id AS id, kind, label, patches, inverse, made_at AS madeAt, pass FROM edits WHERE drawing_id = ? ORDER BY revision',
        )
        .all(id) as EditRow[],
      checkpoints: this.checkpoints.list(id),
    }
  }

  /** Ids of the edits of a drawing that is here, oldest first, also of one in the bin; null where there is none. */
  editIds(id: string): string[] | null {
    if (!this.db.prepare('SELECT 1 FROM drawings WHERE id = ?').get(id)) return null
    return this.db
      .prepare('SELECT edit_id FROM edits WHERE drawing_id = ? ORDER BY revision')
      .pluck()
      .all(id) as string[]
  }

  /** Writes a drawing that is not here yet; `shelf` is the id of the shelf on which it comes to lie, `seat` of whose it is. Its task is here. */
  write(whole: WholeDrawing, shelf: string | null, seat: string | null): void {
    const { id } = whole
    this.db
      .prepare(
        'INSERT INTO drawings (id, name, revision, first_revision, line_count, pass, is_template, shelf_id, seat_id, task_id, created_at, updated_at, deleted_at) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)',
      )
      .run(
        id,
        whole.name,
        whole.revision,
        whole.firstRevision,
        whole.lineCount,
        whole.pass,
        whole.template ? 1 : 0,
        shelf,
        seat,
        whole.task,
        whole.createdAt,
        whole.updatedAt,
        whole.deletedAt,
      )
    const snapshot = this.db.prepare('INSERT INTO snapshots (drawing_id, revision, document) VALUES (?, ?, ?)')
    for (const s of whole.snapshots) snapshot.run(id, s.revision, s.document)
    const edit = this.db.prepare(
      'INSERT INTO edits (drawing_id, revision, edit_id, kind, label, patches, inverse, made_at, pass) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)',
    )
    for (const e of whole.edits) edit.run(id, e.revision, e.id, e.kind, e.label, e.patches, e.inverse, e.madeAt, e.pass)
    for (const c of whole.checkpoints) this.checkpoints.put(id, c)
    this.changed(id)
  }

  /** Bytes that drawings take: their history, and the pictures and pen traces that they show or showed, each once. */
  size(...ids: string[]): { history: number; apart: number } {
    const apart = this.db
      .prepare(
        'SELECT coalesce((SELECT octet_length(bytes) FROM images WHERE sha256 = @h), 0) + coalesce((SELECT octet_length(samples) FROM traces WHERE sha256 = @h), 0)',
      )
      .pluck()
    const hashes = new Set(ids.flatMap((id) => [...this.hashes(id)]))
    return {
      history: ids.reduce((sum, id) => sum + this.historySize(id), 0),
      apart: [...hashes].reduce((sum, h) => sum + (apart.get({ h }) as number), 0),
    }
  }

  private historySize(id: string): number {
    return this.db
      .prepare(
        `SELECT (SELECT coalesce(sum(octet_length(patches) + octet_length(inverse)), 0) FROM edits WHERE drawing_id = @id)
         + (SELECT coalesce(sum(octet_length(document)), 0) FROM snapshots WHERE drawing_id = @id)
         + (SELECT coalesce(sum(octet_length(svg)), 0) FROM thumbnails WHERE drawing_id = @id)
         + (SELECT coalesce(sum(octet_length(picture)), 0) FROM checkpoints WHERE drawing_id = @id)`,
      )
      .pluck()
      .get({ id }) as number
  }

  /** Hashes of pictures and pen traces that a drawing names anywhere in its history. */
  hashes(id: string): Set<string> {
    const found = new Set<string>()
    const texts = this.db
      .prepare(
        'SELECT document FROM snapshots WHERE drawing_id = @id UNION ALL SELECT patches FROM edits WHERE drawing_id = @id',
      )
      .pluck()
    for (const text of texts.iterate({ id })) for (const [, hash] of (text as string).matchAll(HASH)) found.add(hash!)
    return found
  }

  /** Takes drawings away for good, with the pictures and pen traces that no other drawing names. */
  erase(ids: readonly string[]): void {
    const apart = new Set<string>()
    for (const id of ids) {
      for (const hash of this.hashes(id)) apart.add(hash)
      for (const table of ['edits', 'snapshots', 'thumbnails'])
        this.db.prepare(`DELETE FROM ${table} WHERE drawing_id = ?`).run(id)
      this.db.prepare('DELETE FROM drawings WHERE id = ?').run(id)
      this.changed(id)
    }
    const named = this.db
      .prepare(
        'SELECT EXISTS (SELECT 1 FROM snapshots WHERE instr(document, @hash)) OR EXISTS (SELECT 1 FROM edits WHERE instr(patches, @hash))',
      )
      .pluck()
    for (const hash of apart) {
      if (named.get({ hash })) continue
      this.db.prepare('DELETE FROM images WHERE sha256 = ?').run(hash)
      this.db.prepare('DELETE FROM traces WHERE sha256 = ?').run(hash)
    }
  }

  /** Ids of drawings that were put into the bin before a moment. */
  inBinSince(before: string): string[] {
    return this.db.prepare('SELECT id FROM drawings WHERE deleted_at < ?').pluck().all(before) as string[]
  }
}

/** A drawing with its history as another drawing. */
export const asAnother = (whole: WholeDrawing, id: string, name: string): WholeDrawing => ({
  ...whole,
  id,
  name,
  snapshots: whole.snapshots.map(({ revision, document }) => ({
    revision,
    document: JSON.stringify({ ...(JSON.parse(document) as Drawing), id }),
  })),
  checkpoints: whole.checkpoints.map((c) => ({ ...c, id: randomUUID() })),
})
