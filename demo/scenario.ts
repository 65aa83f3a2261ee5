import { defaultPage, newDrawing, newLinesLayer, newSketchLayer } from '../core/drawing/create'
import { newId } from '../core/new-id'
import type { Drawing, Line } from '../core/drawing/model'
import { findingsOf } from '../core/proof/findings-of'
import { mendAll } from '../core/proof/mend'
import { gardenSnail } from './drawings/garden-snail'
import { peaPod } from './drawings/pea-pod'
import { radishBunch } from './drawings/radish-bunch'

export interface Inked {
  name: string
  layers: { name: string; lines: Line[] }[]
}

/** The drawings of the Thistlewick Seed Swap, each with the lines that its author laid. */
export const SCENARIO: readonly (() => Inked)[] = [radishBunch, peaPod, gardenSnail]

/** A document of one of the scenario's drawings over its pencil sketch. */
export function documentOf({ name, layers }: Inked, image: string | null): Drawing {
  const page = defaultPage()
  const blank = newDrawing(name, { page, layers: layers.map((l) => newLinesLayer(l.name, l.lines)) })
  // Leaves and pods run out to points.
  const drawing: Drawing = { ...blank, settings: { ...blank.settings, corner: 'pointed' } }
  // What is too thin for print is mended, as its author would.
  mendAll(drawing, findingsOf(drawing).filter((f) => f.kind === 'thin'))
  if (image) drawing.layers.unshift(newSketchLayer({ id: newId(), image, x: 0, y: 0, width: page.width, height: page.height, angle: 0 }))
  return drawing
}
