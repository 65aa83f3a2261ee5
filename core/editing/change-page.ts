import type { Box } from '../geometry/bounds'
import { emptyBox, grown, isEmptyBox, uniteBoxes } from '../geometry/bounds'
import { boxOfPath } from '../geometry/known'
import { mapNode } from '../geometry/path'
import type { Vec } from '../geometry/point'
import type { Amendment, Drawing, Hanging, Line, Page, Retouch, Shape } from '../model/model'
import { mappedFill } from './fills-along'
import { movedLine, movedShape } from './move'

/** Bounds of all visible ink, or of the sketches where there is none, px; null where there is nothing. */
export function boundsOf(drawing: Drawing): Box | null {
  let ink = emptyBox()
  let pencil = emptyBox()
  for (const layer of drawing.layers) {
    if (!layer.visible) continue
    if (layer.kind === 'sketch')
      for (const s of layer.items)
        pencil = uniteBoxes(pencil, { minX: s.x, minY: s.y, maxX: s.x + s.width, maxY: s.y + s.height })
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
  if (draft.amendments) draft.amendments = draft.amendments.map((a) => movedAmendment(a, d))
}

/** An amendment that knows places on the page. */
function movedAmendment(a: Amendment, d: Vec): Amendment {
  switch (a.kind) {
    case 'retouch':
      return movedRetouch(a, d)
    case 'mirror':
      return { ...a, from: moved(a.from, d), to: moved(a.to, d) }
    case 'repeat':
      return { ...a, about: moved(a.about, d) }
    default:
      return a
  }
}

function movedRetouch(r: Retouch, d: Vec): Retouch {
  const there = (p: Vec): Vec => moved(p, d)
  return {
    ...r,
    at: there(r.at),
    to: r.to && typeof r.to === 'object' ? mapNode(r.to, there) : r.to,
    ...(r.by && {
      by: { ...r.by, ...(r.by.was && { was: r.by.was.map((n) => mapNode(n, there)) as Hanging['was'] }) },
    }),
  }
}

const moved = (p: Vec, d: Vec): Vec => ({ x: p.x + d.x, y: p.y + d.y })
