import type { ShelfProfile } from '../../core/weight/shelf'
import type { Connection } from './sqlite'

interface Row {
  id: string
  name: string
  course: string
}

/** The table `profiles`: each seat's shelf of own profiles. */
export class ProfileTable {
  constructor(private readonly db: Connection) {}

  list(seat: string): ShelfProfile[] {
    const rows = this.db
      .prepare('SELECT id, name, course FROM profiles WHERE seat_id = ? ORDER BY place')
      .all(seat) as Row[]
    return rows.map(({ id, name, course }) => ({
      id,
      name,
      ...(JSON.parse(course) as Pick<ShelfProfile, 'stops' | 'start' | 'end'>),
    }))
  }

  /** Puts a whole shelf in place of the one before, in one transaction. */
  replace(seat: string, profiles: readonly ShelfProfile[]): void {
    const insert = this.db.prepare('INSERT INTO profiles (seat_id, id, place, name, course) VALUES (?, ?, ?, ?, ?)')
    this.db.transaction(() => {
      this.db.prepare('DELETE FROM profiles WHERE seat_id = ?').run(seat)
      profiles.forEach(({ id, name, stops, start, end }, place) =>
        insert.run(seat, id, place, name, JSON.stringify({ stops, start, end })),
      )
    })()
  }
}
