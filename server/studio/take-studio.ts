import type { Drawing } from '#core/model/model'
import { freeName } from '#core/model/free-name'
import { newId } from '../../core/new-id'
import type { ListName } from '../../core/formats/studio/belongings'
import { idOf, LIST_NAMES } from '../../core/formats/studio/belongings'
import type { BelongingsChange } from '../../core/formats/studio/list-change'
import { MOST_PROFILES } from '../../core/formats/profiles/read-profiles'
import type { ShelfProfile } from '../../core/weight/shelf'
import type { Store } from '../database/store'
import type { Thing } from './compare-studio'
import type { StudioContent } from './content'

/** Gives a seat some things of a studio file, all of them or none; what has another's name comes in beside it under one of its own. */
export function takeStudio(store: Store, seat: string, content: StudioContent, things: readonly Thing[]): void {
  const of = <T>(kind: Thing['kind']): T[] => things.filter((t) => t.kind === kind).map((t) => t.item as T)
  store.connection
    .transaction(() => {
      store.belongings.change(seat, changeOf(store, seat, of))
      store.profiles.replace(seat, withProfiles(store.profiles.list(seat), of<ShelfProfile>('profiles')))
      const templates = of<Drawing>('templates')
      if (templates.length) for (const image of content.images) store.images.insert(image)
      for (const drawing of templates) addTemplate(store, seat, drawing)
    })
    .immediate()
}

function changeOf(store: Store, seat: string, of: <T>(kind: ListName) => T[]): BelongingsChange {
  const here = store.belongings.read(seat)
  const change: BelongingsChange = {}
  for (const list of LIST_NAMES) {
    const put = of<unknown>(list).flat()
    if (!put.length) continue
    const id = idOf[list] as (item: unknown) => string
    const order = (here[list] as unknown[]).map(id)
    const gone = list === 'keys' ? order : []
    Object.assign(change, { [list]: { put, gone, order: [...order, ...put.map(id)] } })
  }
  return change
}

function withProfiles(here: readonly ShelfProfile[], taken: readonly ShelfProfile[]): ShelfProfile[] {
  const all = new Map(here.map((p) => [p.id, p]))
  for (const p of taken) {
    const names = new Set([...all.values()].filter((q) => q.id !== p.id).map((q) => q.name))
    if (all.has(p.id) || all.size < MOST_PROFILES) all.set(p.id, { ...p, name: freeName(names, p.name) })
  }
  return [...all.values()]
}

function addTemplate({ journal }: Store, seat: string, drawing: Drawing): void {
  const id = newId()
  const name = freeName(new Set(journal.drawings.names()), drawing.name)
  journal.create({ ...drawing, id, name }, { seat })
  journal.drawings.markTemplate(id, true)
}
