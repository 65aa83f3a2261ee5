import { newDrawing, newLinesLayer, newLine, evenWeight } from '#core/model/create'
import { makeEdit } from '#core/document/edits'
import type { Drawing, Line, Amendment } from '#core/model/model'
import { openInk } from '../core/ink/open-ink'
import { atOnce } from '../core/turns'
import { change, pageFor } from './ink'
import { seeded, strokes } from './strokes'

for (const withFronts of [false, true]) {
  const r = seeded(4)
  const page = pageFor(2000)
  const side = page.width
  const closed: Line[] = []
  const amendments: Amendment[] = []
  for (let i = 0; i < 200; i++) {
    const [x, y] = [60 + r() * (side - 160), 60 + r() * (side - 160)]
    const ring = (id: string, cx: number, cy: number): Line =>
      newLine({ closed: true, nodes: [0, 1, 2, 3, 4].map((k) => { const a = k * 1.2566; const at = { x: cx + 40 * Math.cos(a), y: cy + 30 * Math.sin(a) }; return { at, in: { x: at.x + 12 * Math.sin(a), y: at.y - 9 * Math.cos(a) }, out: { x: at.x - 12 * Math.sin(a), y: at.y + 9 * Math.cos(a) }, joint: 'smooth' as const } }) }, { id, weight: { ...evenWeight(4), stops: [{ at: 0, left: 1, right: 1 }, { at: 0.5, left: 1.4, right: 0.7 }] } })
    closed.push(ring(`a${i}`, x, y), ring(`b${i}`, x + 30, y + 15))
    amendments.push({ id: `f${i}`, kind: 'front', front: [i % 2 ? `a${i}` : `b${i}`], back: [i % 2 ? `b${i}` : `a${i}`] })
  }
  const blank = newDrawing('B', { layers: [newLinesLayer('Ink', [...strokes(1600), ...closed])], ...(withFronts && { amendments }) })
  let drawing: Drawing = { ...blank, page }
  const s = openInk(drawing)
  const t0 = performance.now()
  const res = atOnce(s.shapes())
  const first = performance.now() - t0
  const times: number[] = []
  for (let i = 0; i < 60; i++) {
    const { drawing: next, edit } = makeEdit(drawing, 'x', (d) => { const items = d.layers[0]!.items as Line[]; const k = i % 2 ? 1600 + Math.floor(r() * 400) : Math.floor(r() * 1600); change(items[k]!, r) })!
    drawing = next
    const t = performance.now()
    s.apply(edit.patches)
    atOnce(s.shapes())
    if (i >= 10) times.push(performance.now() - t)
  }
  times.sort((a, b) => a - b)
  console.log(withFronts, 'first', Math.round(first), 'median', times[25]!.toFixed(1), 'p95', times[47]!.toFixed(1), 'waits', res.waiting)
}
