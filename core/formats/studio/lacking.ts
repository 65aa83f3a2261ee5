import type { Belongings, Choices, ListName } from './belongings'
import { idOf, LIST_NAMES, MOST_ITEMS } from './belongings'
import type { BelongingsChange, ListChange } from './list-change'
import { listChange } from './list-change'

/** A change that gives `mine` what `theirs` has and it lacks; nothing that `mine` decided is written over. */
export function lacking(mine: Belongings, theirs: Belongings): BelongingsChange {
  const choices: Choices = {}
  for (const [thing, fields] of Object.entries(theirs.choices))
    for (const [field, value] of Object.entries(fields))
      if (!Object.hasOwn(mine.choices[thing] ?? {}, field)) (choices[thing] ??= {})[field] = value
  const change: BelongingsChange = { choices }
  for (const list of theirs.own) Object.assign(change, { [list]: lackingIn(list, mine, theirs) ?? undefined })
  return change
}

/** Of a list that is as it ships, all of theirs; to one of its own, what is not in it. */
function lackingIn<L extends ListName>(list: L, mine: Belongings, theirs: Belongings): ListChange<L> | null {
  if (!mine.own.includes(list)) return listChange(list, mine[list], theirs[list])
  type Item = Belongings[L][number]
  const id = idOf[list] as (item: Item) => string
  const here = mine[list] as Item[]
  const known = new Set(here.map(id))
  const more = (theirs[list] as Item[]).filter((i) => !known.has(id(i))).slice(0, MOST_ITEMS - here.length)
  return listChange(list, mine[list], [...here, ...more] as Belongings[L])
}

/** The parts of a change, each a change of its own: one that cannot be kept does not take the others along. */
export function partsOf({ choices, ...lists }: BelongingsChange): BelongingsChange[] {
  const fields = Object.entries(choices ?? {}).flatMap(([thing, all]) =>
    Object.entries(all).map(([field, value]) => ({ choices: { [thing]: { [field]: value } } })),
  )
  return [...fields, ...LIST_NAMES.flatMap((list) => (lists[list] ? [{ [list]: lists[list] }] : []))]
}
