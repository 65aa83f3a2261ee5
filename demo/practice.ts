import { mkdirSync, writeFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import type { TraceSample } from '#core/model/model'
import { writeInkml } from '../core/formats/inkml/write-inkml'
import { handOver } from './kit/hand'
import { SCENARIO } from './scenario'

/** Traces of the practice pen: a hand goes over lines of the scenario's drawings. */
const TRACES: readonly { name: string; drawing: string; layer: string; line: number }[] = [
  { name: 'radish-leaf', drawing: 'Radish bunch', layer: 'Leaves', line: 3 },
  { name: 'radish-root', drawing: 'Radish bunch', layer: 'Roots', line: 1 },
  { name: 'pod', drawing: 'Pea pod', layer: 'Pod', line: 1 },
  { name: 'tendril', drawing: 'Pea pod', layer: 'Leaf and tendril', line: 11 },
  { name: 'snail-shell', drawing: 'Garden snail', layer: 'Shell', line: 0 },
  { name: 'snail-back', drawing: 'Garden snail', layer: 'Body', line: 5 },
  { name: 'leaf-vein', drawing: 'Garden snail', layer: 'Leaf', line: 4 },
  { name: 'horn', drawing: 'Garden snail', layer: 'Horns', line: 3 },
]

const folder = fileURLToPath(new URL('../public/practice', import.meta.url))

/** The samples of a practice trace, as its generator makes them. */
export function practiceTraces(): { name: string; samples: TraceSample[] }[] {
  const drawings = SCENARIO.map((make) => make())
  return TRACES.map(({ name, drawing, layer, line }, i) => {
    const lines = drawings.find((d) => d.name === drawing)!.layers.find((l) => l.name === layer)!.lines
    return { name, samples: handOver(lines[line]!, 301 + i) }
  })
}

/** Writes the files that ship with the application. */
export function writePractice(): void {
  mkdirSync(folder, { recursive: true })
  for (const { name, samples } of practiceTraces()) {
    writeFileSync(`${folder}/${name}.inkml`, writeInkml([{ samples, device: 'practice', steadiness: 0, response: 1 }]))
  }
}

if (process.argv[1] === fileURLToPath(import.meta.url)) writePractice()
