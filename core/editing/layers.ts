import { carriedOver, carriedSnips, otherFigures } from './copies'
import { newId } from '../new-id'
import { freeName } from '../model/free-name'
import type { Drawing, Layer, Line } from '../model/model'

/** A copy of a layer and all in it under fresh ids; snips keep to the copies of the lines that bound them. */
export function copiedLayer(layer: Layer, name: string): Layer {
  const ids = new Map(layer.items.map((i) => [i.id, newId()]))
  const fresh = <T extends { id: string }>(item: T): T => ({ ...item, id: ids.get(item.id)! })
  const base = { ...layer, id: newId(), name }
  if (layer.kind === 'sketch') return { ...base, kind: layer.kind, items: layer.items.map(fresh) }
  if (layer.kind !== 'lines') return { ...base, kind: layer.kind, items: layer.items.map(fresh) }
  const anew = otherFigures(layer.items)
  const line = (l: Line): Line => ({
    ...fresh(l),
    snips: carriedSnips(l.snips, ids),
    ...anew(l),
    ...carriedOver(l, ids),
  })
  return { ...base, kind: 'lines', items: layer.items.map(line) }
}

/** A name like `wanted` that no layer has yet. */
export const freeLayerName = (drawing: Drawing, wanted: string): string =>
  freeName(new Set(drawing.layers.map((l) => l.name)), wanted)

const family = (layer: Layer): string => (layer.kind === 'shapes' || layer.kind === 'fills' ? 'shapes' : layer.kind)

/** Whether two layers hold the same kind of items, so that they can become one. */
export const alike = (a: Layer, b: Layer): boolean => family(a) === family(b)
