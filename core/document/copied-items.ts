import type { Matrix } from '../geometry/matrix'
import type { Named } from './list-edit'
import { mappedItem, mappingOf } from './mapped-items'
import type { Line, Shape } from '../model/model'
import type { Copies } from './patch'

/** Fewer copies than this are told as new items. */
const MANY = 4

/** An item once more, under another id, put through a matrix. */
export const copyOf = <T extends Line | Shape>(item: T, id: string, by: Matrix): T => ({ ...mappedItem(item, by), id })

/**
 * The copies among what is new: lines in a row whose weight and finish are the very objects of lines that were there, and
 * whose points are theirs put through one matrix. Answers them as a change, and the list after it: what of a copy is
 * otherwise than its model still has to be told.
 */
export function copiesAmong(
  before: readonly Named[],
  after: readonly Named[],
): { patches: { op: 'copy'; value: Copies }[]; items: readonly Named[] } {
  const none = { patches: [], items: before }
  const old = new Set(before.map((i) => i.id))
  const fresh = after.filter((i): i is Line => !old.has(i.id) && 'weight' in i)
  if (
    fresh.length < MANY ||
    !after.slice(after.indexOf(fresh[0]!), after.indexOf(fresh[0]!) + fresh.length).every((i) => !old.has(i.id))
  )
    return none
  const models = new Map(before.flatMap((i) => ('weight' in i ? [[(i as Line).weight, i as Line] as const] : [])))
  const pairs = fresh.flatMap((line) => {
    const model = models.get(line.weight)
    return model?.finish === line.finish ? [[model, line] as const] : []
  })
  if (pairs.length < fresh.length) return none
  const mapping = mappingOf(pairs)
  if (mapping?.items.length !== fresh.length) return none
  const place = after.indexOf(fresh[0]!)
  // Lines that went lie where they lay until they are taken out.
  const kept = new Set(after.map((i) => i.id))
  if (before.some((i) => !kept.has(i.id))) return none
  const value: Copies = { place, by: mapping.by, items: pairs.map(([model, line]) => [model.id, line.id]) }
  const items = [...before]
  items.splice(place, 0, ...pairs.map(([model, line]) => copyOf(model, line.id, mapping.by)))
  return { patches: [{ op: 'copy', value }], items }
}
