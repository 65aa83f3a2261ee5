import type { Drawing, Page, Sketch } from '../model/model'
import { changePage } from './change-page'

/** A page and a sketch are as large as each other up to this share of the page's longer side: pages are rounded to tenths of a mm. */
const ALIKE = 0.005

/** Whether a page is as large as a sketch, and lies as it does: it took its size from it. */
function isPageOf({ width, height }: Page, s: Sketch): boolean {
  const off = ALIKE * Math.max(width, height)
  return !s.angle && [s.x, s.y, s.width - width, s.height - height].every((d) => Math.abs(d) <= off)
}

/**
 * Changes a sketch in a draft. A page that took its size from the sketch goes along, with all that is on it, so that no
 * strip of paper stays beside what is seen of the picture, nor anything of it off the page.
 */
export function changeSketchAndPage(draft: Drawing, id: string, change: (sketch: Sketch) => Sketch): void {
  for (const layer of draft.layers) {
    if (layer.kind !== 'sketch') continue
    const i = layer.items.findIndex((s) => s.id === id)
    if (i < 0) continue
    const was = layer.items[i]!
    const wasPage = isPageOf(draft.page, was)
    const now = change(was)
    layer.items[i] = now
    if (!wasPage || now.angle || isPageOf(draft.page, now)) return
    const { unit, pxPerMm } = draft.page
    const tenths = (px: number): number =>
      unit === 'mm' ? (Math.max(1, Math.round((px / pxPerMm) * 10)) / 10) * pxPerMm : Math.max(1, Math.round(px))
    changePage(draft, { ...draft.page, width: tenths(now.width), height: tenths(now.height) }, -now.x, -now.y)
    return
  }
}
