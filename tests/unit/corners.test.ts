import { describe, expect, it } from 'vitest'
import { evenWeight, newDrawing, newLine, newLinesLayer } from '#core/model/create'
import type { Corner, CornerStyle, Drawing, Line } from '#core/model/model'
import { areaOfCubics } from '#core/geometry/area'
import { patchesBetween } from '#core/document/patches-between'
import { cubicsOfPath } from '#core/geometry/path'
import { openInk } from '#core/ink/open-ink'
import { shapesOf } from '#core/ink/shapes-of'
import { findingsOf } from '#core/proof/findings-of'
import { atOnce } from '#core/turns'
import { FlatOutline } from './support/flat-outline'
import { seeded } from './support/random-lines'
import { polyline } from './support/paths'

type Point = [number, number]
const bar = (id: string, a: Point, b: Point, size: number): Line =>
  newLine(polyline(...a, ...b), { id, weight: evenWeight(size) })

/** A wide bar from the left and a thin one that goes down, their ends at (100, 100). */
const two = (gap = 0): Line[] => [
  bar('wide', [20, 100], [100, 100], 12),
  bar('thin', [100 + gap, 100], [100 + gap, 180], 4),
]
function drawn(lines: Line[], style?: CornerStyle, over: Partial<Corner> = {}): Drawing {
  const d = newDrawing('Corner', { layers: [newLinesLayer('Ink', lines)] })
  const corner: Corner = {
    id: 'c',
    kind: 'corner',
    ends: [
      { line: 'wide', end: 'last' },
      { line: 'thin', end: 'first' },
    ],
    style: style ?? 'caps',
    ...over,
  }
  return {
    ...d,
    settings: { ...d.settings, shapes: { ...d.settings.shapes, simplify: 0 } },
    ...(style && { amendments: [corner] }),
  }
}
const inked = (d: Drawing): ((x: number, y: number) => boolean) => {
  const region = new FlatOutline(shapesOf(d).shapes.flatMap((s) => s.contours.map(cubicsOfPath)))
  return (x, y) => region.winding({ x, y }) !== 0
}

/** Just inside the point at which the outer edges meet, (102, 94), and beyond both edges. */
const TIP: Point = [101.9, 94.1]
const BEYOND: Point[] = [
  [102.1, 97],
  [102.1, 103],
  [98, 93.9],
  [104, 100],
]

describe('a corner', () => {
  it('is found where two ends come together and nothing else, whichever way the lines run', () => {
    const corners = (lines: Line[]) => {
      const session = openInk(drawn(lines))
      return atOnce(session.joints()).corners.map((c) => c.ends.map((e) => `${e.line} ${e.end}`))
    }
    expect(corners(two())).toEqual([['wide last', 'thin first']])
    expect(corners(two(9))).toEqual([])
    expect(corners([...two(), bar('third', [160, 40], [100, 100], 4)])).toEqual([])
    expect(corners([...two(), bar('wall', [60, 100], [140, 100], 4)])).toEqual([])
  })

  it('pointed: the outer edges go on till they meet, with weights that differ, and nothing shows beyond them', () => {
    const at = inked(drawn(two(), 'pointed'))
    expect(at(...TIP)).toBe(true)
    expect(BEYOND.map((p) => at(...p))).toEqual([false, false, false, false])
    // Past its limit, in half-widths of the wider line, it is cut off: the tip is 1.05 of them away.
    expect(inked(drawn(two(), 'pointed', { limit: 1.2 }))(...TIP)).toBe(true)
    expect(inked(drawn(two(), 'pointed', { limit: 1 }))(...TIP)).toBe(false)
  })

  it('rounded: within the point, beyond the straight cut', () => {
    const at = inked(drawn(two(), 'rounded'))
    expect([at(...TIP), at(101.2, 96), ...BEYOND.map((p) => at(...p))]).toEqual([
      false,
      true,
      false,
      false,
      false,
      false,
    ])
  })

  it('tucked: the one in front is whole, the other keeps within it, either way round', () => {
    // The wide one's round cap reaches 6 px past the thin one.
    expect(inked(drawn(two(), 'tucked', { behind: 0 }))(105, 100)).toBe(false)
    expect(inked(drawn(two(), 'tucked', { behind: 1 }))(105, 100)).toBe(true)
  })

  it('crossing: both go on by the length chosen', () => {
    const at = inked(drawn(two(), 'crossing', { length: 2 }))
    expect([at(123, 100), at(131, 100), at(100, 91), at(100, 89)]).toEqual([true, false, true, false])
  })

  it('follows its lines, and is whole ends again when they part', () => {
    expect(inked(drawn(two(0.8), 'pointed'))(102.5, 94.1)).toBe(true)
    expect(shapesOf(drawn(two(30), 'pointed')).shapes).toEqual(shapesOf(drawn(two(30))).shapes)
  })

  it('follows what is decided about it', () => {
    const d = drawn(two(), 'pointed')
    const session = openInk(d)
    atOnce(session.shapes())
    for (const change of [
      { limit: 1 },
      { style: 'rounded' },
      { style: 'crossing', length: 3 },
      { style: 'crossing', length: 7 },
    ] as const) {
      const next = { ...d, amendments: [{ ...(d.amendments![0] as Corner), ...change }] }
      session.apply(patchesBetween(session.drawing, next))
      expect(atOnce(session.shapes()).shapes).toEqual(shapesOf(next).shapes)
      expect(shapesOf(next).shapes).not.toEqual(shapesOf(d).shapes)
    }
  })

  it('whose line is deleted waits, is told, and takes nothing', () => {
    const alone = drawn([two()[0]!], 'pointed')
    expect(shapesOf(alone).shapes).toEqual(shapesOf(drawn([two()[0]!])).shapes)
    expect(findingsOf(alone).map((f) => [f.kind, f.mend])).toContainEqual(['waiting', { do: 'forget', amendment: 'c' }])
  })

  it('takes what the drawing says where nothing is decided about it', () => {
    const d = drawn(two())
    const usual = (corner: 'pointed' | 'rounded'): Drawing => ({ ...d, settings: { ...d.settings, corner } })
    expect(shapesOf(usual('pointed')).shapes).toEqual(shapesOf(drawn(two(), 'pointed')).shapes)
    expect(inked(usual('rounded'))(...TIP)).toBe(false)
    const decided = { ...usual('pointed'), amendments: drawn(two(), 'rounded').amendments }
    expect(inked(decided)(...TIP)).toBe(false)
  })

  it('has no hole where several ends come together, whatever their widths and ways', () => {
    const r = seeded(31)
    for (let k = 0; k < 60; k++) {
      const n = 3 + Math.floor(r() * 3)
      // Now all from one side, now from all round.
      const fan = k % 2 ? 2.6 : 2 * Math.PI
      const lines = Array.from({ length: n }, (_, i) => {
        const a = (fan * (i + 0.2 + 0.6 * r())) / n + k
        return bar(`l${i}`, [100, 100], [100 + 70 * Math.cos(a), 100 + 70 * Math.sin(a)], 2 + 8 * r())
      })
      const d = drawn(lines)
      const is = inked({ ...d, settings: { ...d.settings, corner: 'pointed' } })
      const least = Math.min(...lines.map((l) => l.weight.size)) / 2
      // All along each line there is ink up to its edges.
      for (const l of lines) {
        const [, far] = l.path.nodes
        const [x, y] = [(far!.at.x - 100) / 70, (far!.at.y - 100) / 70]
        for (const [s, off] of [
          [0.05, 0],
          [0.5, 0.8],
          [0.5, -0.8],
          [0.05, 0.7],
          [0.05, -0.7],
        ] as const)
          expect(
            is(100 + s * x - off * least * y, 100 + s * y + off * least * x),
            `star ${k}, ${l.id}, ${s} ${off}`,
          ).toBe(true)
      }
      const holes = shapesOf({ ...d, settings: { ...d.settings, corner: 'pointed' } })
        .shapes.flatMap((s) => s.contours)
        .filter((c) => areaOfCubics(cubicsOfPath(c)) < 0)
      expect(holes, `star ${k}`).toHaveLength(0)
    }
  })

  it('of more than two ends is filled in the middle, without caps', () => {
    // A wide one from the left, two thin ones towards the lower right and the upper right.
    const three = [
      bar('wide', [20, 100], [100, 100], 16),
      bar('down', [100, 100], [160, 150], 4),
      bar('up', [100, 100], [160, 50], 4),
    ]
    const d = drawn(three)
    const usual = inked({ ...d, settings: { ...d.settings, corner: 'pointed' } })
    expect([usual(99, 107.5), usual(101, 100), usual(150, 141.5), usual(150, 58.5)]).toEqual([true, true, true, true])
    // The wide one's cap reached to 108, round about.
    expect([
      inked({ ...d, settings: { ...d.settings, tuck: false } })(106, 100),
      usual(106, 100),
      usual(102, 106.5),
      usual(102, 93.5),
    ]).toEqual([true, false, false, false])
    // All from one side: the outer edges run out to a point.
    const fan = [
      bar('wide', [20, 70], [100, 100], 8),
      bar('mid', [20, 100], [100, 100], 5),
      bar('thin', [20, 130], [100, 100], 8),
    ]
    const point = inked({ ...drawn(fan), settings: { ...d.settings, corner: 'pointed' } })
    expect([point(109, 100), point(104, 101.5), point(104, 105)]).toEqual([true, true, false])
  })

  it('of coincident lines, of lines without width, of a line with itself is no trouble', () => {
    const same = [bar('wide', [20, 100], [100, 100], 6), bar('thin', [100, 100], [20, 100], 6)]
    const none = [
      bar('wide', [20, 100], [100, 100], 6),
      {
        ...bar('thin', [100, 100], [100, 180], 4),
        weight: { ...evenWeight(4), stops: [{ at: 0, left: 0, right: 0 }] },
      },
    ]
    for (const lines of [same, none])
      for (const style of ['pointed', 'rounded', 'tucked', 'crossing'] as const)
        expect(shapesOf(drawn(lines, style)).failed).toEqual([])
    expect(inked(drawn(same, 'pointed'))(60, 100)).toBe(true)
  })
})
