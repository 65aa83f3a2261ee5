import type { Drawing } from '../../core/drawing/model'
import type { DrawingCard } from '../../shared/api'
import type { Connection } from './connection'

export interface DrawingRow {
  id: string
  name: string
  revision: number
}

/** The table `drawings`: what the Desk lists. */
export class DrawingTable {
  constructor(private readonly db: Connection) {}

  /** The drawings on the Desk, or those that were taken off it, the newest first. One that was begun and left blank is not worth putting back. */
  list(which: 'on the Desk' | 'taken off' = 'on the Desk'): DrawingCard[] {
    return this.db
      .prepare(
        `SELECT id, name, revision, line_count AS lineCount, updated_at AS updatedAt
         FROM drawings WHERE (deleted_at IS NOT NULL) = ? AND NOT (deleted_at IS NOT NULL AND revision = 0 AND line_count = 0) ORDER BY coalesce(deleted_at, updated_at) DESC, name`,
      )
      .all(which === 'taken off' ? 1 : 0) as DrawingCard[]
  }

  find(id: string): DrawingRow | undefined {
    return this.db
      .prepare('SELECT id, name, revision FROM drawings WHERE id = ? AND deleted_at IS NULL')
      .get(id) as DrawingRow | undefined
  }

  insert(drawing: Drawing, at: string): void {
    this.db
      .prepare('INSERT INTO drawings (id, name, line_count, created_at, updated_at) VALUES (?, ?, ?, ?, ?)')
      .run(drawing.id, drawing.name, countLines(drawing), at, at)
  }

  advance(drawing: Drawing, revision: number, at: string): void {
    this.db
      .prepare('UPDATE drawings SET name = ?, line_count = ?, revision = ?, updated_at = ? WHERE id = ?')
      .run(drawing.name, countLines(drawing), revision, at, drawing.id)
  }

  /** Answers whether there was such a drawing. */
  markDeleted(id: string, at: string | null): boolean {
    const there = at === null ? 'deleted_at IS NOT NULL' : 'deleted_at IS NULL'
    return this.db.prepare(`UPDATE drawings SET deleted_at = ? WHERE id = ? AND ${there}`).run(at, id).changes > 0
  }
}

const countLines = (drawing: Drawing): number =>
  drawing.layers.reduce((n, layer) => n + (layer.kind === 'lines' ? layer.items.length : 0), 0)
