import type { Task } from '../../shared/seats'
import { newId } from '../../core/new-id'
import type { Connection } from './sqlite'

interface Row extends Task {
  template: string | null
  guided: boolean
}

/** A task as its row has it; `template` is null where it is gone for good. */
export interface TaskRow {
  id: string
  name: string
  madeAt: string
  template: string | null
  guided: boolean
}

/** The table `tasks`: drawings that were handed out to seats, a copy each. */
export class TaskTable {
  constructor(private readonly db: Connection) {}

  /** The newest first. */
  list(): Task[] {
    return this.rows().map(({ id, name, madeAt, copies }) => ({ id, name, madeAt, copies }))
  }

  find(id: string): Row | undefined {
    return this.rows().find((t) => t.id === id)
  }

  /** All of them as they are kept, also those whose template lies in the bin. */
  whole(): TaskRow[] {
    const rows = this.db
      .prepare('SELECT id, name, made_at AS madeAt, template_id AS template, guided FROM tasks ORDER BY made_at, id')
      .all() as (Omit<TaskRow, 'guided'> & { guided: number })[]
    return rows.map((r) => ({ ...r, guided: r.guided === 1 }))
  }

  /** Writes a task whose template comes later; one that is here stays as it is. Answers whether it was written. */
  write({ id, name, madeAt, guided }: TaskRow): boolean {
    return (
      this.db
        .prepare('INSERT OR IGNORE INTO tasks (id, name, made_at, template_id, guided) VALUES (?, ?, ?, NULL, ?)')
        .run(id, name, madeAt, guided ? 1 : 0).changes > 0
    )
  }

  /** Says what later comers are handed; of a drawing that is not here nothing is said. */
  handsOut(id: string, template: string): void {
    this.db
      .prepare('UPDATE tasks SET template_id = (SELECT id FROM drawings WHERE id = ?) WHERE id = ?')
      .run(template, id)
  }

  add(name: string, template: string, guided: boolean): string {
    const id = newId()
    this.db
      .prepare('INSERT INTO tasks (id, name, made_at, template_id, guided) VALUES (?, ?, ?, ?, ?)')
      .run(id, name, new Date().toISOString(), template, guided ? 1 : 0)
    return id
  }

  /** Ids of the seats that have a copy. */
  seatsOf(id: string): Set<string> {
    return new Set(
      this.db
        .prepare(
          'SELECT DISTINCT seat_id FROM drawings WHERE task_id = ? AND seat_id IS NOT NULL AND deleted_at IS NULL',
        )
        .pluck()
        .all(id) as string[],
    )
  }

  /** Whether a drawing is a copy for a task through which the guide goes. */
  isGuided(drawing: string): boolean {
    return (
      this.db
        .prepare('SELECT t.guided FROM tasks t JOIN drawings d ON d.task_id = t.id WHERE d.id = ?')
        .pluck()
        .get(drawing) === 1
    )
  }

  /** Takes a task down; its copies stay. Answers whether it was there. */
  remove(id: string): boolean {
    return this.db.prepare('DELETE FROM tasks WHERE id = ?').run(id).changes > 0
  }

  private rows(): Row[] {
    const rows = this.db
      .prepare(
        `SELECT t.id, t.name, t.made_at AS madeAt, t.guided, d.id AS template,
         (SELECT count(*) FROM drawings c WHERE c.task_id = t.id AND c.deleted_at IS NULL) AS copies
         FROM tasks t LEFT JOIN drawings d ON d.id = t.template_id AND d.deleted_at IS NULL
         ORDER BY t.made_at DESC, t.id`,
      )
      .all() as (Omit<Row, 'guided'> & { guided: number })[]
    return rows.map((r) => ({ ...r, guided: r.guided === 1 }))
  }
}
