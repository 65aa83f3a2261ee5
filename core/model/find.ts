import { isDraft, original } from 'immer'
import type { Drawing, Line, LinesLayer, Shape, ShapesLayer, Sketch, SketchLayer } from './model'

/** A layer of lines by its id, in a drawing or a draft. */
export function findLayer(drawing: Drawing, id: string): LinesLayer | null {
  const layer = drawing.layers.find((l) => l.id === id)
  return layer?.kind === 'lines' ? layer : null
}

interface FoundLine {
  layer: LinesLayer
  line: Line
  index: number
}

/** Where lines were last seen: looking through thousands at every move takes a good part of a frame. */
const seats = new Map<string, { layer: number; index: number }>()

/** A line by its id, with its layer and its place there. */
export function findLine(drawing: Drawing, id: string): FoundLine | null {
  const found = seated(drawing, id)
  if (found) return found
  // Going through a draft is slow, and few edits move a line to another place.
  noteSeats(isDraft(drawing) ? original(drawing)! : drawing)
  const anew = seated(drawing, id)
  if (anew || !isDraft(drawing)) return anew
  noteSeats(drawing)
  return seated(drawing, id)
}

/** As `findLine`, of lines that no lock keeps from the hand: none of the layer, none of their own. */
export function findOpenLine(drawing: Drawing, id: string): FoundLine | null {
  const found = findLine(drawing, id)
  return found && !found.layer.locked && !found.line.locked ? found : null
}

/** The line, if it is where it was last seen. */
function seated(drawing: Drawing, id: string): FoundLine | null {
  const seat = seats.get(id)
  const layer = seat && drawing.layers[seat.layer]
  const line = layer?.kind === 'lines' ? layer.items[seat!.index] : undefined
  return line?.id === id ? { layer: layer as LinesLayer, line, index: seat!.index } : null
}

/** All lines at once, so that a choice of thousands is found in one go. */
function noteSeats(drawing: Drawing): void {
  for (const [layer, { kind, items }] of drawing.layers.entries())
    if (kind === 'lines') for (const [index, { id }] of items.entries()) seats.set(id, { layer, index })
}

/** Whether anything differs between two drawings besides the lines named. */
export function changedBesides(before: Drawing | null, after: Drawing, ids: readonly string[]): boolean {
  if (!before || before.layers.length !== after.layers.length) return true
  const named = new Set(ids)
  return after.layers.some((layer, i) => {
    const was = before.layers[i]!
    if (was === layer) return false
    if (was.items.length !== layer.items.length || was.id !== layer.id) return true
    return layer.items.some((item, k) => item !== was.items[k] && !named.has(item.id))
  })
}

/** The layers of sketches, bottom to top. */
export const sketchLayers = (drawing: Drawing): SketchLayer[] =>
  drawing.layers.filter((l): l is SketchLayer => l.kind === 'sketch')

/** The layer of a sketch that settings and instruments speak of: the one that was chosen, or the topmost. */
export const sketchLayerInHand = (drawing: Drawing, chosen: string | null): SketchLayer | null => {
  const all = sketchLayers(drawing).filter((l) => l.items.length)
  return all.find((l) => l.id === chosen) ?? all.at(-1) ?? null
}

/** The sketch in sight that lies on top. */
export const topSketch = (drawing: Drawing): Sketch | null =>
  sketchLayers(drawing)
    .filter((l) => l.visible)
    .flatMap((l) => l.items)
    .at(-1) ?? null

/** The layers of solids, bottom to top. */
export const shapesLayers = (drawing: Drawing): ShapesLayer[] =>
  drawing.layers.filter((l): l is ShapesLayer => l.kind === 'shapes' || l.kind === 'fills')

/** A shape of a layer by its id, with its layer and its place there. */
export function findShape(drawing: Drawing, id: string): { layer: ShapesLayer; shape: Shape; index: number } | null {
  for (const layer of shapesLayers(drawing)) {
    const index = layer.items.findIndex((s) => s.id === id)
    if (index >= 0) return { layer, shape: layer.items[index]!, index }
  }
  return null
}
