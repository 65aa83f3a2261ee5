import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { evenWeight, newDrawing, newLine, newLinesLayer } from '#core/model/create'
import type { Drawing, Line } from '#core/model/model'
import { cubicsOfPath } from '#core/geometry/path'
import { shapesOf } from '#core/ink/shapes-of'
import { contactsOf } from '#core/relations/end-contacts'
import { documentOf, SCENARIO } from '../../demo/scenario'
import { FlatOutline } from './support/flat-outline'
import { TrueInk } from './support/true-ink'
import { Shown } from './support/shown-beyond'
import { polygon, polyline } from './support/paths'
import { someOf } from './support/thorough'

/** What of an end may show beyond the far edge of what it meets, px. */
const SHOWN = 0.05

type Point = [number, number]

/** A line through control points, four a segment and sharing ends; even and round unless it is told otherwise. */
function line(id: string, points: Point[], size: number, over: Partial<Line> = {}): Line {
  const nodes = points.flatMap(([x, y], i) => {
    if (i % 3) return []
    const [before, after] = [points[i - 1], points[i + 1]]
    return [
      {
        at: { x, y },
        in: before ? { x: before[0], y: before[1] } : null,
        out: after ? { x: after[0], y: after[1] } : null,
        joint: 'corner' as const,
      },
    ]
  })
  return newLine({ nodes, closed: false }, { id, weight: evenWeight(size), ...over })
}
const straightLine = (id: string, a: Point, b: Point, size: number, over: Partial<Line> = {}): Line =>
  newLine(polyline(...a, ...b), { id, weight: evenWeight(size), ...over })

const drawn = (lines: Line[], tuck = true): Drawing => {
  const d = newDrawing('Tuck', { layers: [newLinesLayer('Ink', lines)] })
  return { ...d, settings: { ...d.settings, tuck, shapes: { ...d.settings.shapes, simplify: 0 } } }
}
const deliveredOf = (d: Drawing) => shapesOf(d).shapes.flatMap((s) => s.contours)

/** Ends of lines that meet the bodies of others, all of them. */
const meetings = (lines: readonly Line[]) =>
  contactsOf(lines, { reach: 1.5, overshoot: 8 })
    .filter((c) => c.kind === 'meeting')
    .flatMap((c) =>
      c.touched
        .filter((t) => t.line !== c.line && t.at > 0.01 && t.at < 0.99)
        .map((t) => ({
          line: c.line,
          end: c.end,
          met: t.line,
          reach: lines.filter((l) => l.id === c.line || l.id === t.line).reduce((r, l) => r + 1.2 * l.weight.size, 0),
        })),
    )

function worst(d: Drawing, lines: readonly Line[]): number {
  const shown = new Shown(deliveredOf(d), lines, SHOWN)
  return Math.max(0, ...meetings(lines).map((m) => shown.beyond(m.line, m.end, m.met, m.reach)))
}

/** Points within the line's ink on the way to its end that the delivered shapes lack. */
function lost(d: Drawing, l: Line): number {
  const region = new FlatOutline(deliveredOf(d).map(cubicsOfPath))
  return new TrueInk(l).rows
    .flat()
    .filter((c, i, all) => i % 3 === 0 && i < all.length - 38 && c.left + c.right > 0.3)
    .flatMap(({ x, y, tx, ty, left, right }) =>
      [0.05, 0.5, 0.95].map((u) => left * u - right * (1 - u)).map((h) => ({ x: x + ty * h, y: y - tx * h })),
    )
    .filter((p) => region.winding(p) === 0).length
}

const wall = straightLine('wall', [100, 20], [100, 180], 6)
const CASES: [string, Line[]][] = [
  ['an end wider than what it meets', [wall, straightLine('a', [20, 100], [100, 100], 14)]],
  ['at a slant', [wall, straightLine('a', [20, 60], [100, 130], 9)]],
  ['at a sharp slant, half past the middle', [wall, straightLine('a', [60, 20], [101.5, 150], 8)]],
  ['a hairline', [straightLine('wall', [100, 20], [100, 180], 0.6), straightLine('a', [20, 100], [100, 100], 8)]],
  ['near its own end', [straightLine('wall', [100, 97], [100, 180], 6), straightLine('a', [20, 100], [100, 100], 12)]],
  [
    'near its tapered end',
    [
      straightLine('wall', [100, 94], [100, 180], 8, {
        weight: { ...evenWeight(8), start: { length: 30, unit: 'px', tip: 0, ease: 'straight' } },
      }),
      straightLine('a', [20, 100], [100, 100], 8),
    ],
  ],
  [
    'a closed line',
    [
      newLine(polygon(100, 40, 160, 40, 160, 160, 100, 160), { id: 'wall', weight: evenWeight(5) }),
      straightLine('a', [20, 100], [100, 100], 9),
    ],
  ],
  [
    'where two others cross',
    [wall, straightLine('b', [60, 60], [140, 140], 5), straightLine('a', [20, 110], [100, 100], 13)],
  ],
  [
    'where three ends come to one wall',
    [
      wall,
      straightLine('a', [20, 60], [100, 100], 10),
      straightLine('b', [20, 140], [100, 100], 10),
      straightLine('c', [180, 130], [100, 100], 3),
    ],
  ],
  [
    'with its ink to one side',
    [wall, straightLine('a', [20, 100], [100, 100], 14, { finish: { ...wall.finish, align: 'left' } })],
  ],
  [
    'with a square cap',
    [wall, straightLine('a', [20, 100], [101, 100], 9, { finish: { ...wall.finish, endCap: 'square' } })],
  ],
]

describe('an end that meets a line', () => {
  it.each(CASES)('keeps within it: %s', (_, lines) => {
    expect(meetings(lines).length).toBeGreaterThan(0)
    // It would show, were it not tucked; what comes to the line is all there.
    expect(worst(drawn(lines, false), lines)).toBeGreaterThan(0.5)
    expect(worst(drawn(lines), lines)).toBeLessThan(SHOWN)
    for (const l of lines) expect(lost(drawn(lines), l), l.id).toBe(0)
  })

  it('is whole where what it would meet is covered, and whole again where they part', () => {
    const end = straightLine('a', [20, 100], [100, 100], 14)
    const patch: Line = {
      ...newLine(polygon(80, 60, 140, 60, 140, 140, 80, 140), { id: 'patch', weight: evenWeight(1) }),
      cover: true,
    }
    // The patch hides the wall where they meet; the end lies above it.
    const shown = (lines: Line[]): number =>
      new FlatOutline(deliveredOf(drawn(lines)).map(cubicsOfPath)).winding({ x: 105, y: 100 })
    expect([
      shown([wall, end]),
      shown([wall, patch, end]),
      shown([straightLine('wall', [180, 20], [180, 180], 6), end]),
    ]).toEqual([0, 1, 1])
  })

  it('lies over the one of two lines that it is laid over, and keeps within the other', () => {
    // Two walls that part: the end comes to where they cross, and would show beyond both, above and below.
    const [up, down] = [straightLine('up', [80, 180], [120, 20], 4), straightLine('down', [80, 20], [120, 180], 4)]
    const end = (over: string[]): Line => straightLine('a', [20, 100], [100, 100], 30, { over: { last: over } })
    const shown = (over: string[]): boolean =>
      new FlatOutline(deliveredOf(drawn([up, down, end(over)])).map(cubicsOfPath)).winding({ x: 107, y: 100 }) !== 0
    expect([shown([]), shown(['up']), shown(['up', 'down'])]).toEqual([false, false, true])
    expect(deliveredOf(drawn([up, down, end(['up'])]))).not.toEqual(deliveredOf(drawn([up, down, end([])])))
  })

  it('lies over what it meets, or beneath it where that is chosen, whatever their order', () => {
    const end = (choice?: 'in' | 'under'): Line =>
      straightLine('a', [20, 100], [101.5, 100], 14, { ink: 'red', ...(choice && { tuck: { last: choice } }) })
    const top = (lines: Line[]): string | undefined =>
      shapesOf(drawn(lines)).shapes.findLast(
        (s) => new FlatOutline(s.contours.map(cubicsOfPath)).winding({ x: 98.2, y: 101.3 }) !== 0,
      )?.ink
    expect([top([wall, end()]), top([wall, end('in')]), top([wall, end('under')])]).toEqual(['red', 'red', 'black'])
    expect([top([end(), wall]), top([end('under'), wall])]).toEqual(['black', 'black'])
  })

  it('at a slant runs in with both edges: no cap bulges on the near side', () => {
    const lines = [wall, straightLine('a', [40, 20], [100, 150], 12)]
    const shown = (d: Drawing) => {
      const region = new FlatOutline(deliveredOf(d).map(cubicsOfPath))
      return (x: number, y: number): boolean => region.winding({ x, y }) !== 0
    }
    // Along its right edge, 6 px from its middle, to where that meets the wall's left edge at x 97, and a little outside of it.
    const d = { x: 60 / Math.hypot(60, 130), y: 130 / Math.hypot(60, 130) }
    const edge = (s: number, off: number): Point => [40 + d.x * s - d.y * off, 20 + d.y * s + d.x * off]
    const meets = (97 - 40 + d.y * 6) / d.x
    const at = shown(drawn(lines))
    for (const s of [100, 120, 130, 140, 148, meets - 1.5])
      expect([at(...edge(s, 5.8)), at(...edge(s, 6.2))], `${s}`).toEqual([true, false])
    expect(shown(drawn(lines, false))(...edge(meets - 1.5, 5.8))).toBe(false)
  })

  it('keeps within its own body, as the end of a coil does', () => {
    const coil = line(
      'coil',
      [
        [40, 160],
        [40, 60],
        [160, 40],
        [160, 120],
        [160, 170],
        [100, 170],
        [45, 118],
      ],
      9,
    )
    const beyond = (d: Drawing): number => new FlatOutline(deliveredOf(d).map(cubicsOfPath)).winding({ x: 42, y: 116 })
    expect(contactsOf([coil], { reach: 1.5, overshoot: 8 })[1]).toMatchObject({
      kind: 'meeting',
      touched: [{ line: 'coil', ends: false }],
    })
    expect([beyond(drawn([coil], false)), beyond(drawn([coil]))]).toEqual([1, 0])
    expect(lost(drawn([coil]), coil)).toBe(0)
  })

  it('at random: nothing shows, nothing else is lost', { timeout: 120_000 }, () => {
    const whole = (least: number, most: number) => fc.integer({ min: least, max: most })
    const one = fc.record({
      bow: whole(-30, 30),
      size: whole(2, 16),
      wall: whole(2, 16),
      angle: whole(20, 160),
      at: whole(15, 85),
      past: whole(-9, 9),
      cap: fc.constantFrom('round', 'square', 'butt'),
    })
    fc.assert(
      fc.property(one, ({ bow, size, wall: w, angle, at, past, cap }) => {
        const met = line(
          'wall',
          [
            [100, 10],
            [100 + bow, 70],
            [100 + bow, 140],
            [100, 200],
          ],
          w,
        )
        const t = at / 100
        const hit = { x: 100 + 3 * t * (1 - t) * bow + (past / 10) * (w / 2), y: 10 + 190 * t }
        const a = (angle * Math.PI) / 180
        const from: Point = [hit.x - 80 * Math.sin(a), hit.y - 80 * Math.cos(a)]
        const lines = [
          met,
          straightLine('a', from, [hit.x, hit.y], size, { finish: { ...met.finish, endCap: cap as 'round' } }),
        ]
        const d = drawn(lines)
        expect(worst(d, lines)).toBeLessThan(SHOWN)
        expect(lost(d, lines[1]!)).toBe(0)
      }),
      { seed: 11, numRuns: 40 },
    )
  })

  // As expanded one of them is enough: what simplifying does comes on top.
  const made = SCENARIO.flatMap((make, i) =>
    (i === 4 ? [0, null] : [null]).map(
      (simplify) => [make().name, simplify === 0 ? 'as expanded' : 'as delivered', make(), simplify] as const,
    ),
  )
  it.each(someOf(made, 2))('nothing pokes out of %s, %s', { timeout: 120_000 }, (_, _how, inked, simplify) => {
    // What shows is asked of the ink alone.
    const plain = { ...documentOf(inked, null), fills: [] }
    const { shapes } = plain.settings
    const d: Drawing = {
      ...plain,
      settings: { ...plain.settings, shapes: { ...shapes, simplify: simplify ?? shapes.simplify } },
    }
    const lines = d.layers.flatMap((l) => (l.kind === 'lines' ? l.items : []))
    const { shapes: delivered, deviation } = shapesOf(d)
    // Simplified outlines lie that much off the true ones; what pokes out counts from there.
    const within = SHOWN + deviation
    const shown = new Shown(
      delivered.flatMap((s) => s.contours),
      lines,
      within,
    )
    const found = meetings(lines).map((m) => ({ ...m, depth: shown.beyond(m.line, m.end, m.met, m.reach) }))
    expect(found.length).toBeGreaterThan(20)
    expect(found.filter((f) => f.depth >= within)).toEqual([])
  })
})
