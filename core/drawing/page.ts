import type { Box } from '../geometry/bounds'
import { emptyBox, grown, isEmptyBox, uniteBoxes } from '../geometry/bounds'
import { boxOfPath } from '../geometry/known'
import type { Drawing, Line, Page, Shape } from './model'
import { mappedFill } from './fills-along'
import { movedLine, movedShape } from './move'

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
  ...(s.width === s.height ? [] : [{ id: `${s.id} across`, kind: s.kind, title: `${s.title} across`, width: s.height, height: s.width }]),
])

/** Pixels to a mm of a new page. */
export const PX_PER_MM = 6

/** Smallest and largest side of a page, mm. */
export const SMALLEST_SIDE = 1
export const LARGEST_SIDE = 5000

export const pageInMm = (width: number, height: number, pxPerMm = PX_PER_MM): Page => ({ width: width * pxPerMm, height: height * pxPerMm, unit: 'mm', pxPerMm })

/** A page of the proportions of a picture, its longer side that of a usual page. */
export function pageLike({ width, height }: { width: number; height: number }, longest = 120): Page {
  const k = longest / Math.max(width, height)
  const tenths = (v: number): number => Math.max(SMALLEST_SIDE, Math.round(v * k * 10) / 10)
  return pageInMm(tenths(width), tenths(height))
}

/** Bounds of all visible ink, or of the sketches where there is none, px; null where there is nothing. */
export function boundsOf(drawing: Drawing): Box | null {
  let ink = emptyBox()
  let pencil = emptyBox()
  for (const layer of drawing.layers) {
    if (!layer.visible) continue
    if (layer.kind === 'sketch') for (const s of layer.items) pencil = uniteBoxes(pencil, { minX: s.x, minY: s.y, maxX: s.x + s.width, maxY: s.y + s.height })
    else for (const item of layer.items) ink = uniteBoxes(ink, boxOfItem(item))
  }
  return isEmptyBox(ink) ? (isEmptyBox(pencil) ? null : pencil) : ink
}

function boxOfItem(item: Line | Shape): Box {
  if (!('path' in item)) return item.contours.map(boxOfPath).reduce(uniteBoxes, emptyBox())
  const widest = Math.max(...item.weight.stops.map((s) => Math.max(s.left, s.right)))
  return grown(boxOfPath(item.path), (item.weight.size / 2) * widest)
}

/** Gives a draft another page, everything in it moved by (dx, dy) px so that it keeps its place in what is drawn. */
export function changePage(draft: Drawing, page: Page, dx = 0, dy = 0): void {
  draft.page = page
  if (!dx && !dy) return
  const d = { x: dx, y: dy }
  for (const layer of draft.layers) {
    if (layer.kind === 'lines') layer.items = layer.items.map((l) => ({ ...l, ...movedLine(l, d) }))
    else if (layer.kind === 'sketch') for (const s of layer.items) Object.assign(s, { x: s.x + dx, y: s.y + dy })
    else layer.items = layer.items.map((s) => movedShape(s, d))
  }
  const { light } = draft.settings
  if (light) light.at = { x: light.at.x + dx, y: light.at.y + dy }
  if (draft.fills) draft.fills = draft.fills.map((f) => mappedFill(f, (p) => moved(p, d)))
  if (draft.amendments) draft.amendments = draft.amendments.map((r) => (r.kind !== 'retouch' ? r : { ...r, at: moved(r.at, d), to: r.to && typeof r.to === 'object' ? { ...r.to, at: moved(r.to.at, d), in: r.to.in && moved(r.to.in, d), out: r.to.out && moved(r.to.out, d) } : r.to }))
}

const moved = (p: { x: number; y: number }, d: { x: number; y: number }): { x: number; y: number } => ({ x: p.x + d.x, y: p.y + d.y })
