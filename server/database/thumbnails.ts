import type { Connection } from './sqlite'

/** The table `thumbnails`: one small picture a drawing. */
export class ThumbnailTable {
  constructor(private readonly db: Connection) {}

  /** The picture as of exactly this revision. */
  find(drawing: string, revision: number): string | undefined {
    return this.db
      .prepare('SELECT svg FROM thumbnails WHERE drawing_id = ? AND revision = ?')
      .pluck()
      .get(drawing, revision) as string | undefined
  }

  /** The picture that was kept last, of whatever revision. */
  latest(drawing: string): string | undefined {
    return this.db.prepare('SELECT svg FROM thumbnails WHERE drawing_id = ?').pluck().get(drawing) as string | undefined
  }

  /** Keeps a picture in place of an older one. */
  keep(drawing: string, revision: number, svg: string): void {
    this.db
      .prepare(
        `INSERT INTO thumbnails (drawing_id, revision, svg) VALUES (?, ?, ?)
         ON CONFLICT (drawing_id) DO UPDATE SET revision = excluded.revision, svg = excluded.svg
         WHERE excluded.revision > thumbnails.revision`,
      )
      .run(drawing, revision, svg)
  }
}
