import { newDrawing, newLinesLayer } from '../core/drawing/create'
import { makeEdit } from '../core/drawing/edits'
import type { Line } from '../core/drawing/model'
import { openInk } from '../core/ink/open-ink'
import { atOnce } from '../core/turns'
import { HeldContours, SentContours } from '../app/workers/contour-book'
import { seeded, strokes } from './strokes'
const lines = 2000
let drawing = newDrawing('Crowded', { page: { width: 900, height: 620, unit: 'px', pxPerMm: 4 }, layers: [newLinesLayer('Lines', strokes(lines))] })
const s = openInk(drawing)
const sent = new SentContours(), held = new HeldContours()
let t = performance.now()
const r0 = atOnce(s.shapes())
console.log('first', performance.now() - t, r0.nodesAfter, r0.shapes.map((x) => x.contours.length), Math.max(...r0.shapes.flatMap((x) => x.contours.map((c) => c.nodes.length))))
held.take(structuredClone(sent.answer(r0)))
const r = seeded(9)
for (let i = 0; i < 25; i++) {
  const { drawing: next, edit } = makeEdit(drawing, 'x', (d) => {
    const line = (d.layers[0]!.items as Line[])[Math.floor(r() * lines)]!
    const n = line.path.nodes[1]!
    for (const p of [n.at, n.in, n.out]) if (p) Object.assign(p, { x: p.x + 6, y: p.y + 4 })
  })!
  drawing = next
  const T = [performance.now()]
  s.apply(edit.patches)
  const res = atOnce(s.shapes()); T.push(performance.now())
  const a = sent.answer(res); T.push(performance.now())
  const c = structuredClone(a); T.push(performance.now())
  const { result, drawn } = held.take(c); T.push(performance.now())
  if (i > 8) console.log(T.slice(1).map((x, k) => (x - T[k]!).toFixed(1)).join(' '), a.told.fresh.length, drawn[0]!.changed!.length, JSON.stringify(drawn[0]!.changed!.map((b) => [b.maxX - b.minX, b.maxY - b.minY].map(Math.round))))
}
