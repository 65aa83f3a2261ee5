import { colourIn } from '#core/model/inks'
import type { PictureOrder } from '../../core/formats/delivery/deliver'
import { pathData, short } from '../../core/geometry/path'

/** What is drawn for a picture as an SVG whose px are its dots. */
export function pictureSvg({
  shapes,
  drawing,
  width,
  height,
}: Pick<PictureOrder, 'shapes' | 'drawing' | 'width' | 'height'>): string {
  const { page, inks } = drawing
  const paths = shapes.map(
    (s) =>
      `<path d="${s.contours.map((c) => pathData({ ...c, closed: true }, 4)).join('')}" fill="${colourIn(inks, s.ink)}"/>`,
  )
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="0 0 ${short(page.width, 4)} ${short(page.height, 4)}" preserveAspectRatio="none">${paths.join('')}</svg>`
}
