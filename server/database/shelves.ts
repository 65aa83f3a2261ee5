import { randomUUID } from 'node:crypto'
import type { Shelf } from '../../shared/desk'
import { unlessTaken } from './name-taken'
import type { Connection } from './sqlite'

/** The table `shelves`: where drawings lie on the Desk, in order. */
export class ShelfTable {
  constructor(private readonly db: Connection) {}

  list(): Shelf[] {
    return this.db.prepare('SELECT id, name FROM shelves ORDER BY place, name').all() as Shelf[]
  }

  /** @throws NameTaken */
  add(name: string): Shelf {
    const shelf = { id: randomUUID(), name }
    unlessTaken(takenBy(name), () =>
      this.db
        .prepare('INSERT INTO shelves (id, name, place) SELECT ?, ?, coalesce(max(place), 0) + 1 FROM shelves')
        .run(shelf.id, name),
    )
    return shelf
  }

  /** The shelf of a name, made where there is none. */
  of(name: string): Shelf {
    return (
      (this.db.prepare('SELECT id, name FROM shelves WHERE name = ?').get(name) as Shelf | undefined) ?? this.add(name)
    )
  }

  /**
   * Answers whether it was there.
   *
   * @throws NameTaken
   */
  rename(id: string, name: string): boolean {
    return (
      unlessTaken(takenBy(name), () => this.db.prepare('UPDATE shelves SET name = ? WHERE id = ?').run(name, id))
        .changes > 0
    )
  }

  /** Takes a shelf down; what lay on it lies on none. Answers whether it was there. */
  remove(id: string): boolean {
    return this.db.prepare('DELETE FROM shelves WHERE id = ?').run(id).changes > 0
  }
}

const takenBy = (name: string): string => `There is a shelf "${name}" already.`
