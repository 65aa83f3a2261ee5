import { randomUUID } from 'node:crypto'
import type { Checkpoint } from '../../shared/api'
import type { Connection } from './connection'

/** The table `checkpoints`: named moments in the history of drawings. */
export class CheckpointTable {
  constructor(private readonly db: Connection) {}

  /** Those of a drawing, the newest first. */
  list(drawing: string): Checkpoint[] {
    return this.db.prepare('SELECT id, revision, name, made_at AS madeAt FROM checkpoints WHERE drawing_id = ? ORDER BY revision DESC, made_at DESC').all(drawing) as Checkpoint[]
  }

  add(drawing: string, revision: number, name: string): Checkpoint {
    const checkpoint: Checkpoint = { id: randomUUID(), revision, name, madeAt: new Date().toISOString() }
    this.db.prepare('INSERT INTO checkpoints (id, drawing_id, revision, name, made_at) VALUES (?, ?, ?, ?, ?)').run(checkpoint.id, drawing, revision, name, checkpoint.madeAt)
    return checkpoint
  }

  count(drawing: string): number {
    return (this.db.prepare('SELECT count(*) AS n FROM checkpoints WHERE drawing_id = ?').get(drawing) as { n: number }).n
  }

  /** Answers whether it was there. */
  remove(drawing: string, id: string): boolean {
    return this.db.prepare('DELETE FROM checkpoints WHERE drawing_id = ? AND id = ?').run(drawing, id).changes > 0
  }
}
