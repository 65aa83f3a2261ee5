import { copyOf } from './copied-items'
import type { Named } from './list-edit'
import { INK_FIELDS, ListEdit, unfit, withField } from './list-edit'
import { mappedItem } from './mapped-items'
import { withoutEmptyLists } from './optional-fields'
import type { Amendment, Drawing, Fill, Ink, Layer, Line, Settings, Shape } from '../model/model'
import type { Copies, Each, Mapping, Patch } from './patch'
import { isRecord, UnfitPatch } from './patch'

const DRAWING_FIELDS = ['name', 'page', 'inks', 'settings'] as const
const LAYER_FIELDS = ['name', 'visible', 'locked', 'opacity'] as const

/** Fields of amendments that change: all but their ids. */
const AMENDMENT_FIELDS = [
  'kind',
  'at',
  'to',
  'by',
  'line',
  'place',
  'over',
  'bounds',
  'ends',
  'style',
  'behind',
  'limit',
  'length',
  'simplify',
  'key',
  'front',
  'back',
  'both',
  'lines',
  'along',
  'across',
  'from',
  'otherwise',
  'fresh',
  'gap',
  'width',
  'taper',
  'ink',
  'about',
  'times',
  'left',
] as const satisfies readonly FieldOf<Amendment>[]

/** Fields of fills that change: all but their ids. */
const FILL_FIELDS = [
  'ink',
  'where',
  'at',
  'hold',
  'gap',
  'under',
  'shades',
  'lit',
] as const satisfies readonly FieldOf<Fill>[]

type FieldOf<T> = T extends unknown ? Exclude<keyof T, 'id'> : never

/** None of the fields of `T` is left out of a list. */
type All<T, Listed> = [Exclude<FieldOf<T>, Listed>] extends [never] ? true : never
true satisfies All<Amendment, (typeof AMENDMENT_FIELDS)[number]>
true satisfies All<Fill, (typeof FILL_FIELDS)[number]>

/** Most nodes that one patch copies. */
const MOST_COPIED = 1_000_000

const NONE: Amendment[] = []
const NO_FILLS: Fill[] = []

/**
 * The drawing after `patches`; what they do not touch stays the same objects.
 *
 * @throws UnfitPatch when one of them has no target; the drawing given is never changed
 */
export function applyPatches(drawing: Drawing, patches: readonly Patch[]): Drawing {
  const next = { ...drawing }
  let inks = new ListEdit<Ink>(drawing.inks)
  const amendments = new ListEdit<Amendment>(drawing.amendments ?? NONE)
  const fills = new ListEdit<Fill>(drawing.fills ?? NO_FILLS)
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
    } else if (root === 'amendments' || root === 'fills') {
      const [all, fields] =
        root === 'fills' ? ([fills, FILL_FIELDS] as const) : ([amendments, AMENDMENT_FIELDS] as const)
      if (path.length <= 2) all.change(op, at, value, path)
      else if (op === 'replace' && path.length === 3) all.replace(at, path.slice(2), value, fields, path)
      else throw unfit(path)
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
    else if (path.length === 3 && (op === 'copy' || op === 'map' || op === 'each'))
      manyChanged(itemsOf(at), op, value, path)
    else if (path.length <= 4) itemsOf(at).change(op, item, value, path)
    else if (op === 'replace') itemsOf(at).replace(item, fields, value, null, path)
    else throw unfit(path)
  }
  for (const [id, list] of items) if (layers.has(id)) layers.put({ ...layers.get(id), items: list.result() } as Layer)
  next.inks = inks.result()
  const amended = amendments.result()
  if (amended !== (drawing.amendments ?? NONE)) next.amendments = amended
  const poured = fills.result()
  if (poured !== (drawing.fills ?? NO_FILLS)) next.fills = poured
  next.layers = layers.result()
  return withoutEmptyLists(next)
}

/** A change of many items of a layer at once. */
function manyChanged(items: ListEdit<Named>, op: 'copy' | 'map' | 'each', value: unknown, path: Patch['path']): void {
  if (!isRecord(value)) throw unfit(path)
  if (op === 'each') {
    const { field, of } = value as unknown as Each
    if (!isList(field) || !isList(of)) throw unfit(path)
    for (const entry of of) {
      if (!isList(entry)) throw unfit(path)
      items.replace(entry[0], field, entry[1], null, path)
    }
    return
  }
  const { by, items: all } = value as unknown as Mapping | Copies
  if (!isList(all) || !isList(by) || by.length !== 6 || !by.every(Number.isFinite)) throw unfit(path)
  if (op === 'copy') {
    const { place } = value as unknown as Copies
    if (typeof place !== 'number') throw unfit(path)
    let nodes = 0
    items.copy(
      place,
      all.map((entry) => {
        if (!isList(entry) || typeof entry[0] !== 'string' || typeof entry[1] !== 'string') throw unfit(path)
        const item = drawn(items.get(entry[0]), path)
        nodes += ('path' in item ? [item.path] : item.contours).reduce((n, c) => n + c.nodes.length, 0)
        // A short patch must not make a drawing of any size.
        if (nodes > MOST_COPIED) throw new UnfitPatch('more is copied at once than a drawing can hold')
        return copyOf(item, entry[1], by)
      }),
    )
    return
  }
  for (const entry of all) {
    const [id, ...off] = typeof entry === 'string' ? [entry] : isList(entry) ? entry : []
    if (typeof id !== 'string' || !off.every(Number.isSafeInteger)) throw unfit(path)
    items.put(mappedItem(drawn(items.get(id), path), by, off as number[]))
  }
}

const isList = (v: unknown): v is unknown[] => Array.isArray(v)

function drawn(item: Named, path: Patch['path']): Line | Shape {
  if (!('path' in item || 'contours' in item)) throw unfit(path)
  return item as Line | Shape
}
