import type { Line } from '#core/model/model'
import { perUsualPx } from '#core/model/fineness'
import { newFillsLayer } from '#core/model/create'
import { merged, paintedBy, touchedBy } from '#core/editing/solids'
import { changeShapes } from '#core/editing/change-items'
import { findShape, shapesLayers } from '#core/model/find'
import { Brush } from './brush'

/** Paints a solid shape. */
export class Blot extends Brush {
  readonly name = 'Blot'

  hint(): string {
    if (this.painting) return 'Release: finish · Esc: drop'
    return this.worktop.preferences().blotMerges
      ? 'Drag: paint a solid shape · It becomes one with the shapes it touches'
      : 'Drag: paint a solid shape'
  }

  protected size(): number {
    return this.worktop.preferences().blotSize
  }

  protected ready(): boolean {
    return this.worktop.layerForSolids() !== null
  }

  protected done(stroke: Line): void {
    const place = this.worktop.layerForSolids()
    const scale = perUsualPx(this.worktop.drawing().page)
    const contours = paintedBy(stroke, scale)
    if (!place || !contours.length) return
    const touched = this.worktop.preferences().blotMerges
      ? touchedBy(
          contours,
          this.worktop.allSolids().filter((s) => s.ink === stroke.ink),
          scale,
        )
      : []
    const shape = merged(contours, stroke.ink, touched, scale)
    this.worktop.edit(touched.length ? 'Blot, as one shape' : 'Blot', (draft) => {
      if (touched.length) {
        changeShapes(
          draft,
          touched.slice(1).map((t) => t.id),
          () => null,
        )
        changeShapes(draft, [touched[0]!.id], () => shape)
        return
      }
      const layer = shapesLayers(draft).find((l) => l.id === place.layer)
      if (layer) layer.items.push(shape)
      else draft.layers.splice(place.above + 1, 0, newFillsLayer('Blots', [shape]))
    })
    this.worktop.select([])
    if (findShape(this.worktop.drawing(), shape.id)) this.worktop.chooseSolids([shape.id])
  }
}
