import { performance as P } from 'node:perf_hooks'
import { createHash } from 'node:crypto'
import { newDrawing, newLinesLayer } from '#core/model/create'
import { openInk } from '#core/ink/open-ink'
import { atOnce } from '#core/turns'
import { documentOf, SCENARIO } from '../demo/scenario'
import { strokes } from './strokes'
const side = (n: number) => Math.ceil(45 * Math.sqrt(n))
const make = (n: number, tuck: boolean) => { const d = newDrawing('x', { layers: [newLinesLayer('L', strokes(n))], page: { width: side(n), height: side(n), unit: 'px', pxPerMm: 6 } }); return { ...d, settings: { ...d.settings, tuck } } }
for (const [name, d] of [['demo0', documentOf(SCENARIO[0]!(), null)], ['demo4', documentOf(SCENARIO[4]!(), null)], ['500', make(500, true)], ['2000 untucked', make(2000, false)], ['2000', make(2000, true)]] as const) {
  for (let i = 0; i < 2; i++) {
  const t = P.now()
  const s = openInk(d)
  const r = atOnce(s.shapes())
  console.log(name, (P.now() - t).toFixed(0), 'ms', r.nodesBefore, r.nodesAfter, r.shapes.length, r.failed.length, createHash('md5').update(JSON.stringify(r.shapes.map((x) => x.contours))).digest('hex').slice(0, 8))
  }
}
