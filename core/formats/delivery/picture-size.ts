import type { Page } from '../../model/model'
import type { DeliverySettings } from './settings'
import { LARGEST_PICTURE } from './settings'

export interface PictureSize {
  /** px of the picture */
  width: number
  height: number
  /** Dots to a px of the page. */
  scale: number
  /** Dots to an inch of the page at its final size. */
  dpi: number
}

const MM_PER_INCH = 25.4

/** How many dots a picture of a page has: as the settings say, at most 20,000 a side, one at least. */
export function pictureSize(
  { width, height, pxPerMm }: Page,
  { by, dpi, side }: DeliverySettings['picture'],
): PictureSize {
  const longer = Math.max(width, height)
  const wanted = by === 'dpi' ? dpi / MM_PER_INCH / pxPerMm : side / longer
  const scale = Math.min(wanted, LARGEST_PICTURE / longer)
  const dots = (v: number): number => Math.max(1, Math.round(v * scale))
  return { width: dots(width), height: dots(height), scale, dpi: scale * pxPerMm * MM_PER_INCH }
}
