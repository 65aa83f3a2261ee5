import type { Drawing } from '#core/model/model'
import { passReached } from '#core/model/pass-reached'
import type { DrawingCard } from '../../shared/desk'
import type { Connection } from './sqlite'

export interface DrawingRow {
  id: string
  name: string
  revision: number
  /** The revision from which its journal leads on. */
  firstRevision: number
  updatedAt: string
}

const CARD = `d.id, d.name, d.revision, d.line_count AS lineCount, d.updated_at AS updatedAt, d.pass, d.shelf_id AS shelf,
  d.is_template AS template, d.seat_id AS seat, d.task_id AS task, d.deleted_at AS deletedAt, p.findings FROM drawings d LEFT JOIN proofs p ON p.drawing_id = d.id AND p.revision = d.revision`

/** Whose a drawing is, and the task that it is a copy for, by their ids. */
export interface Belonging {
  seat?: string | null
  task?: string | null
}

/** The table `drawings`: what the Desk lists. */
export class DrawingTable {
  constructor(private readonly db: Connection) {}

  /** The drawings on the Desk, or those in the bin, the newest first. One that was begun and left blank is not worth putting back. */
  list(which: 'on the Desk' | 'in the bin' = 'on the Desk'): DrawingCard[] {
    const rows = this.db
      .prepare(
        `SELECT ${CARD} WHERE (d.deleted_at IS NOT NULL) = ? AND NOT (d.deleted_at IS NOT NULL AND d.revision = 0 AND d.line_count = 0) ORDER BY coalesce(d.deleted_at, d.updated_at) DESC, d.name`,
      )
      .all(which === 'in the bin' ? 1 : 0) as (Omit<DrawingCard, 'template'> & { template: number })[]
    return rows.map((r) => ({ ...r, template: r.template === 1 }))
  }

  find(id: string): DrawingRow | undefined {
    return this.db
      .prepare(
        'SELECT id, name, revision, first_revision AS firstRevision, updated_at AS updatedAt FROM drawings WHERE id = ? AND deleted_at IS NULL',
      )
      .get(id) as DrawingRow | undefined
  }

  names(): string[] {
    return this.db.prepare('SELECT name FROM drawings WHERE deleted_at IS NULL').pluck().all() as string[]
  }

  /** @param of whose it is, and the task that it is for; nobody's, and none, where that is not said */
  insert(drawing: Drawing, at: string, { seat = null, task = null }: Belonging = {}): void {
    this.db
      .prepare(
        'INSERT INTO drawings (id, name, line_count, pass, created_at, updated_at, seat_id, task_id) VALUES (?, ?, ?, ?, ?, ?, (SELECT id FROM seats WHERE id = ?), ?)',
      )
      .run(drawing.id, drawing.name, countLines(drawing), passReached(drawing), at, at, seat, task)
  }

  advance(drawing: Drawing, revision: number, at: string): void {
    this.db
      .prepare('UPDATE drawings SET name = ?, line_count = ?, pass = ?, revision = ?, updated_at = ? WHERE id = ?')
      .run(drawing.name, countLines(drawing), passReached(drawing), revision, at, drawing.id)
  }

  /** The journal of a drawing leads on from this revision. */
  beginAt(id: string, revision: number): void {
    this.db.prepare('UPDATE drawings SET first_revision = ? WHERE id = ?').run(revision, id)
  }

  /** Puts a drawing into the bin, or takes it out of it. Answers whether there was such a drawing. */
  markDeleted(id: string, at: string | null): boolean {
    const there = at === null ? 'deleted_at IS NOT NULL' : 'deleted_at IS NULL'
    return this.db.prepare(`UPDATE drawings SET deleted_at = ? WHERE id = ? AND ${there}`).run(at, id).changes > 0
  }

  /** Lays a drawing on a shelf, or on none. Answers whether there was such a drawing. */
  shelve(id: string, shelf: string | null): boolean {
    return (
      this.db.prepare('UPDATE drawings SET shelf_id = ? WHERE id = ? AND deleted_at IS NULL').run(shelf, id).changes > 0
    )
  }

  /** Gives a drawing to a seat. Answers whether there was such a drawing. */
  handTo(id: string, seat: string): boolean {
    return (
      this.db.prepare('UPDATE drawings SET seat_id = ? WHERE id = ? AND deleted_at IS NULL').run(seat, id).changes > 0
    )
  }

  /** Makes a drawing one to start from, or not. Answers whether there was such a drawing. */
  markTemplate(id: string, template: boolean): boolean {
    return (
      this.db
        .prepare('UPDATE drawings SET is_template = ? WHERE id = ? AND deleted_at IS NULL')
        .run(template ? 1 : 0, id).changes > 0
    )
  }
}

const countLines = (drawing: Drawing): number =>
  drawing.layers.reduce((n, layer) => n + (layer.kind === 'lines' ? layer.items.length : 0), 0)
