import type { Drawing, Shape } from '../../model/model'
import { shapeSettingsOf } from '../../model/fineness'
import { shapesOf } from '../../ink/shapes-of'
import { unionShapes } from '../../shapes/combine'
import { simplifyContours } from '../../shapes/simplify'

/**
 * The shapes of a drawing, from the bottom of the stack to its top, united only within layers: each belongs to one layer, that of
 * what it comes `from`. What is seen is the same as with all united.
 */
export function layerShapes(drawing: Drawing): Shape[] {
  const settings = shapeSettingsOf(drawing)
  if (!settings.unite) return shapesOf(drawing).shapes
  const layerOf = new Map(drawing.layers.flatMap((l) => l.items.map((i) => [i.id, l.id] as const)))
  const layerIn = (s: Shape): string | undefined =>
    layerOf.get(s.id) ?? s.from.map((id) => layerOf.get(id)).find((l) => l !== undefined)
  const apart = shapesOf({
    ...drawing,
    settings: { ...drawing.settings, shapes: { ...settings, unite: false } },
  }).shapes
  const runs: Shape[][] = []
  for (const shape of apart) {
    const last = runs.at(-1)
    const before = last?.[0]
    const layer = layerIn(shape)
    if (last && before && layer !== undefined && before.ink === shape.ink && layerIn(before) === layer) last.push(shape)
    else runs.push([shape])
  }
  return runs.map((run): Shape => {
    const [first] = run
    if (run.length === 1) return first!
    const contours = unionShapes(run, settings)
    return {
      ...first!,
      from: run.flatMap((s) => s.from),
      contours:
        settings.simplify > 0 ? simplifyContours(contours, { tolerance: settings.simplify }).contours : contours,
    }
  })
}
