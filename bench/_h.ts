import { performance as P } from 'node:perf_hooks'
import { evenWeight, newLine } from '#core/model/create'
import { outlineOf } from '#core/outline/expand'
import { arrange } from '#core/arrangement/arrange'
import { planarMap } from '#core/arrangement/planar-map'
import { visitFaces } from '#core/arrangement/winding'
import { loopOf } from '#core/arrangement/loop'
import { resolveLoops, contoursOfFaces, resolveGroups } from '#core/arrangement/resolve'
import { LatticeUnion } from '#core/shapes/lattice-union'
import { latticeOf } from '#core/shapes/lattice'
import { atOnce } from '#core/turns'
const n = Number(process.argv[2] ?? 100)
const bend = Number(process.argv[3] ?? 0)
const hatch = (deg: number) => Array.from({ length: n }, (_, i) => {
  const a = (deg * Math.PI) / 180, c = Math.cos(a), s = Math.sin(a), L = 4 * n
  const p = (x: number, y: number) => ({ x: x * c - y * s + 1000, y: x * s + y * c + 1000 })
  const y = 4 * (i - n / 2) + 0.137
  const A = p(-L / 2, y), B = p(L / 2, y)
  const k = { in: null, out: null, joint: 'corner' as const }
  return newLine({ nodes: [{ ...k, at: A, out: bend ? p(-L / 6, y + bend * L) : null }, { ...k, at: B, in: bend ? p(L / 6, y - bend * L) : null }], closed: false }, { weight: evenWeight(1) })
})
const lines = [...hatch(0), ...hatch(67)]
const outlines = lines.map((l) => outlineOf(l, 0.05))
const contours = outlines.flat()
for (let round = 0; round < 2; round++) {
let t = P.now()
const lap = (w: string) => { console.log(w, (P.now() - t).toFixed(0)); t = P.now() }
const groups = [contours.map(loopOf)]
const a0 = 0; if (process.argv[4]) { const lat = new LatticeUnion(latticeOf((4 * n) / 16), 0.05); atOnce(lat.of(contours)); lap("lattice16"); continue }
const a = arrange(groups, 0.05)!
lap('arrange ' + a.edges.count)
const m = planarMap(a)
lap('planar ' + m.faces + ' chains ' + m.chains.count)
const f = new Uint8Array(m.faces)
visitFaces(m, 1, (face, { covered }) => (f[face] = covered > 0 ? 1 : 0))
lap('visit')
const out = contoursOfFaces(m, f, 0.05)
lap('contours ' + out.length)
const lat = new LatticeUnion(latticeOf((4 * n) / 32), 0.05)
atOnce(lat.of(contours))
lap('lattice')
}
