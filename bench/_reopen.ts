import { newDrawing, newLinesLayer } from '#core/model/create'
import type { Drawing, Line } from '#core/model/model'
import { makeEdit } from '#core/document/edits'
import { openInk } from '../core/ink/open-ink'
import { atOnce } from '../core/turns'
import { seeded, strokes } from './strokes'
import { change, pageFor } from './ink'
import { SentContours } from '../app/workers/contour-book'
import { findingsIn } from '../core/proof/findings-of'
import { Book } from '../core/recall/book'
const lines = Number(process.argv[2] ?? 2000)
const blank = newDrawing('Bench', { layers: [newLinesLayer('Ink', strokes(lines))] })
let drawing: Drawing = { ...blank, page: pageFor(lines) }
const t = <T>(w: string, f: () => T): T => { const s = performance.now(); const r = f(); console.log(w, (performance.now() - s).toFixed(0)); return r }
let page: Uint8Array | null = null
const r = seeded(9)
for (let k = 0; k < 3; k++) {
  drawing = structuredClone(drawing)
  console.log('--- life', k)
  const book = new Book('x')
  if (page) t('read', () => book.read(page!))
  const s = openInk(drawing, book)
  t('outlines', () => (drawing.layers[0]!.items as Line[]).forEach((l) => s.outlineOf(l)))
  t('clipped', () => atOnce(s.clipped()))
  const res = t('shapes', () => atOnce(s.shapes()))
  const sent = new SentContours()
  t('answer', () => sent.answer(res, s.measureOf))
  t('proof', () => atOnce(findingsIn(s)))
  t('ready', () => atOnce(s.ready()))
  const { drawing: next, edit } = makeEdit(drawing, 'One line', (d) => change((d.layers[0]!.items as Line[])[Math.floor(r() * lines)]!, r))!
  s.apply(edit.patches)
  const res2 = t('after edit', () => atOnce(s.shapes()))
  console.log('fresh contours', t('answer', () => sent.answer(res2, s.measureOf)).told.fresh.length)
  t('proof', () => atOnce(findingsIn(s)))
  t('keep', () => s.keepWholes())
  page = t('written', () => book.rewritten())
  console.log('MB', page.length / 1e6)
  drawing = next
}
