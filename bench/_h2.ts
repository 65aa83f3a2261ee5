import { performance as P } from 'node:perf_hooks'
import { straight } from '#core/geometry/cubic'
import { arrange } from '#core/arrangement/arrange'
import { planarMap } from '#core/arrangement/planar-map'
import { visitFaces } from '#core/arrangement/winding'
import { loopOf } from '#core/arrangement/loop'
import { contoursOfFaces } from '#core/arrangement/resolve'
const n = 200, reach = n * 8
const rect = (x0: number, y0: number, x1: number, y1: number) => { const c = [{ x: x0, y: y0 }, { x: x1, y: y0 }, { x: x1, y: y1 }, { x: x0, y: y1 }]; return c.map((p, i) => straight(p, c[(i + 1) % 4]!)) }
const outlines = Array.from({ length: n }, (_, i) => 4 + 8 * i).flatMap((at) => [rect(at - 0.5, 0, at + 0.5, reach), rect(0, at - 0.5, reach, at + 0.5)])
for (let round = 0; round < 4; round++) {
let t = P.now()
const lap = (w: string) => { console.log(w, (P.now() - t).toFixed(0)); t = P.now() }
const groups = outlines.map((c) => [loopOf(c)])
const a = arrange(groups, 0.05)!
lap('arrange ' + a.edges.count)
const m = planarMap(a)
lap('planar ' + m.faces + ' chains ' + m.chains.count)
const f = new Uint8Array(m.faces)
visitFaces(m, groups.length, (face, { covered }) => (f[face] = covered > 0 ? 1 : 0))
lap('visit')
const out = contoursOfFaces(m, f, 0.05)
lap('contours ' + out.length)
}
