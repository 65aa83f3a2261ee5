import type { Drawing, Sketch } from '#core/model/model'
import { changeSketch } from '#core/editing/change-items'
import type { Sketches } from './worktop'

/** Why the sketch in hand cannot be worked on, with what to do; null where it can. */
export function whySketchIsShut(worktop: Sketches): string | null {
  const layer = worktop.sketchLayer()
  if (!layer) return 'There is no sketch yet. Bring one in: drop a PNG, JPEG, WebP or SVG on the page'
  if (!layer.visible) return `Layer "${layer.name}" is hidden. Show it to work on it`
  return layer.locked ? `Layer "${layer.name}" is locked. Unlock it below the drawing` : null
}

/** The sketch in hand, where it can be worked on. */
export const openSketch = (worktop: Sketches): Sketch | null =>
  whySketchIsShut(worktop) ? null : (worktop.sketchLayer()!.items.at(-1) ?? null)

/** Puts the sketch in hand through `change`. */
export const changingSketch =
  (id: string, change: (sketch: Sketch) => Sketch) =>
  (draft: Drawing): void =>
    changeSketch(draft, id, change)
