import { randomUUID } from 'node:crypto'
import type { Seat } from '../../shared/seats'
import { unlessTaken } from './name-taken'
import type { Connection } from './sqlite'

/** The table `seats`: who works at this Desk, in order. There is always one. */
export class SeatTable {
  constructor(private readonly db: Connection) {}

  list(): Seat[] {
    return this.db
      .prepare(
        `SELECT s.id, s.name, s.colour,
         (SELECT count(*) FROM drawings d WHERE d.seat_id = s.id AND d.deleted_at IS NULL) AS drawings
         FROM seats s ORDER BY s.place, s.name`,
      )
      .all() as Seat[]
  }

  /** The seat of an id. */
  find(id: string): Seat | undefined {
    return this.list().find((s) => s.id === id)
  }

  /** The seat that was there first. */
  first(): string {
    return this.db.prepare('SELECT id FROM seats ORDER BY place, name LIMIT 1').pluck().get() as string
  }

  /** @throws NameTaken */
  add(name: string, colour: string): Seat {
    const id = randomUUID()
    unlessTaken(takenBy(name), () =>
      this.db
        .prepare('INSERT INTO seats (id, name, colour, place) SELECT ?, ?, ?, coalesce(max(place), 0) + 1 FROM seats')
        .run(id, name, colour),
    )
    return { id, name, colour, drawings: 0 }
  }

  /**
   * Gives a seat another name or colour; answers whether it was there.
   *
   * @throws NameTaken
   */
  change(id: string, { name, colour }: { name?: string; colour?: string }): boolean {
    return (
      unlessTaken(takenBy(name ?? ''), () =>
        this.db
          .prepare('UPDATE seats SET name = coalesce(?, name), colour = coalesce(?, colour) WHERE id = ?')
          .run(name ?? null, colour ?? null, id),
      ).changes > 0
    )
  }

  /** Takes a seat away with all that belongs to it; its drawings stay, and are nobody's. Answers whether it was there. */
  remove(id: string): boolean {
    return this.db.prepare('DELETE FROM seats WHERE id = ?').run(id).changes > 0
  }
}

const takenBy = (name: string): string => `There is a seat "${name}" already.`
