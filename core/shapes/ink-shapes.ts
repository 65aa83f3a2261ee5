import type { Drawing, Line, Shape } from '../drawing/model'
import { expandLine } from '../outline/expand'

/** A line's ink as a shape. */
export function lineShape(line: Line, tolerance: number): Shape {
  return { id: line.id, contours: expandLine(line, { tolerance }), ink: line.ink, from: [line.id] }
}

/** Everything that carries ink in the visible layers, bottom to top, lines expanded one by one. */
export function inkShapes(drawing: Drawing, tolerance: number): Shape[] {
  return drawing.layers.flatMap((layer) => {
    if (!layer.visible || layer.kind === 'sketch') return []
    return layer.kind === 'lines' ? layer.items.map((l) => lineShape(l, tolerance)) : layer.items
  })
}
