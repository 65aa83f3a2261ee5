import { findOpenLine, findShape, sketchLayers } from '../model/find'
import type { Drawing, Line, Shape, Sketch } from '../model/model'

/** Puts `change` to each of the lines named; locked lines and those of locked layers are passed over. Answers how many were changed. */
export function changeLines(drawing: Drawing, ids: readonly string[], change: (line: Line) => void): number {
  let changed = 0
  for (const id of ids) {
    const found = findOpenLine(drawing, id)
    if (!found) continue
    change(found.line)
    changed++
  }
  return changed
}

/** Puts a sketch through `change`. */
export function changeSketch(drawing: Drawing, id: string, change: (sketch: Sketch) => Sketch): void {
  for (const layer of sketchLayers(drawing)) {
    const i = layer.items.findIndex((s) => s.id === id)
    if (i >= 0) layer.items[i] = change(layer.items[i]!)
  }
}

/** Puts each of the shapes named through `change`; null takes it away. Shapes of locked layers are passed over. */
export function changeShapes(drawing: Drawing, ids: readonly string[], change: (shape: Shape) => Shape | null): void {
  for (const id of ids) {
    const found = findShape(drawing, id)
    if (!found || found.layer.locked) continue
    const next = change(found.shape)
    if (next) found.layer.items[found.index] = next
    else found.layer.items.splice(found.index, 1)
  }
}
