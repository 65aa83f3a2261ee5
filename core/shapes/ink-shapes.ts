import type { Drawing, Shape } from '../drawing/model'
import { expandLines } from '../outline/expand'

/** Everything that carries ink in the visible layers, bottom to top, lines expanded one by one. */
export function inkShapes(drawing: Drawing, tolerance: number): Shape[] {
  return drawing.layers.flatMap((layer) => {
    if (!layer.visible || layer.kind === 'sketch') return []
    return layer.kind === 'lines' ? expandLines(layer.items, { tolerance, union: false }) : layer.items
  })
}
