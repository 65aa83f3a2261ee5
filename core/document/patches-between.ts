import { copiesAmong } from './copied-items'
import type { Named } from './list-edit'
import { mappedItem, mappingOf } from './mapped-items'
import type { Drawing, Line, Shape } from '../model/model'
import type { Each, Patch } from './patch'
import { BY_FIELD, isRecord, LISTS } from './patch'

const LAYER_FIELDS = ['name', 'visible', 'locked', 'opacity'] as const

/** So many items that change alike are told together. */
const MANY = 4

type Path = Patch['path']

/** The fewest patches that lead from one drawing to the other. */
export function patchesBetween(before: Drawing, after: Drawing): Patch[] {
  const out: Patch[] = []
  replaceFields(out, [], ['name', 'page', 'settings'], before, after)
  for (const list of LISTS)
    listPatches<Named>(out, [list], before[list] ?? [], after[list] ?? [], (was, is, path) =>
      replaceFields(out, path, fieldsOfBoth(was, is), was, is),
    )
  listPatches(out, ['layers'], before.layers, after.layers, (was, is, path) => {
    replaceFields(out, path, LAYER_FIELDS, was, is)
    if (was.items !== is.items) itemPatches(out, [...path, 'items'], was.items, is.items)
  })
  return out
}

/** Patches of the items of a layer; what many have in common is told once. */
function itemPatches(out: Patch[], path: Path, before: readonly Named[], after: readonly Named[]): void {
  const told = areInPlace(before, after) ? { patches: [], items: before } : copiesAmong(before, after)
  for (const { op, value } of told.patches) out.push({ op, path, value })
  const single: Patch[] = []
  const inside = (a: Named, b: Named, at: Path): void => replaceFields(single, at, fieldsOfBoth(a, b), a, b)
  const changed = changedPairs(told.items, after)
  const drawn = changed.filter((pair): pair is readonly [Line | Shape, Line | Shape] =>
    pair.every((i) => 'path' in i || 'contours' in i),
  )
  const mapping = drawn.length >= MANY ? mappingOf(drawn) : null
  let items = told.items
  if (mapping && mapping.items.length >= MANY) {
    out.push({ op: 'map', path, value: mapping })
    const was = new Map(items.map((i) => [i.id, i]))
    for (const entry of mapping.items) {
      const [id, ...off] = typeof entry === 'string' ? [entry] : entry
      was.set(id, mappedItem(was.get(id) as Line | Shape, mapping.by, off))
    }
    items = items.map((i) => was.get(i.id)!)
  }
  listPatches<Named>(out, path, items, after, inside)
  out.push(...together(single, path))
}

/** Whether the same things stand in the same places, whatever became of them: then nothing but the places need be compared. */
function areInPlace(before: readonly Named[], after: readonly Named[]): boolean {
  if (before.length !== after.length) return false
  for (let i = 0; i < after.length; i++) if (before[i] !== after[i] && before[i]!.id !== after[i]!.id) return false
  return true
}

/** Things that are in both lists and are not the same, as they were and are. */
function changedPairs<T extends Named>(before: readonly T[], after: readonly T[]): (readonly [was: T, is: T])[] {
  const pairs: (readonly [T, T])[] = []
  if (areInPlace(before, after)) {
    for (let i = 0; i < after.length; i++) if (before[i] !== after[i]) pairs.push([before[i]!, after[i]!])
    return pairs
  }
  const old = new Map(before.map((item) => [item.id, item]))
  for (const is of after) {
    const was = old.get(is.id)
    if (was && was !== is) pairs.push([was, is])
  }
  return pairs
}

/** Single patches, those that change one field of many items told together. */
function together(single: readonly Patch[], path: Path): Patch[] {
  const byField = new Map<string, Patch[]>()
  for (const p of single) {
    const field = p.path.slice(path.length + 1).join('/')
    byField.set(field, [...(byField.get(field) ?? []), p])
  }
  return [...byField.values()].flatMap((all) => {
    // What goes has no value, and JSON has no way to say so in a list.
    if (all.length < MANY || all.some((p) => p.value === undefined)) return all
    const value: Each = {
      field: all[0]!.path.slice(path.length + 1) as string[],
      of: all.map((p) => [p.path[path.length] as string, p.value]),
    }
    return [{ op: 'each' as const, path, value }]
  })
}

/** The fields that either of two has: one that only the first has goes, one that only the second has comes. */
const fieldsOfBoth = <T extends object>(a: T, b: T): (keyof T & string)[] =>
  [...new Set([...Object.keys(a), ...Object.keys(b)])].filter((f) => f !== 'id') as (keyof T & string)[]

const same = (a: unknown, b: unknown): boolean => a === b || JSON.stringify(a) === JSON.stringify(b)

function replaceFields<T>(out: Patch[], path: Path, fields: readonly (keyof T & string)[], before: T, after: T): void {
  for (const f of fields) {
    const was: unknown = before[f]
    const is: unknown = after[f]
    if (was === is) continue
    // Another trace is told as a whole: the fields of the two need not be the same.
    if (BY_FIELD.includes(f) && isRecord(was) && isRecord(is) && was.of === is.of) {
      replaceFields(out, [...path, f], fieldsOfBoth(was, is) as never[], was, is)
    } else if (!same(was, is)) out.push({ op: 'replace', path: [...path, f], value: is })
  }
}

function listPatches<T extends Named>(
  out: Patch[],
  path: Path,
  before: readonly T[],
  after: readonly T[],
  inside: (was: T, is: T, path: Path) => void,
): void {
  if (before === after) return
  if (!areInPlace(before, after)) placePatches(out, path, before, after)
  for (const [was, is] of changedPairs(before, after)) inside(was, is, [...path, is.id])
}

/** What went, what came, and the order of what is there. */
function placePatches<T extends Named>(out: Patch[], path: Path, before: readonly T[], after: readonly T[]): void {
  const old = new Set(before.map((item) => item.id))
  const now = new Set(after.map((item) => item.id))
  for (const { id } of before) if (!now.has(id)) out.push({ op: 'remove', path: [...path, id] })
  after.forEach((item, place) => {
    if (!old.has(item.id)) out.push({ op: 'add', path: [...path, place], value: item })
  })
  const kept = before.filter((item) => now.has(item.id))
  const keptNow = after.filter((item) => old.has(item.id))
  if (kept.some((item, i) => item.id !== keptNow[i]!.id))
    out.push({ op: 'order', path, value: after.map((item) => item.id) })
}
