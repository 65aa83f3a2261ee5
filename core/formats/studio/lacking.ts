import type { Belongings, BelongingLists, Choices, ListName } from './belongings'
import { idOf, LIST_NAMES, MOST_ITEMS } from './belongings'
import type { BelongingsChange } from './list-change'

/** A change that gives `mine` what `theirs` has and it lacks; nothing that is there is written over. */
export function lacking(mine: Belongings, theirs: Belongings): BelongingsChange {
  const choices: Choices = {}
  for (const [thing, fields] of Object.entries(theirs.choices))
    for (const [field, value] of Object.entries(fields))
      if (!Object.hasOwn(mine.choices[thing] ?? {}, field)) (choices[thing] ??= {})[field] = value
  const lists = Object.fromEntries(LIST_NAMES.map((list) => [list, added(list, mine, theirs)]))
  return { choices, ...lists } as BelongingsChange
}

function added<L extends ListName>(list: L, mine: BelongingLists, theirs: BelongingLists) {
  const id = idOf[list] as (item: BelongingLists[L][number]) => string
  const here = mine[list] as BelongingLists[L][number][]
  const known = new Set(here.map(id))
  const put = (theirs[list] as BelongingLists[L][number][])
    .filter((i) => !known.has(id(i)))
    .slice(0, MOST_ITEMS - here.length)
  return { put, gone: [], order: [...here, ...put].map(id) }
}
