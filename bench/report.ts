import type { HandRow } from './browser'
import type { AgainRow } from './again'
import type { BesideRow } from './beside'
import { THREADS } from './beside'
import type { ClassRow } from './class'
import type { CrowdRows } from './crowds'
import type { InkRow } from './ink'
import type { FrontRow } from './fronts'
import type { RegionRow } from './regions'
import type { NodeRow } from './nodes'
import type { StepRow } from './saved-steps'
import type { SketchRow } from './sketches'
import type { Growth, SpeedRow } from './speed'

export interface Measured {
  started: Date
  machine: string
  speed: SpeedRow[]
  nodes: NodeRow[]
  growth: Growth[]
  ink: InkRow[]
  fronts: FrontRow[]
  regions: RegionRow[]
  hand: HandRow[]
  steps: StepRow[]
  sketches: SketchRow[]
  again: AgainRow[]
  beside: BesideRow[]
  class: ClassRow[]
  crowd: CrowdRows
}

const ms = (v: number): string => (v < 100 ? v.toFixed(1) : v.toFixed(0))

/** Exponent of growth between two sizes. */
const exponent = (a: number, b: number, factor: number): string => (Math.log(b / a) / Math.log(factor)).toFixed(2)

export function report({
  started,
  machine,
  speed,
  nodes,
  growth,
  ink,
  fronts,
  regions,
  hand,
  steps,
  sketches,
  again,
  beside,
  class: pupils,
  crowd,
}: Measured): string {
  const lines = [
    '# Benchmarks',
    '',
    `Written by \`npm run bench\` on ${started.toISOString().slice(0, 10)} (${machine}). Machines are noisy: both sides of a row are timed in`,
    'turn in one run, times are medians, and the ratio is what counts.',
    '',
    '## Speed',
    '',
    '| work | against | ours, ms | theirs, ms | times as fast | with |',
    '| --- | --- | ---: | ---: | ---: | --- |',
    ...speed.map(
      (r) =>
        `| ${r.work} | ${r.rival} | ${ms(r.ours)} | ${ms(r.theirs)} | ${(r.theirs / r.ours).toFixed(2)} | ${r.notes} |`,
    ),
    '',
    '## Nodes at equal measured deviation',
    '',
    '| curves | against | deviation, px | ours | theirs | fewer |',
    '| --- | --- | ---: | ---: | ---: | ---: |',
    ...nodes.map(
      (r) =>
        `| ${r.curves} | ${r.rival} | ${r.deviation} | ${r.ours} | ${r.theirs} | ${(100 * (1 - r.ours / r.theirs)).toFixed(0)} % |`,
    ),
    '',
    '## Growth',
    '',
    '| lines | expand, ms | exponent | unite, ms | exponent |',
    '| ---: | ---: | ---: | ---: | ---: |',
    ...growth.map((g, i) => {
      const before = growth[i - 1]
      const of = (key: 'expand' | 'unite'): string =>
        before ? exponent(before[key], g[key], g.lines / before.lines) : ''
      return `| ${g.lines.toLocaleString('en')} | ${ms(g.expand)} | ${of('expand')} | ${ms(g.unite)} | ${of('unite')} |`
    }),
    '',
    '## Shapes that follow an edit',
    '',
    'Strokes over each other on one page, in one ink, united and simplified. *First* is from scratch, *again* with nothing changed, *one line',
    'changed* from the patch to the new contours: a node dragged by up to 10 px, or a width stop set. Nearly all ends lie on some other',
    'line here and are tucked. *Proof* is what its findings take after that.',
    '',
    '| lines | contours | first, ms | again, ms | one line changed: median, ms | 95 % | times as fast as first | Proof: median | 95 % |',
    '| ---: | ---: | ---: | ---: | ---: | ---: | ---: | ---: | ---: |',
    ...ink.map(
      (r) =>
        `| ${r.lines.toLocaleString('en')} | ${r.contours.toLocaleString('en')} | ${ms(r.first)} | ${r.again.toFixed(2)} | ${ms(r.median)} | ${ms(r.p95)} | ${(r.first / r.median).toFixed(0)} | ${ms(r.proof)} | ${ms(r.proofP95)} |`,
    ),
    '',
    'The same where closed forms lie in front of others, each pair decided by itself, and where lines stand on both sides of an axis.',
    '',
    '| drawing | first, ms | one line changed: median, ms | 95 % | Proof: median | 95 % |',
    '| --- | ---: | ---: | ---: | ---: | ---: |',
    ...fronts.map(
      (r) => `| ${r.drawing} | ${ms(r.first)} | ${ms(r.median)} | ${ms(r.p95)} | ${ms(r.proof)} | ${ms(r.proofP95)} |`,
    ),
    '',
    '## Regions and fills that follow an edit',
    '',
    'The same strokes in one ink; gaps of up to 2 px are bridged, and every region of 4 px squared or more is filled. *Regions* are made once',
    'the ink is united; *preview* is the region under the pointer; *one line changed* is from the patch to the shapes of all fills.',
    '',
    '| lines | regions | fills | regions, ms | preview: median, ms | 95 % | one line changed: median, ms | 95 % |',
    '| ---: | ---: | ---: | ---: | ---: | ---: | ---: | ---: |',
    ...regions.map(
      (r) =>
        `| ${r.lines.toLocaleString('en')} | ${r.regions.toLocaleString('en')} | ${r.fills.toLocaleString('en')} | ${ms(r.first)} | ${r.preview.toFixed(2)} | ${r.previewP95.toFixed(2)} | ${ms(r.median)} | ${ms(r.p95)} |`,
    ),
    '',
    '## In the browser, with 2,000 lines',
    '',
    'Pointer to ink in headless Chromium that draws in software, ms. *Drawing* counts from when the application hears of the pointer to',
    'the end of the drawing of that frame, which has to stay under a frame (16.7); *whole* counts from when the pointer moved, so with the',
    'wait for the next frame, which alone is up to 16.7.',
    '',
    '| work | events | drawing: median | 95 % | worst | whole: median | 95 % | worst |',
    '| --- | ---: | ---: | ---: | ---: | ---: | ---: | ---: |',
    ...hand.map(
      (r) =>
        `| ${r.work} | ${r.samples} | ${[r.drawing, r.whole]
          .flatMap((s) => [s.median, s.p95, s.worst])
          .map(ms)
          .join(' | ')} |`,
    ),
    '',
    'A step of 200 pen strokes of 600 samples: what it takes in the journal, and the longest time between two frames while it is done, ms.',
    '',
    '| 200 strokes | kB | longest frame |',
    '| --- | ---: | ---: |',
    ...steps.map((r) => `| ${r.work} | ${(r.bytes / 1000).toFixed(1)} | ${ms(r.worst)} |`),
    '',
    ...sketchLines(sketches),
    '',
    'The same strokes opened for the first time in a browser, and opened again with what that kept: from entering Shapes, as soon as the page',
    'is there, to their nodes, and to what Proof finds, ms.',
    '',
    '| lines | first: shapes | Proof | again: shapes | Proof | kept, MB |',
    '| ---: | ---: | ---: | ---: | ---: | ---: |',
    ...again.map(
      (r) =>
        `| ${r.lines.toLocaleString('en')} | ${[r.first.shapes, r.first.proof, r.again.shapes, r.again.proof].map(ms).join(' | ')} | ${r.kept.toFixed(1)} |`,
    ),
    '',
    'First shapes of the same strokes worked out band by band in several threads (`npm run cli`), ms, the start of the threads included. Of a',
    'machine with two processors more than two threads cannot be quicker.',
    '',
    `| lines in bands | ${THREADS.map((n) => (n === 1 ? '1 thread' : `${n} threads`)).join(' | ')} |`,
    `| ---: |${THREADS.map(() => ' ---: |').join('')}`,
    ...beside.map((r) => `| ${r.lines.toLocaleString('en')} | ${r.times.map((t) => ms(t.ms)).join(' | ')} |`),
    '',
    'Thirty seats at once, each with a drawing of 200 lines and an edit a second, ms:',
    '',
    '| a class | median | 95 % | worst |',
    '| --- | ---: | ---: | ---: |',
    ...pupils.map((r) => `| ${r.work} | ${[r.spread.median, r.spread.p95, r.spread.worst].map(ms).join(' | ')} |`),
    '',
    `${crowd.lines} lines: opened to first ink ${ms(crowd.firstInk)} ms, to all ink ${ms(crowd.allInk)} ms. Time between two frames, ms:`,
    '',
    '| 10,000 lines | median | 95 % | worst |',
    '| --- | ---: | ---: | ---: |',
    ...crowd.frames.map(
      (r) => `| ${r.work} | ${[r.spread.median, r.spread.p95, r.spread.worst].map(ms).join(' | ')} |`,
    ),
    '',
  ]
  return lines.join('\n')
}

/** What scans take, as lines of the report. */
export const sketchLines = (rows: readonly SketchRow[]): string[] => [
  'A scan as a sketch: until it is seen, until its lines are found, the time between two frames while a hand moves over it meanwhile, ms;',
  'and the most memory that browser and server took beyond an empty drawing, MB.',
  '',
  '| megapixels | seen | lines found | lines | frames: 95 % | worst | memory |',
  '| ---: | ---: | ---: | ---: | ---: | ---: | ---: |',
  ...rows.map(
    (r) =>
      `| ${r.megapixels.toFixed(1)} | ${ms(r.seen)} | ${ms(r.found)} | ${r.lines} | ${ms(r.frame)} | ${ms(r.worst)} | ${r.memory.toFixed(0)} |`,
  ),
]
