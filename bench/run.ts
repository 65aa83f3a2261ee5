import { writeFileSync } from 'node:fs'
import { cpus } from 'node:os'
import { handRows } from './browser'
import { inkRows } from './ink'
import { nodeRows } from './nodes'
import { regionRows } from './regions'
import { report } from './report'
import { crowdRows } from './crowds'
import { stepRows } from './saved-steps'
import { sketchRows } from './sketches'
import { growth, speedRows } from './speed'

const started = new Date()
const speed = await speedRows()
const nodes = nodeRows()
const grown = growth()
const ink = inkRows()
const regions = regionRows()
const hand = await handRows()
const steps = await stepRows()
const sketches = await sketchRows()
const crowd = await crowdRows()
const text = report({ started, machine: `${cpus().length} x ${cpus()[0]?.model ?? 'unknown'}, Node ${process.version}`, speed, nodes, growth: grown, ink, regions, hand, steps, sketches, crowd })
writeFileSync('docs/benchmarks.md', text)
process.stdout.write(text)
