import type { Drawing } from '#core/model/model'
import { settingsForPage } from '#core/model/fineness'
import { writeSvg } from '../../core/formats/svg/write-svg'
import { shapesOf } from '../../core/ink/shapes-of'

/** About as many pixels a thumbnail is wide or high on the Desk, twice over for fine screens. */
const SIZE = 600

/** How far an outline may be off, in pixels of the thumbnail. */
const TOLERANCE = 0.3

/** A drawing as a small SVG: the real outlines, as fine as can be seen at the size of a card. */
export function drawThumbnail(drawing: Drawing): string {
  const { page } = drawing
  const tolerance = (TOLERANCE * Math.max(page.width, page.height)) / SIZE
  const { shapes } = shapesOf({
    ...drawing,
    settings: { shapes: settingsForPage({ unite: false, tolerance, simplify: 0 }, page) },
  })
  return writeSvg(drawing, { content: 'outlines', shapes })
}
