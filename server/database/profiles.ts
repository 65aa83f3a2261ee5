import type { ShelfProfile } from '../../core/weight/shelf'
import type { Connection } from './sqlite'

interface Row {
  id: string
  name: string
  course: string
}

/** The table `profiles`: the shelf of own profiles. */
export class ProfileTable {
  constructor(private readonly db: Connection) {}

  list(): ShelfProfile[] {
    const rows = this.db.prepare('SELECT id, name, course FROM profiles ORDER BY place').all() as Row[]
    return rows.map(({ id, name, course }) => ({
      id,
      name,
      ...(JSON.parse(course) as Pick<ShelfProfile, 'stops' | 'start' | 'end'>),
    }))
  }

  /** Puts a whole shelf in place of the one before, in one transaction. */
  replace(profiles: readonly ShelfProfile[]): void {
    const insert = this.db.prepare('INSERT INTO profiles (id, place, name, course) VALUES (?, ?, ?, ?)')
    this.db.transaction(() => {
      this.db.prepare('DELETE FROM profiles').run()
      profiles.forEach(({ id, name, stops, start, end }, place) =>
        insert.run(id, place, name, JSON.stringify({ stops, start, end })),
      )
    })()
  }
}
