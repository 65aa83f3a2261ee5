import type { Page } from './model'

/** A size of paper or label in the trade, mm, upright. */
export interface PaperSize {
  id: string
  kind: 'paper' | 'label'
  title: string
  width: number
  height: number
}

const SIZES: readonly PaperSize[] = [
  { id: 'packet', kind: 'label', title: 'Seed packet', width: 87, height: 120 },
  { id: 'a6', kind: 'paper', title: 'A6, postcard', width: 105, height: 148 },
  { id: 'a5', kind: 'paper', title: 'A5', width: 148, height: 210 },
  { id: 'a4', kind: 'paper', title: 'A4', width: 210, height: 297 },
  { id: 'a3', kind: 'paper', title: 'A3', width: 297, height: 420 },
  { id: 'b5', kind: 'paper', title: 'B5', width: 176, height: 250 },
  { id: 'letter', kind: 'paper', title: 'Letter', width: 215.9, height: 279.4 },
  { id: 'tabloid', kind: 'paper', title: 'Tabloid', width: 279.4, height: 431.8 },
  { id: 'comic', kind: 'paper', title: 'Comic page', width: 170, height: 260 },
  { id: 'square', kind: 'paper', title: 'Square', width: 120, height: 120 },
  { id: 'jar', kind: 'label', title: 'Jar label', width: 50, height: 70 },
  { id: 'tag', kind: 'label', title: 'Plant tag', width: 25, height: 120 },
  { id: 'card', kind: 'label', title: 'Business card', width: 55, height: 85 },
  { id: 'sticker', kind: 'label', title: 'Sticker', width: 50, height: 50 },
]

/** Every size upright and across, as it is chosen. */
export const PAGE_CHOICES: readonly PaperSize[] = SIZES.flatMap((s) => [
  s,
  ...(s.width === s.height
    ? []
    : [{ id: `${s.id} across`, kind: s.kind, title: `${s.title} across`, width: s.height, height: s.width }]),
])

/** Pixels to a mm of a new page. */
const PX_PER_MM = 6

/** Smallest side of a page, mm. */
export const SMALLEST_SIDE = 1
/** Largest side of a page, mm. */
export const LARGEST_SIDE = 5000

/** A page of some width and height in mm. */
export const pageInMm = (width: number, height: number, pxPerMm = PX_PER_MM): Page => ({
  width: width * pxPerMm,
  height: height * pxPerMm,
  unit: 'mm',
  pxPerMm,
})

/** A page of the proportions of a picture, its longer side that of a usual page. */
export function pageLike({ width, height }: { width: number; height: number }, longest = 120): Page {
  const k = longest / Math.max(width, height)
  const tenths = (v: number): number => Math.max(SMALLEST_SIDE, Math.round(v * k * 10) / 10)
  return pageInMm(tenths(width), tenths(height))
}
