import { describe, expect, it } from 'vitest'
import { evenWeight, newLine, roundFinish } from '#core/model/create'
import type { Finish, Line, Weight } from '#core/model/model'
import type { Path, PathNode } from '#core/geometry/path'
import type { Vec } from '#core/geometry/point'
import { InputError } from '#core/errors'
import { areaOfCubics } from '#core/geometry/area'
import { boxOfCubics } from '#core/geometry/bounds'
import { reversePath } from '#core/geometry/path'
import { expandLine, outlineOf } from '#core/outline/expand'
import { FlatOutline } from './support/flat-outline'
import { randomLine, seeded } from './support/random-lines'

const node = (x: number, y: number, into: Vec | null = null, out: Vec | null = null): PathNode => ({
  at: { x, y },
  in: into,
  out,
  joint: 'corner',
})
const open = (...nodes: PathNode[]): Path => ({ nodes, closed: false })
const closed = (...nodes: PathNode[]): Path => ({ nodes, closed: true })
const line = (path: Path, weight: Partial<Weight> = {}, finish: Partial<Finish> = {}): Line =>
  newLine(path, { weight: { ...evenWeight(10), ...weight }, finish: { ...roundFinish(), ...finish } })
const butt = { startCap: 'butt', endCap: 'butt' } as const
const area = (l: Line, tolerance = 0.01): number => outlineOf(l, tolerance).reduce((a, c) => a + areaOfCubics(c), 0)
const box = (l: Line) => boxOfCubics(outlineOf(l, 0.01).flat())
const straightLine = open(node(0, 0), node(100, 0))

describe('widths', () => {
  it('zero in the middle parts the ink', () => {
    const stops = [0, 0.5, 1].map((at) => ({ at, left: at === 0.5 ? 0 : 1, right: at === 0.5 ? 0 : 1 }))
    const region = new FlatOutline(outlineOf(line(straightLine, { stops }, butt), 0.05))
    expect(region.winding({ x: 50, y: 1 })).toBe(0)
    expect(region.winding({ x: 20, y: 1 })).not.toBe(0)
  })

  it('flipping the path and the sides is the same ink', () => {
    for (const seed of [3, 11, 19]) {
      const l = randomLine(seed)
      const back: Line = {
        ...l,
        path: reversePath(l.path),
        weight: {
          ...l.weight,
          stops: l.weight.stops.map((s) => ({ at: 1 - s.at, left: s.right, right: s.left })),
          start: l.weight.end,
          end: l.weight.start,
        },
        finish: { ...l.finish, startCap: l.finish.endCap, endCap: l.finish.startCap },
      }
      expect(area(back, 0.01) / area(l, 0.01)).toBeCloseTo(1, 3)
    }
  })
})

describe('dashes, snips and nibs', () => {
  it('dashes count as in SVG', () => {
    const l = line(straightLine, {}, { ...butt, dash: [20, 10] })
    expect(expandLine(l, { tolerance: 0.05 })).toHaveLength(4)
    expect(area(l)).toBeCloseTo(700, 6)
    // An odd pattern is taken twice: 10 on, 10 off.
    expect(expandLine(line(straightLine, {}, { ...butt, dash: [10] }), { tolerance: 0.05 })).toHaveLength(5)
  })

  it('many dashes that overlap are one piece, and too many leave the line whole', () => {
    const bend = open(node(0, 0, null, { x: 200, y: -300 }), node(500, 0, { x: 300, y: 300 }, null))
    const whole = line(bend, { size: 40, nib: { width: 1, height: 1, angle: 0 } })
    const dashed = (dash: number[]): Line => ({ ...whole, finish: { ...whole.finish, dash } })
    const contours = expandLine(dashed([4, 2]), { tolerance: 0.05 })
    expect(contours).toHaveLength(1)
    // Between two discs of radius 20 that are 2 px apart, a notch of 0.025 px stays open.
    expect(area(dashed([4, 2]))).toBeLessThan(area(whole))
    expect(area(dashed([4, 2])) / area(whole)).toBeGreaterThan(0.9985)
    expect(area(dashed([0.1, 0.1]))).toBe(area(whole))
  })

  it('a dash keeps the width of its place on the whole line', () => {
    const l = line(
      straightLine,
      {
        stops: [
          { at: 0, left: 0, right: 0 },
          { at: 1, left: 1, right: 1 },
        ],
      },
      { ...butt, dash: [0, 90, 10, 0] },
    )
    expect(box(l).maxY).toBeCloseTo(5, 6)
    expect(area(l)).toBeGreaterThan(90)
  })

  it('a snip hides its stretch', () => {
    const l = { ...line(straightLine, {}, butt), snips: [{ from: 0.8, to: 1 }] }
    expect(area(l)).toBeCloseTo(800, 6)
  })

  it('a round nib draws like a round pen', () => {
    const bend = open(node(0, 0, null, { x: 40, y: -60 }), node(100, 0, { x: 60, y: 60 }, null))
    const plain = area(line(bend))
    expect(area(line(bend, { nib: { width: 1, height: 1, angle: 30 } })) / plain).toBeCloseTo(1, 3)
  })

  it('a flat nib is thin along its angle and wide across it', () => {
    const nib = { width: 1, height: 0.2, angle: 0 }
    expect(box(line(straightLine, { nib })).maxY).toBeCloseTo(1, 2)
    expect(box(line(open(node(0, 0), node(0, 100)), { nib })).maxX).toBeCloseTo(5, 2)
  })
})

describe('the nasty list', () => {
  const spiky = (n: number): Path => {
    const r = seeded(9)
    return open(...Array.from({ length: n }, (_, i) => node(i * 3 + r() * 2, 50 + 40 * Math.sin(i / 9) + r() * 4)))
  }
  const cases: Record<string, Line> = {
    'zero length': line(open(node(5, 5), node(5, 5))),
    'one node': line(open(node(5, 5))),
    'doubled nodes': line(open(node(0, 0), node(50, 0), node(50, 0), node(50, 50))),
    'a cusp': line(open(node(0, 0, null, { x: 100, y: 80 }), node(80, 0, { x: -20, y: 80 }, null))),
    'a hairpin tighter than the width': line(
      open(node(0, 0, null, { x: 90, y: 0 }), node(0, 6, { x: 90, y: 6 }, null)),
      { size: 40 },
    ),
    'a loop': line(open(node(0, 0, null, { x: 200, y: 200 }), node(100, 0, { x: -100, y: 200 }, null))),
    'a self-crossing': line(open(node(0, 0), node(100, 100), node(100, 0), node(0, 100))),
    'a closed point': line(closed(node(5, 5), node(5, 5))),
    'handles drawn in': line(open(node(0, 0), node(60, 10, { x: 30, y: 60 }, null)), { size: 30 }),
    'far coordinates': line(open(node(1e6, 1e6), node(1e6 + 100, 1e6 + 30))),
    'coincident halves': line(open(node(0, 0), node(100, 0), node(20, 0))),
    'many nodes': line(spiky(2000), { size: 4 }),
  }

  it.each(Object.entries(cases))('%s gives a legal outline', (_name, l) => {
    const contours = outlineOf(l, 0.05)
    for (const c of contours) {
      for (const s of c)
        for (const p of [s.p0, s.p1, s.p2, s.p3]) expect(Number.isFinite(p.x) && Number.isFinite(p.y)).toBe(true)
      c.forEach((s, i) => expect(c[(i + 1) % c.length]!.p0).toEqual(s.p3))
    }
    expect(contours.reduce((a, c) => a + areaOfCubics(c), 0)).toBeGreaterThanOrEqual(0)
  })

  it('a point with round caps is a dot', () => {
    expect(area(cases['one node']!)).toBeCloseTo(Math.PI * 25, 1)
  })

  it('far away is the same ink as near', () => {
    expect(area(cases['far coordinates']!)).toBeCloseTo(area(line(open(node(0, 0), node(100, 30)))), 0)
  })

  const broken: [string, Line, string][] = [
    ['NaN width', line(straightLine, { size: Number.NaN }), 'weight.size'],
    ['negative width', line(straightLine, { size: -3 }), 'weight.size'],
    ['infinite stop', line(straightLine, { stops: [{ at: 0, left: Infinity, right: 1 }] }), 'weight.stops[0].left'],
    ['no stops', line(straightLine, { stops: [] }), 'weight.stops'],
    ['NaN coordinate', line(open(node(0, 0), node(Number.NaN, 0))), 'path.nodes[1].at.x'],
    ['no nodes', line(open()), 'path.nodes'],
    [
      'NaN taper',
      line(straightLine, { start: { length: Number.NaN, unit: 'px', tip: 0, ease: 'round' } }),
      'weight.start.length',
    ],
    ['negative dash', line(straightLine, {}, { dash: [-4] }), 'finish.dash[0]'],
  ]

  it.each(broken)('%s is refused by the name of its field', (_name, l, field) => {
    try {
      expandLine(l, { tolerance: 0.05 })
      expect.unreachable()
    } catch (e) {
      expect(e).toBeInstanceOf(InputError)
      expect((e as InputError).field).toBe(field)
    }
  })
})

describe('tolerance', () => {
  it('node counts grow slowly as it shrinks', () => {
    const count = (tolerance: number): number =>
      [2, 3, 5, 7, 9].reduce((n, s) => n + outlineOf(randomLine(s), tolerance).reduce((k, c) => k + c.length, 0), 0)
    expect(count(0.005) / count(0.5)).toBeLessThan(4)
  })
})
