import * as yup from 'yup'
import type { Drawing, Layer } from '../model/model'
import type { Copies, Each, Mapping, Patch } from './patch'
import { withoutEmptyLists } from './optional-fields'
import { drawingSchema, itemSchema, layerSchema, MOST_ITEMS, MOST_LAYERS } from './schema'
import { pathProblem } from './schema-parts'

/**
 * The value as a drawing.
 *
 * @throws yup.ValidationError whose `path` and `message` name the first thing that is wrong
 */
export function checkDrawing(value: unknown): Drawing {
  const drawing = withoutEmptyLists(drawingSchema.validateSync(value, { abortEarly: true }) as Drawing)
  checkLists(drawing)
  return drawing
}

/** What is wrong with an item of a layer, in a sentence, or null. */
export function itemProblem(kind: Layer['kind'], item: unknown): string | null {
  try {
    itemSchema(kind).validateSync(item, { abortEarly: true })
    return null
  } catch (e) {
    return `${(e as Error).message}.`
  }
}

/**
 * Checks the parts of `drawing` that `patches` touched, so that a small edit of a large drawing is checked fast.
 *
 * @throws yup.ValidationError as `checkDrawing`
 */
export function checkTouched(drawing: Drawing, patches: readonly Patch[]): void {
  const layers = new Map(drawing.layers.map((l) => [l.id, l]))
  const added = new Set<unknown>()
  const bare = new Set<Layer>()
  const whole = new Set<string>()
  const mapped = new Set<string>()
  let outside = false
  // What was done to a layer before it was taken away is no part of one that has its id now.
  const gone = new Map<unknown, number>()
  patches.forEach(
    ({ op, path }, i) => op === 'remove' && path.length === 2 && path[0] === 'layers' && gone.set(path[1], i),
  )
  for (const [i, { op, path, value }] of patches.entries()) {
    const [root, at, list, item, ...fields] = path
    const here = i < (gone.get(at) ?? -1) ? undefined : layers.get(String(at))
    if (op === 'add') added.add((value as { id?: unknown } | null)?.id)
    if (op === 'copy') for (const id of idsOf({ op, value })) added.add(id)
    if (root !== 'layers') outside = true
    else if (path.length <= 2) {
      if (op !== 'add') continue
      layerSchema.validateSync(value)
      for (const item of (value as Layer).items) added.add(item.id)
    } else if (!here)
      continue // A later patch takes the layer away again: nothing is left to check.
    else if (list !== 'items') bare.add(here)
    else if (op === 'copy' || op === 'map') for (const id of idsOf({ op, value })) mapped.add(id)
    else if (op === 'each') checkEach(here, value as Each, whole)
    else if (fields[0] === 'trace') whole.add(String(item))
    else if (fields.length) (yup.reach(itemSchema(here.kind), fields.join('.')) as yup.Schema).validateSync(value)
    else if (op === 'add') itemSchema(here.kind).validateSync(value)
  }
  if (whole.size)
    for (const l of drawing.layers)
      for (const item of l.items) if (whole.has(item.id)) itemSchema(l.kind).validateSync(item)
  if (mapped.size) checkMapped(drawing, mapped)
  // However many patches there are, each of these is looked at once.
  if (outside) drawingSchema.validateSync({ ...drawing, layers: [] })
  for (const here of bare) layerSchema.validateSync({ ...here, items: [] })
  if (added.size) checkLists(drawing, added)
}

/** One field of many items. */
function checkEach(layer: Layer, { field, of }: Each, whole: Set<string>): void {
  if (field[0] === 'trace') for (const [id] of of) whole.add(id)
  else {
    const schema = yup.reach(itemSchema(layer.kind), field.join('.')) as yup.Schema
    for (const [, value] of of) schema.validateSync(value)
  }
}

/** Points that went through a matrix: all else of their items is as it was. */
function checkMapped(drawing: Drawing, ids: ReadonlySet<string>): void {
  for (const { items } of drawing.layers) {
    for (const item of items) {
      if (!ids.has(item.id) || !('path' in item || 'contours' in item)) continue
      const problem = ('path' in item ? [item.path, ...(item.scrapes ?? [])] : item.contours)
        .map(pathProblem)
        .find((p) => p)
      if (problem) throw new yup.ValidationError(`path.${problem} cannot be used`, item.id, 'path')
    }
  }
}

/** Ids of the items that a change of many leaves otherwise than they were. */
export function idsOf({ op, value }: Pick<Patch, 'op' | 'value'>): string[] {
  if (op === 'copy') return (value as Copies).items.map(([, id]) => id)
  if (op === 'each') return (value as Each).of.map(([id]) => id)
  return (value as Mapping).items.map((entry) => (typeof entry === 'string' ? entry : entry[0]))
}

/** Lists have their limits, and everything is found by its id, so no two of the parts that are asked about may share one. */
function checkLists(drawing: Drawing, asked?: ReadonlySet<unknown>): void {
  const full = drawing.layers.find((l) => l.items.length > MOST_ITEMS)
  if (full)
    throw new yup.ValidationError(`layer "${full.name}" is full: it holds ${MOST_ITEMS} lines`, full.id, 'layers')
  if (drawing.layers.length > MOST_LAYERS)
    throw new yup.ValidationError(`a drawing holds ${MOST_LAYERS} layers at most`, null, 'layers')
  for (const all of [
    drawing.inks,
    drawing.amendments ?? [],
    drawing.fills ?? [],
    drawing.layers,
    drawing.layers.flatMap((l): { id: string }[] => l.items),
  ]) {
    const seen = new Set<string>()
    for (const { id: name } of all) {
      if (asked && !asked.has(name)) continue
      if (seen.has(name)) throw new yup.ValidationError(`two parts have the id "${name}"`, name, 'layers')
      seen.add(name)
    }
  }
}
