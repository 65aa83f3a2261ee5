import type { Drawing } from '#core/model/model'
import { settingsForPage } from '#core/model/fineness'
import { writeSvg } from '../../core/formats/svg/write-svg'
import type { ShapesResult } from '../../core/ink/open-ink'

/** About as many pixels a thumbnail is wide or high on the Desk, twice over for fine screens. */
const SIZE = 600

/** How far an outline may be off, in pixels of the thumbnail. */
const TOLERANCE = 0.3

/** A drawing made as fine as can be seen at the size of a card. */
export function coarseForCard(drawing: Drawing): Drawing {
  const { page } = drawing
  const tolerance = (TOLERANCE * Math.max(page.width, page.height)) / SIZE
  return { ...drawing, settings: { shapes: settingsForPage({ unite: false, tolerance, simplify: 0 }, page) } }
}

/** A drawing as a small SVG: the real outlines, which are the shapes of `coarseForCard`. */
export const thumbnailOf = (drawing: Drawing, { shapes }: Pick<ShapesResult, 'shapes'>): string =>
  writeSvg(drawing, { content: 'outlines', shapes })
