import type { Drawing, Layer } from '../../model/model'

/** What of a drawing leaves: all that is visible, a layer, or some lines and solids. */
export type DeliveryPart = { what: 'page' } | { what: 'layer'; id: string } | { what: 'items'; ids: readonly string[] }

/**
 * A drawing of that part alone, in its place on the page. Fills leave with the page; with a layer or with items only those
 * that are bounded by their lines alone.
 */
export function partOf(drawing: Drawing, part: DeliveryPart): Drawing {
  if (part.what === 'page') return drawing
  const ids = part.what === 'items' ? new Set(part.ids) : null
  const keeps = (layer: Layer, item: { id: string }): boolean =>
    part.what === 'layer' ? layer.id === part.id : ids!.has(item.id)
  const layers = drawing.layers.map((layer): Layer => {
    const items = layer.kind === 'sketch' ? [] : (layer.items as { id: string }[]).filter((i) => keeps(layer, i))
    return {
      ...layer,
      items,
      visible: part.what === 'layer' ? layer.visible || layer.id === part.id : layer.visible,
    } as Layer
  })
  const left = new Set(layers.flatMap((l) => l.items.map((i) => i.id)))
  const fills = drawing.fills?.filter((f) => f.hold.length > 0 && f.hold.every(({ line }) => left.has(line)))
  return { ...drawing, layers, ...(drawing.fills && { fills }) }
}
