import type { Drawing, Finish, Ink, Layer, Line, Settings, Weight } from './model'

/**
 * One change of a drawing. Layers and items are named by their ids, not by their places, so that a patch still meets its
 * target after others have changed the drawing, and says no more than what changed.
 *
 * | path                                 | op        | value                                        |
 * | ------------------------------------ | --------- | -------------------------------------------- |
 * | `[field]`                            | `replace` | `name`, `page`, `inks` or `settings`         |
 * | `['settings', field]`, `['settings', 'shapes', field]` | `replace` | the setting; none: it goes |
 * | `['inks', place]`                    | `add`     | the ink                                      |
 * | `['inks', id]`                       | `remove`  |                                              |
 * | `['inks', id, field]`                | `replace` | its `name` or `colour`                       |
 * | `['layers', place]`                  | `add`     | the layer; the place is counted from the bottom |
 * | `['layers', id]`                     | `remove`  |                                              |
 * | `['layers', id, field]`              | `replace` | `name`, `visible`, `locked` or `opacity`     |
 * | `['layers', id, 'items', place]`     | `add`     | the item                                     |
 * | `['layers', id, 'items', id]`        | `remove`  |                                              |
 * | `['layers', id, 'items', id, field]` | `replace` | any field of the item but its id; none: the field goes |
 * | `['layers', id, 'items', id, 'weight' or 'finish', field]` | `replace` | that field of the line's weight or finish |
 * | `['layers']`, `['layers', id, 'items']`, `['inks']` | `order` | ids in their new order          |
 */
export interface Patch {
  op: 'add' | 'remove' | 'replace' | 'order'
  path: (string | number)[]
  value?: unknown
}

/** A patch that does not fit the drawing: what it changes is not there, or what it adds is there already. */
export class UnfitPatch extends Error {}

const DRAWING_FIELDS = ['name', 'page', 'inks', 'settings'] as const
/** Fields that an item may lack. */
const OPTIONAL_FIELDS: readonly string[] = ['scrapes', 'outside'] satisfies (keyof Line)[]
const LAYER_FIELDS = ['name', 'visible', 'locked', 'opacity'] as const
const INK_FIELDS = ['name', 'colour'] as const
/** Records that are changed field by field, so that two windows that change different fields both keep theirs. */
const BY_FIELD: readonly string[] = ['weight', 'finish', 'settings', 'shapes']
/** Fields that such a record may lack. */
const OPTIONAL_PARTS: readonly string[] = ['unlit', 'rough', 'light', 'retouches'] satisfies (keyof Weight | keyof Finish | keyof Settings)[]

type Path = Patch['path']
interface Named {
  id: string
}

/** The fewest patches that lead from one drawing to the other. */
export function patchesBetween(before: Drawing, after: Drawing): Patch[] {
  const out: Patch[] = []
  replaceFields(out, [], ['name', 'page', 'settings'], before, after)
  listPatches(out, ['inks'], before.inks, after.inks, (was, is, path) => replaceFields(out, path, INK_FIELDS, was, is))
  listPatches(out, ['layers'], before.layers, after.layers, (was, is, path) => {
    replaceFields(out, path, LAYER_FIELDS, was, is)
    listPatches<Named>(out, [...path, 'items'], was.items, is.items, (a, b, at) => replaceFields(out, at, [...new Set([...fieldsOf(a), ...fieldsOf(b)])], a, b))
  })
  return out
}

const fieldsOf = <T extends Named>(item: T): (keyof T & string)[] => (Object.keys(item) as (keyof T & string)[]).filter((f) => f !== 'id')

const same = (a: unknown, b: unknown): boolean => a === b || JSON.stringify(a) === JSON.stringify(b)

function replaceFields<T>(out: Patch[], path: Path, fields: readonly (keyof T & string)[], before: T, after: T): void {
  for (const f of fields) {
    const was: unknown = before[f]
    const is: unknown = after[f]
    if (was === is) continue
    if (BY_FIELD.includes(f) && isRecord(was) && isRecord(is)) {
      replaceFields(out, [...path, f], [...new Set([...Object.keys(was), ...Object.keys(is)])], was, is)
    } else if (!same(was, is)) out.push({ op: 'replace', path: [...path, f], value: is })
  }
}

const isRecord = (v: unknown): v is Record<string, unknown> => typeof v === 'object' && v !== null && !Array.isArray(v)

function listPatches<T extends Named>(
  out: Patch[],
  path: Path,
  before: readonly T[],
  after: readonly T[],
  inside: (was: T, is: T, path: Path) => void,
): void {
  if (before === after) return
  const old = new Map(before.map((item) => [item.id, item]))
  const now = new Map(after.map((item) => [item.id, item]))
  for (const { id } of before) if (!now.has(id)) out.push({ op: 'remove', path: [...path, id] })
  after.forEach((item, place) => {
    if (!old.has(item.id)) out.push({ op: 'add', path: [...path, place], value: item })
  })
  const kept = before.filter((item) => now.has(item.id))
  const keptNow = after.filter((item) => old.has(item.id))
  if (kept.some((item, i) => item.id !== keptNow[i]!.id)) out.push({ op: 'order', path, value: after.map((item) => item.id) })
  for (const item of keptNow) {
    const was = old.get(item.id)!
    if (was !== item) inside(was, item, [...path, item.id])
  }
}

/**
 * The drawing after `patches`; what they do not touch stays the same objects.
 *
 * @throws UnfitPatch when one of them has no target; the drawing given is never changed
 */
export function applyPatches(drawing: Drawing, patches: readonly Patch[]): Drawing {
  const next = { ...drawing }
  let inks = new ListEdit<Ink>(drawing.inks)
  const layers = new ListEdit<Layer>(drawing.layers)
  const items = new Map<string, ListEdit<Named>>()
  const itemsOf = (layer: string): ListEdit<Named> => {
    let list = items.get(layer)
    if (!list) {
      list = new ListEdit<Named>(layers.get(layer).items)
      items.set(layer, list)
    }
    return list
  }
  for (const { op, path, value } of patches) {
    const [root, at, list, item, ...fields] = path
    if (root === 'settings' && path.length > 1) {
      if (op !== 'replace') throw unfit(path)
      next.settings = withField(next.settings, path.slice(1), value, path) as Settings
    } else if (root === 'inks' && (path.length > 1 || op === 'order')) {
      if (path.length <= 2) inks.change(op, at, value, path)
      else inks.replace(at, path.slice(2), value, INK_FIELDS, path)
    } else if (root !== 'layers') {
      if (op !== 'replace' || path.length !== 1 || !DRAWING_FIELDS.some((f) => f === root)) throw unfit(path)
      if (root !== 'inks') Object.assign(next, { [root as string]: value })
      else if (Array.isArray(value)) inks = new ListEdit<Ink>(value as Ink[])
      else throw unfit(path)
    } else if (path.length <= 2) {
      layers.change(op, at, value, path)
      // A layer that is put in again under an old id has items of its own.
      if (op === 'remove') items.delete(at as string)
    } else if (path.length === 3 && list !== 'items') layers.replace(at, [list!], value, LAYER_FIELDS, path)
    else if (list !== 'items' || typeof at !== 'string') throw unfit(path)
    else if (path.length <= 4) itemsOf(at).change(op, item, value, path)
    else if (op === 'replace') itemsOf(at).replace(item, fields, value, null, path)
    else throw unfit(path)
  }
  for (const [id, list] of items) if (layers.has(id)) layers.put({ ...layers.get(id), items: list.result() } as Layer)
  next.inks = inks.result()
  next.layers = layers.result()
  return next
}

/** `record` with another value in one of its fields, or in a field of one that is changed field by field. */
function withField(record: object, fields: Path, value: unknown, path: Path): object {
  const [field, ...rest] = fields
  const known = typeof field === 'string' && field !== 'id' && (Object.hasOwn(record, field) || OPTIONAL_FIELDS.includes(field) || OPTIONAL_PARTS.includes(field))
  if (!known) throw unfit(path)
  const inner = (record as Record<string, unknown>)[field]
  if (rest.length && !(BY_FIELD.includes(field) && isRecord(inner))) throw unfit(path)
  const is = rest.length ? withField(inner as object, rest, value, path) : value
  const next = { ...record, [field]: is }
  // A field that was lost is not there, rather than there without a value.
  if (is === undefined) Reflect.deleteProperty(next, field)
  return next
}

const unfit = (path: Path): UnfitPatch => new UnfitPatch(`nothing is there to change at ${path.join('/')}`)

/** A list under change, by ids. */
class ListEdit<T extends Named> {
  private readonly byId: Map<string, T>
  private order: string[]

  constructor(private readonly before: readonly T[]) {
    this.byId = new Map(before.map((item) => [item.id, item]))
    this.order = before.map((item) => item.id)
  }

  has(id: string): boolean {
    return this.byId.has(id)
  }

  get(id: string): T {
    const item = this.byId.get(id)
    if (!item) throw new UnfitPatch(`"${id}" is not there any more`)
    return item
  }

  put(item: T): void {
    this.byId.set(item.id, item)
  }

  /** Adds at a place, removes by id, or puts everything in order. */
  change(op: Patch['op'], at: unknown, value: unknown, path: Path): void {
    if (op === 'add' && typeof at === 'number') this.add(at, value as T)
    else if (op === 'remove' && typeof at === 'string') this.remove(at)
    else if (op === 'order' && at === undefined && Array.isArray(value)) this.sort(value)
    else throw unfit(path)
  }

  private add(place: number, item: T): void {
    if (typeof item?.id !== 'string' || this.byId.has(item.id)) throw new UnfitPatch('what would be added is there already')
    this.byId.set(item.id, item)
    this.order.splice(Math.max(0, place), 0, item.id)
  }

  private remove(id: string): void {
    this.get(id)
    this.byId.delete(id)
    this.order.splice(this.order.indexOf(id), 1)
  }

  /** Items that the order does not name keep their places after those before them. */
  private sort(ids: readonly unknown[]): void {
    const rank = new Map(ids.map((id, i) => [id, i]))
    let last = -1
    const ranks = new Map(this.order.map((id) => [id, (last = rank.get(id) ?? last)]))
    this.order = [...this.order].sort((a, b) => ranks.get(a)! - ranks.get(b)!)
  }

  /** Puts a value in a field of an item; `allowed` names the fields, where not all of its own may be changed. */
  replace(id: unknown, fields: Path, value: unknown, allowed: readonly string[] | null, path: Path): void {
    const item = typeof id === 'string' ? this.get(id) : null
    if (!item || (allowed && !allowed.some((f) => f === fields[0]))) throw unfit(path)
    this.byId.set(item.id, withField(item, fields, value, path) as T)
  }

  /** The list after all changes; the very list that was given where nothing changed. */
  result(): T[] {
    const after = this.order.map((id) => this.byId.get(id)!)
    return after.length === this.before.length && after.every((item, i) => item === this.before[i]) ? (this.before as T[]) : after
  }
}
