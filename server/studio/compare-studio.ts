import type { Drawing } from '#core/model/model'
import { withWholeTraces } from '#core/document/traces-apart'
import type { NamedDelivery } from '../../core/formats/delivery/settings'
import type { KeptPalette } from '../../core/formats/palettes/palettes'
import type { OwnKey } from '../../core/formats/studio/belongings'
import { idOf } from '../../core/formats/studio/belongings'
import type { NamedNib } from '../../core/weight/nibs'
import type { ShelfProfile } from '../../core/weight/shelf'
import type { StudioKind, StudioState } from '../../shared/studio-file'
import type { Store } from '../database/store'
import type { StudioContent } from './content'

/** A thing of a studio file, with what is to be written where it is taken. */
export interface Thing {
  kind: StudioKind
  name: string
  state: StudioState
  item: NamedNib | KeptPalette | NamedDelivery | OwnKey[] | ShelfProfile | Drawing
}

/** The same data, whatever the order of its fields. */
const same = (a: unknown, b: unknown): boolean => JSON.stringify(sorted(a)) === JSON.stringify(sorted(b))

function sorted(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(sorted)
  if (typeof value !== 'object' || value === null) return value
  return Object.fromEntries(
    Object.entries(value)
      .filter(([, v]) => v !== undefined)
      .sort(([a], [b]) => (a < b ? -1 : 1))
      .map(([k, v]) => [k, sorted(v)]),
  )
}

/** All things of a studio file beside what a seat has, in the order in which they are shown. */
export function comparedWith(store: Store, seat: string, content: StudioContent): Thing[] {
  const here = store.belongings.read(seat)
  return [
    ...ofNamed('nibs', here.nibs, content.nibs),
    ...ofProfiles(store.profiles.list(seat), content.profiles),
    ...ofNamed('palettes', here.palettes, content.palettes),
    ...ofNamed('deliveries', here.deliveries, content.deliveries),
    ...ofKeys(here.keys, content.keys),
    ...content.templates.map((t) => ofTemplate(store, t)),
  ]
}

function ofNamed<L extends 'nibs' | 'palettes' | 'deliveries', T extends Thing['item'] & { name: string }>(
  list: L,
  here: readonly T[],
  theirs: readonly T[],
): Thing[] {
  const id = idOf[list] as (item: T) => string
  const known = new Map(here.map((i) => [id(i), i]))
  return theirs.map((item) => {
    const there = known.get(id(item))
    return { kind: list, name: item.name, state: !there ? 'new' : same(there, item) ? 'same' : 'changed', item }
  })
}

/** Keys are taken all at once: one that goes to something else needs the other way round as well. */
function ofKeys(here: readonly OwnKey[], theirs: OwnKey[]): Thing[] {
  if (!theirs.length) return []
  const state = same(here, theirs) ? 'same' : here.length ? 'changed' : 'new'
  const name = theirs.length === 1 ? 'one key of their own' : `${theirs.length} keys of their own`
  return [{ kind: 'keys', name, state, item: theirs }]
}

function ofProfiles(here: readonly ShelfProfile[], theirs: readonly ShelfProfile[]): Thing[] {
  const byId = new Map(here.map((p) => [p.id, p]))
  const names = new Map(here.map((p) => [p.name, p.id]))
  return theirs.map((item) => {
    const there = byId.get(item.id)
    const state = there ? (same(there, item) ? 'same' : 'changed') : names.has(item.name) ? 'clash' : 'new'
    return { kind: 'profiles', name: item.name, state, item }
  })
}

/** A template of that name that is otherwise stays beside it. */
function ofTemplate({ journal, traces }: Store, item: Drawing): Thing {
  const named = journal.drawings.list().filter((c) => c.name === item.name)
  const isHere = named.some((c) => {
    const whole = withWholeTraces(journal.head(c.id)!.drawing, (hash) => traces.find(hash) ?? undefined)
    return same({ ...whole, id: '' }, { ...item, id: '' })
  })
  return { kind: 'templates', name: item.name, state: isHere ? 'same' : named.length ? 'clash' : 'new', item }
}
