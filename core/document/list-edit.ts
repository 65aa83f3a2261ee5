import type { Ink } from '../model/model'
import { isOptional } from './optional-fields'
import type { Patch } from './patch'
import { BY_FIELD, isRecord, UnfitPatch } from './patch'

/** Fields of an ink that are changed one by one. */
export const INK_FIELDS = ['name', 'colour', 'print'] as const satisfies readonly (keyof Ink)[]
type Path = Patch['path']

/** Anything in a list of a drawing. */
export interface Named {
  id: string
}

/** `record` with another value in one of its fields, or in a field of one that is changed field by field. */
export function withField(record: object, fields: Path, value: unknown, path: Path): object {
  const [field, ...rest] = fields
  const known = typeof field === 'string' && field !== 'id' && (Object.hasOwn(record, field) || isOptional(field))
  if (!known) throw unfit(path)
  const inner = (record as Record<string, unknown>)[field]
  if (rest.length && !(BY_FIELD.includes(field) && isRecord(inner))) throw unfit(path)
  const is = rest.length ? withField(inner as object, rest, value, path) : value
  const next = { ...record, [field]: is }
  // A field that was lost is not there, rather than there without a value.
  if (is === undefined) Reflect.deleteProperty(next, field)
  return next
}

/** The error of a patch whose place in a document is not there. */
export const unfit = (path: Path): UnfitPatch => new UnfitPatch(`nothing is there to change at ${path.join('/')}`)

/** A list under change, by ids. */
export class ListEdit<T extends Named> {
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
    if (typeof item?.id !== 'string' || this.byId.has(item.id))
      throw new UnfitPatch('what would be added is there already')
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

  /** Copies of items under other ids, put in from a place on. */
  copy(place: number, copies: readonly T[]): void {
    copies.forEach((item, i) => this.add(place + i, item))
  }

  /** The list after all changes; the very list that was given where nothing changed. */
  result(): T[] {
    const after = this.order.map((id) => this.byId.get(id)!)
    return after.length === this.before.length && after.every((item, i) => item === this.before[i])
      ? (this.before as T[])
      : after
  }
}
