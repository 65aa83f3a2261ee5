import { randomUUID } from 'node:crypto'
import type { PassName } from '#core/model/pass-reached'
import type { Checkpoint } from '../../shared/api'
import type { Connection } from './sqlite'

/** The table `checkpoints`: named moments in the history of drawings. */
export class CheckpointTable {
  constructor(private readonly db: Connection) {}

  /** Those of a drawing, the newest first. */
  list(drawing: string): Checkpoint[] {
    return this.db
      .prepare(
        'SELECT id, revision, name, made_at AS madeAt, pass FROM checkpoints WHERE drawing_id = ? ORDER BY revision DESC, made_at DESC',
      )
      .all(drawing) as Checkpoint[]
  }

  add(drawing: string, revision: number, name: string, pass: PassName | null = null): Checkpoint {
    const checkpoint: Checkpoint = { id: randomUUID(), revision, name, madeAt: new Date().toISOString(), pass }
    this.put(drawing, checkpoint)
    return checkpoint
  }

  put(drawing: string, { id, revision, name, madeAt, pass }: Checkpoint): void {
    this.db
      .prepare('INSERT INTO checkpoints (id, drawing_id, revision, name, made_at, pass) VALUES (?, ?, ?, ?, ?, ?)')
      .run(id, drawing, revision, name, madeAt, pass)
  }

  /** The one that the first visit to a pass set. */
  ofPass(drawing: string, pass: PassName): Checkpoint | undefined {
    return this.list(drawing).find((c) => c.pass === pass)
  }

  count(drawing: string): number {
    return this.db.prepare('SELECT count(*) FROM checkpoints WHERE drawing_id = ?').pluck().get(drawing) as number
  }

  /** Answers whether it was there. */
  remove(drawing: string, id: string): boolean {
    return this.db.prepare('DELETE FROM checkpoints WHERE drawing_id = ? AND id = ?').run(drawing, id).changes > 0
  }

  find(drawing: string, id: string): Checkpoint | undefined {
    return this.list(drawing).find((c) => c.id === id)
  }

  /** The small picture of a checkpoint, where it was made already. */
  picture(id: string): string | null {
    return (
      (this.db.prepare('SELECT picture FROM checkpoints WHERE id = ?').pluck().get(id) as string | null | undefined) ??
      null
    )
  }

  /** The picture of any checkpoint of a drawing at a revision, where one was made. */
  pictureAt(drawing: string, revision: number): string | null {
    return (
      (this.db
        .prepare(
          'SELECT picture FROM checkpoints WHERE drawing_id = ? AND revision = ? AND picture IS NOT NULL LIMIT 1',
        )
        .pluck()
        .get(drawing, revision) as string | undefined) ?? null
    )
  }

  keepPicture(id: string, svg: string): void {
    this.db.prepare('UPDATE checkpoints SET picture = ? WHERE id = ?').run(svg, id)
  }
}
