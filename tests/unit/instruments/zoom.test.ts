import { describe, expect, it } from 'vitest'
import type { Line } from '#core/model/model'
import type { Path } from '#core/geometry/path'
import { mapPath } from '#core/geometry/path'
import type { MarkRef } from '~/canvas/marks'
import { Bow } from '~/instruments/bow'
import { Caliper } from '~/instruments/caliper'
import { Figure } from '~/instruments/figure'
import { Freehand } from '~/instruments/freehand'
import type { Instrument } from '~/instruments/instrument'
import type { Worktop } from '~/instruments/worktop'
import { Nodes } from '~/instruments/nodes'
import { Pen } from '~/instruments/pen'
import { Select } from '~/instruments/select'
import { Snip } from '~/instruments/snip'
import { hand, plainLine, TestWorktop } from '../support/desk'

/** A hand in screen px over a page that is seen at a zoom. */
class ZoomedHand {
  constructor(
    readonly worktop: TestWorktop,
    private readonly tool: Instrument,
  ) {}

  /** What lies under the hand when it presses. */
  mark: MarkRef | null = null

  private at(x: number, y: number, mark: MarkRef | null = null) {
    const z = this.worktop.magnified
    const on = hand(x, y, { mark })
    return { ...on, at: { x: x / z, y: y / z }, samples: on.samples.map((s) => ({ ...s, at: { x: x / z, y: y / z } })) }
  }

  drag(...way: [number, number][]): void {
    this.tool.press?.(this.at(...way[0]!, this.mark))
    for (const p of way.slice(1)) this.tool.move?.(this.at(...p))
    this.tool.release?.(this.at(...way.at(-1)!))
  }

  click = (x: number, y: number): void => this.drag([x, y])
}

const scaledTo = (k: number, path: Path): Path =>
  mapPath(path, (p) => ({ x: Math.round(p.x * k * 100) / 100 + 0, y: Math.round(p.y * k * 100) / 100 + 0 }))

/** What gestures do to lines, in screen px. */
function resultAt(
  zoom: number,
  make: new (w: Worktop) => Instrument,
  lines: readonly Line[],
  act: (h: ZoomedHand) => void,
  set: (w: TestWorktop) => void = () => undefined,
): unknown {
  const small = lines.map((l, i): Line => ({
    ...l,
    id: `line ${i}`,
    path: mapPath(l.path, (p) => ({ x: p.x / zoom, y: p.y / zoom })),
    weight: { ...l.weight, size: l.weight.size / zoom },
  }))
  const worktop = new TestWorktop(small)
  worktop.magnified = zoom
  set(worktop)
  const tool = new make(worktop)
  act(new ZoomedHand(worktop, tool))
  tool.key?.('Enter', false)
  const frame = tool
    .marks()
    .flatMap((m) => ('corners' in m ? [m.corners.map((c) => [Math.round(c.x * zoom), Math.round(c.y * zoom)])] : []))
  return {
    frame,
    labels: worktop.labels,
    chosen: worktop.selection().map((id) => worktop.lines.findIndex((l) => l.id === id)),
    lines: worktop.lines.map((l) => ({
      path: scaledTo(zoom, l.path),
      stops: l.weight.stops.map((s) => [s.at, s.left, s.right].map((v) => Math.round(v * 1e3) / 1e3)),
      snips: l.snips.map((s) => [s.from, s.to].map((v) => Math.round(v * 1e4) / 1e4)),
    })),
  }
}

const cross = [
  plainLine({ x: 20, y: 100 }, { x: 220, y: 100 }, 10),
  plainLine({ x: 120, y: 20 }, { x: 120, y: 180 }, 10),
]
const twoStops: Line = {
  ...cross[0]!,
  weight: { ...cross[0]!.weight, stops: [0.5, 0.53].map((at) => ({ at, left: 1, right: 1 })) },
}
const chosen = (w: TestWorktop): void => w.select(['line 0'])

const CASES: [
  string,
  new (w: Worktop) => Instrument,
  readonly Line[],
  (h: ZoomedHand) => void,
  ((w: TestWorktop) => void)?,
][] = [
  [
    'the pen, snapping to an end within reach',
    Pen,
    cross,
    (h) => (h.click(226, 104), h.click(300, 160), h.click(340, 60)),
  ],
  [
    'a bow, from a chord that joins an end',
    Bow,
    cross,
    (h) => (h.drag([223, 103], [260, 130], [320, 150]), h.drag([270, 127], [280, 150])),
  ],
  ['a freehand slip, which is no line', Freehand, [], (h) => h.drag([50, 50], [51, 50], [51.5, 50.5])],
  ['a figure too small to be one', Figure, [], (h) => h.drag([50, 50], [52, 52])],
  ['choosing a line from 6 px off, and its frame', Select, cross, (h) => h.click(60, 106)],
  ['a node dragged', Nodes, cross, (h) => h.drag([60, 104], [60, 120], [64, 130]), chosen],
  ['a figure just large enough', Figure, [], (h) => h.drag([50, 50], [55, 55])],
  ['the end of a line, taken from 8 px off', Caliper, cross, (h) => h.drag([27, 104], [27, 112], [27, 118]), chosen],
  [
    'a chosen stop beside another, 6 px apart',
    Caliper,
    [twoStops],
    (h) => ((h.mark = { kind: 'stop', line: 'line 0', index: 0 }), h.drag([123, 100], [123, 110], [123, 120])),
    (w) => (chosen(w), w.chooseStops([{ line: 'line 0', index: 1 }])),
  ],
  ['a stop pulled out', Caliper, cross, (h) => h.drag([70, 95], [70, 85], [70, 80]), chosen],
  ['a stretch snipped from 5 px off', Snip, cross, (h) => h.click(180, 105)],
]

describe('a hand on the screen does the same at every zoom', () => {
  it.each(CASES)('%s', (_, make, lines, act, set) => {
    const plain = resultAt(1, make, lines, act, set)
    for (const zoom of [4, 0.25]) expect(resultAt(zoom, make, lines, act, set), `zoom ${zoom}`).toEqual(plain)
  })
})
