import type { Drawing } from '../../model/model'
import type { Box } from '../../geometry/bounds'
import { colourIn } from '../../model/inks'
import { pathData, short } from '../../geometry/path'
import type { Sheet } from './sheets'
import { marksOf, rimOf } from './sheets'
import type { PdfOptions } from './pdf-options'

/** How a sheet of a PDF looks, as SVG, and where it lies about the page, px. */
export function sheetSvg(
  { page, inks }: Drawing,
  sheet: Sheet,
  options: Pick<PdfOptions, 'bleed' | 'marks'>,
): { svg: string; box: Box } {
  const { width, height, pxPerMm } = page
  const n = (v: number): string => short(v, 3)
  const rim = rimOf(options, sheet) * pxPerMm
  const bleed = options.bleed * pxPerMm
  const shapes = sheet.shapes.map(
    (s) =>
      `<path d="${s.contours.map((c) => pathData({ ...c, closed: true }, 3)).join('')}" fill="${sheet.ink ? '#000000' : colourIn(inks, s.ink)}"/>`,
  )
  const marks = options.marks
    ? marksOf(width / pxPerMm, height / pxPerMm, options.bleed).map(
        ([a, b]) =>
          `<path d="M${n(a.x * pxPerMm)} ${n(a.y * pxPerMm)}L${n(b.x * pxPerMm)} ${n(b.y * pxPerMm)}" stroke="#000000" stroke-width="${n(pxPerMm * 0.09)}"/>`,
      )
    : []
  const svg =
    `<svg xmlns="http://www.w3.org/2000/svg" width="${n(width + 2 * rim)}" height="${n(height + 2 * rim)}" viewBox="${n(-rim)} ${n(-rim)} ${n(width + 2 * rim)} ${n(height + 2 * rim)}">` +
    `<clipPath id="bleed"><rect x="${n(-bleed)}" y="${n(-bleed)}" width="${n(width + 2 * bleed)}" height="${n(height + 2 * bleed)}"/></clipPath>` +
    `<g clip-path="url(#bleed)">${shapes.join('')}</g>${marks.join('')}</svg>`
  return { svg, box: { minX: -rim, minY: -rim, maxX: width + rim, maxY: height + rim } }
}
