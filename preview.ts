import { writeFileSync } from 'node:fs'
import { Resvg } from '@resvg/resvg-js'
import { SCENARIO, documentOf } from './demo/scenario'
import { inkShapes } from './core/shapes/ink-shapes'
import { writeSvg } from './core/formats/svg/write-svg'
for (const make of SCENARIO) { const d = documentOf(make(), null); const t=performance.now(); const svg = writeSvg(d, { content: 'outlines', shapes: inkShapes(d, 0.05) })
console.log(d.name, d.layers.reduce((n,l)=>n+l.items.length,0), (performance.now()-t).toFixed(0)+'ms')
writeFileSync(`/tmp/${d.name.split(' ')[0]}.png`, new Resvg(svg, { background: '#fffdf8', fitTo: { mode: 'width', value: 900 } }).render().asPng()) }
