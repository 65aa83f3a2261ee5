import { unionShapes } from '#core/shapes/combine'
import { outlineOf } from '#core/outline/expand'
import { toPaths } from '#core/arrangement/contours'
import { inkyLine, seeded } from '../tests/unit/support/random-lines'
function randomShape(seed: number) {
  const r = seeded(seed); for (let i = 0; i < 8; i++) r()
  const contours = r() < 0.5 ? toPaths(outlineOf(inkyLine(1 + Math.floor(r() * 5000)), 0.05)) : [{ closed: true, nodes: Array.from({ length: 3 + Math.floor(r() * 6) }, () => ({ at: { x: r() * 160, y: r() * 160 }, in: null, out: null, joint: 'corner' as const })) }]
  return { id: String(seed), contours, ink: 'black', from: [] }
}
let n = 0
for (let i = 1; i <= 300 && n < 4; i++) {
  const a = randomShape(i) as any
  const once = unionShapes([a], { tolerance: 0.05 }), twice = unionShapes([a, a], { tolerance: 0.05 })
  if (JSON.stringify(once) !== JSON.stringify(twice)) { n++; console.log(i, once.length, twice.length, once.map((c) => c.nodes.length), twice.map((c) => c.nodes.length)); for (const [k, c] of once.entries()) for (const [m, p] of c.nodes.entries()) { const q = twice[k]?.nodes[m]; if (q && JSON.stringify(p) !== JSON.stringify(q)) { console.log(k, m, JSON.stringify(p), JSON.stringify(q)); break } } }
}
