import { performance as P } from 'node:perf_hooks'
import { newDrawing, newLinesLayer } from '#core/model/create'
import { openInk } from '#core/ink/open-ink'
import { outlineOf } from '#core/outline/expand'
import { atOnce } from '#core/turns'
import { strokes } from './strokes'
const side = (n: number) => Math.ceil(45 * Math.sqrt(n))
const n = 2000
const lines = strokes(n)
const d = newDrawing('x', { layers: [newLinesLayer('L', lines)], page: { width: side(n), height: side(n), unit: 'px', pxPerMm: 6 } })
let t = P.now()
const lap = (w: string) => { console.log(w, (P.now() - t).toFixed(0)); t = P.now() }
const tol = d.settings.shapes.tolerance
for (const l of lines) outlineOf(l, tol)
lap('outlines')
const s = openInk({ ...d, settings: { ...d.settings, tuck: process.argv[2] === 'tuck' } })
atOnce(s.clipped()); lap('outlines again, stack ' + process.argv[2])
atOnce(s.paper(0)); lap('paper: union of all ink + faces')
atOnce(s.shapes()); lap('shapes: simplify')
