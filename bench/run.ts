import { readFileSync, writeFileSync } from 'node:fs'
import { cpus } from 'node:os'
import { againRows } from './again'
import { besideRows } from './beside'
import { handRows } from './browser'
import { classRows } from './class'
import { crowdRows } from './crowds'
import { inkRows } from './ink'
import { nodeRows } from './nodes'
import { regionRows } from './regions'
import { frontRows } from './fronts'
import type { Measured } from './report'
import { report } from './report'
import { stepRows } from './saved-steps'
import { sketchRows } from './sketches'
import { growth, speedRows } from './speed'
import { whatGotWorse, withTables } from './tables'

const FILE = 'docs/benchmarks.md'

/** What can be run alone. */
const PARTS: { [K in Exclude<keyof Measured, 'started' | 'machine'>]: () => Promise<Measured[K]> | Measured[K] } = {
  speed: speedRows,
  nodes: nodeRows,
  growth,
  ink: inkRows,
  fronts: frontRows,
  regions: regionRows,
  hand: handRows,
  steps: stepRows,
  sketches: sketchRows,
  again: againRows,
  beside: besideRows,
  class: classRows,
  crowd: crowdRows,
}
type Part = keyof typeof PARTS

const asked = process.argv.slice(2)
const wanted = asked.filter((a) => a !== '--write')
const unknown = wanted.find((a) => !Object.hasOwn(PARTS, a))
if (unknown !== undefined) {
  process.stderr.write(
    `There is no part "${unknown}". Usage: npm run bench -- [PART ...] [--write]\nParts: ${Object.keys(PARTS).join(', ')}. With --write the figures of these parts are put into ${FILE}.\n`,
  )
  process.exit(2)
}

const measured: Measured = {
  started: new Date(),
  machine: `${cpus().length} x ${cpus()[0]?.model ?? 'unknown'}, Node ${process.version}`,
  speed: [],
  nodes: [],
  growth: [],
  ink: [],
  fronts: [],
  regions: [],
  hand: [],
  steps: [],
  sketches: [],
  again: [],
  beside: [],
  class: [],
  crowd: { lines: 0, firstInk: 0, allInk: 0, frames: [] },
}
for (const part of (wanted.length ? wanted : Object.keys(PARTS)) as Part[])
  Object.assign(measured, { [part]: await PARTS[part]() })

const before = readFileSync(FILE, 'utf8')
const text = report(measured)
if (!wanted.length) writeFileSync(FILE, text)
else if (asked.includes('--write')) writeFileSync(FILE, withTables(before, text))
process.stdout.write(text)
const worse = whatGotWorse(before, text)
process.stdout.write(
  worse.length
    ? `\nWorse than in ${FILE} by over a quarter:\n${worse.map((w) => `- ${w}\n`).join('')}`
    : `\nNothing is worse than in ${FILE} by over a quarter.\n`,
)
