import type { BelongingLists, Choices, ListName } from './belongings'
import { idOf } from './belongings'

/** How a list changed: items that are new or otherwise, ids of those that went, and the order of those that are there. */
export interface ListChange<L extends ListName = ListName> {
  put: BelongingLists[L]
  gone: string[]
  order: string[]
}

/** A change of what belongs to a seat; fields and lists that are not named stay. */
export type BelongingsChange = { choices?: Choices } & { [L in ListName]?: ListChange<L> }

const isSame = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b)

/** What leads from one list to another; null where nothing does. */
export function listChange<L extends ListName>(
  list: L,
  before: BelongingLists[L],
  after: BelongingLists[L],
): ListChange<L> | null {
  type Item = BelongingLists[L][number]
  const id = idOf[list] as (item: Item) => string
  const was = new Map((before as Item[]).map((i) => [id(i), i]))
  const order = (after as Item[]).map(id)
  const put = (after as Item[]).filter((i) => !isSame(was.get(id(i)), i)) as BelongingLists[L]
  const still = new Set(order)
  const gone = [...was.keys()].filter((k) => !still.has(k))
  return put.length || gone.length || !isSame([...was.keys()], order) ? { put, gone, order } : null
}

/** A list after a change that may have been made from another state of it: what the change does not know of stays, at the end. */
export function withListChange<L extends ListName>(
  list: L,
  now: BelongingLists[L],
  { put, gone, order }: ListChange<L>,
): BelongingLists[L] {
  type Item = BelongingLists[L][number]
  const id = idOf[list] as (item: Item) => string
  const items = new Map((now as Item[]).map((i) => [id(i), i]))
  for (const k of gone) items.delete(k)
  for (const i of put as Item[]) items.set(id(i), i)
  const first = [...new Set(order)].filter((k) => items.has(k))
  const known = new Set(first)
  return [...first, ...[...items.keys()].filter((k) => !known.has(k))].map((k) => items.get(k)!) as BelongingLists[L]
}
