import type { Drawing } from '#core/model/model'
import { pathData, short } from '../../core/geometry/path'
import { colourOf, shownItems } from '#core/model/queries'

/** A drawing as a small SVG of plain strokes, as wide as their sizes: for what takes too long to expand. */
export function plainThumbnail(drawing: Drawing): string {
  const { width, height } = drawing.page
  const out = [
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${short(width, 4)} ${short(height, 4)}" fill="none" stroke-linecap="round" stroke-linejoin="round">`,
  ]
  for (const layer of drawing.layers) {
    for (const item of shownItems(layer)) {
      const colour = colourOf(drawing, item.ink)
      if ('path' in item)
        out.push(
          `<path d="${pathData(item.path, 2)}" stroke="${colour}" stroke-width="${short(item.weight.size, 2)}"/>`,
        )
      else
        out.push(
          `<path d="${item.contours.map((c) => pathData({ ...c, closed: true }, 2)).join('')}" fill="${colour}"/>`,
        )
    }
  }
  return [...out, '</svg>'].join('\n')
}
