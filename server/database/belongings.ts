import type { Belongings, BelongingLists, Choices, ListName } from '../../core/formats/studio/belongings'
import { idOf, LIST_NAMES, SHIPPED } from '../../core/formats/studio/belongings'
import type { BelongingsChange, ListChange } from '../../core/formats/studio/list-change'
import { withListChange } from '../../core/formats/studio/list-change'
import type { Connection } from './sqlite'

const TABLE: Readonly<Record<ListName, string>> = {
  nibs: 'nibs',
  palettes: 'palettes',
  deliveries: 'deliveries',
  keys: 'own_keys',
}

/** The tables `own_lists`, `nibs`, `palettes`, `deliveries`, `own_keys` and `choices`: what belongs to seats. */
export class BelongingTables {
  constructor(private readonly db: Connection) {}

  read(seat: string): Belongings {
    return {
      choices: this.choices(seat),
      own: this.own(seat),
      nibs: this.list('nibs', seat),
      palettes: this.list('palettes', seat),
      deliveries: this.list('deliveries', seat),
      keys: this.list('keys', seat),
    }
  }

  /** Puts a change on, all of it or nothing. */
  change(seat: string, change: BelongingsChange): void {
    this.db
      .transaction(() => {
        const put = this.db.prepare(
          'INSERT INTO choices (seat_id, thing, field, value) VALUES (?, ?, ?, ?) ON CONFLICT (seat_id, thing, field) DO UPDATE SET value = excluded.value',
        )
        for (const [thing, fields] of Object.entries(change.choices ?? {}))
          for (const [field, value] of Object.entries(fields))
            put.run(seat, thing, field, JSON.stringify(value ?? null))
        for (const list of LIST_NAMES) if (change[list]) this.changeList(list, seat, change[list] as ListChange)
      })
      .immediate()
  }

  private choices(seat: string): Choices {
    const rows = this.db
      .prepare('SELECT thing, field, value FROM choices WHERE seat_id = ? ORDER BY thing, field')
      .all(seat) as { thing: string; field: string; value: string }[]
    const all: Choices = {}
    for (const { thing, field, value } of rows) (all[thing] ??= {})[field] = JSON.parse(value) as unknown
    return all
  }

  private own(seat: string): ListName[] {
    return this.db.prepare('SELECT list FROM own_lists WHERE seat_id = ? ORDER BY list').pluck().all(seat) as ListName[]
  }

  private list<L extends ListName>(list: L, seat: string): BelongingLists[L] {
    if (!this.own(seat).includes(list)) return SHIPPED[list]
    return (
      this.db
        .prepare(`SELECT content FROM ${TABLE[list]} WHERE seat_id = ? ORDER BY place, id`)
        .pluck()
        .all(seat) as string[]
    ).map((content) => JSON.parse(content) as unknown) as BelongingLists[L]
  }

  private changeList<L extends ListName>(list: L, seat: string, change: ListChange<L>): void {
    const after = withListChange(list, this.list(list, seat), change)
    this.db.prepare('INSERT INTO own_lists (seat_id, list) VALUES (?, ?) ON CONFLICT DO NOTHING').run(seat, list)
    this.db.prepare(`DELETE FROM ${TABLE[list]} WHERE seat_id = ?`).run(seat)
    const insert = this.db.prepare(`INSERT INTO ${TABLE[list]} (seat_id, id, place, content) VALUES (?, ?, ?, ?)`)
    const id = idOf[list] as (item: BelongingLists[L][number]) => string
    for (const [place, item] of after.entries()) insert.run(seat, id(item), place, JSON.stringify(item))
  }
}
