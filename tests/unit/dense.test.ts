import { describe, expect, it } from 'vitest'
import { Resvg } from '@resvg/resvg-js'
import { evenWeight, newLine } from '#core/model/create'
import type { Line, Weight } from '#core/model/model'
import type { PathNode } from '#core/geometry/path'
import type { Vec } from '#core/geometry/point'
import { InputError } from '#core/errors'
import type { Cubic } from '#core/geometry/cubic'
import { flatten } from '#core/geometry/cubic'
import { outlineOf } from '#core/outline/expand'
import { arrange } from '#core/arrangement/arrange'
import { whole } from '#core/arrangement/loop'
import { resolveLoops } from '#core/arrangement/resolve'
import { seeded } from './support/random-lines'

const TOLERANCE = 0.05
const PITCH = 8

const corner = (x: number, y: number): PathNode => ({ at: { x, y }, in: null, out: null, joint: 'corner' })
const stroke = (a: Vec, b: Vec, weight: Weight = evenWeight(1), bend = 0): Line => {
  const handle = (p: Vec, q: Vec, side: number): Vec => ({
    x: p.x + (q.x - p.x) / 3 + side * (q.y - p.y) * bend,
    y: p.y + (q.y - p.y) / 3 - side * (q.x - p.x) * bend,
  })
  const [from, to] = [corner(a.x, a.y), corner(b.x, b.y)]
  return newLine(
    {
      nodes: bend
        ? [
            { ...from, out: handle(a, b, 1) },
            { ...to, in: handle(b, a, 1) },
          ]
        : [from, to],
      closed: false,
    },
    { weight, finish: { ...newLine({ nodes: [], closed: false }).finish, startCap: 'butt', endCap: 'butt' } },
  )
}

/** `n` parallel strokes about the middle of a square of n pitches, turned by `degrees`. */
function hatching(n: number, degrees: number, weight?: Weight, bend?: number): Line[] {
  const [ux, uy] = [Math.sin((degrees * Math.PI) / 180), Math.cos((degrees * Math.PI) / 180)]
  const middle = (n * PITCH) / 2
  return Array.from({ length: n }, (_, i) => {
    const off = (i - n / 2 + 0.5) * PITCH
    const at = (along: number): Vec => ({ x: middle + uy * off + ux * along, y: middle - ux * off + uy * along })
    return stroke(at(-middle), at(middle), weight, bend)
  })
}

function circle(cx: number, cy: number, r: number): Line {
  const k = 0.5522847 * r
  const node = (x: number, y: number): PathNode => ({
    at: { x: cx + x * r, y: cy + y * r },
    in: { x: cx + x * r + y * k, y: cy + y * r - x * k },
    out: { x: cx + x * r - y * k, y: cy + y * r + x * k },
    joint: 'smooth',
  })
  return newLine({ nodes: [node(1, 0), node(0, 1), node(-1, 0), node(0, -1)], closed: true }, { weight: evenWeight(1) })
}

const tapered: Weight = {
  ...evenWeight(2.5),
  start: { length: 40, unit: '%', tip: 0, ease: 'straight' },
  end: { length: 60, unit: '%', tip: 0, ease: 'needle' },
}

/** Flat edges of contours; asked about whole rows, so that no index is needed. */
class Edges {
  private readonly edges: [Vec, Vec][]

  constructor(contours: readonly Cubic[][]) {
    this.edges = contours.flat().flatMap((c) =>
      flatten(c, TOLERANCE / 20)
        .map((p, i, all): [Vec, Vec] => [all[i - 1] ?? p, p])
        .slice(1),
    )
  }

  /** Winding numbers at x0, x0 + step, ... at height y. */
  row(y: number, x0: number, step: number, count: number): Int32Array {
    const out = new Int32Array(count)
    for (const [a, b] of this.edges) {
      if (a.y <= y === b.y <= y) continue
      const first = Math.max(0, Math.ceil((a.x + ((y - a.y) / (b.y - a.y)) * (b.x - a.x) - x0) / step))
      if (first < count) out[first]! += b.y > a.y ? -1 : 1
    }
    return out.map(
      (
        (sum) => (w) =>
          (sum += w)
      )(0),
    )
  }

  distance(p: Vec): number {
    return this.edges.reduce((best, [a, b]) => {
      const [dx, dy] = [b.x - a.x, b.y - a.y]
      const u = Math.min(1, Math.max(0, ((p.x - a.x) * dx + (p.y - a.y) * dy) / (dx * dx + dy * dy || 1)))
      return Math.min(best, Math.hypot(p.x - a.x - dx * u, p.y - a.y - dy * u))
    }, Infinity)
  }
}

/** Rows of points across everything: a point is to lie within the union just where any of the outlines covers it. */
function expectUnion(outlines: readonly Cubic[][], united: readonly Cubic[][], rows = 40): void {
  const one = new Edges(united)
  const many = new Edges(outlines)
  const ys = outlines.flat().flatMap((c) => [c.p0.y, c.p3.y])
  const xs = outlines.flat().flatMap((c) => [c.p0.x, c.p3.x])
  const [x0, x1] = [xs.reduce((a, x) => Math.min(a, x)), xs.reduce((a, x) => Math.max(a, x))]
  const [y0, y1] = [ys.reduce((a, y) => Math.min(a, y)), ys.reduce((a, y) => Math.max(a, y))]
  let ink = 0
  for (let i = 0; i < rows; i++) {
    const y = y0 + ((y1 - y0) * (i + 0.5137)) / rows
    const step = (x1 - x0) / 997
    const wanted = many.row(y, x0, step, 997)
    one.row(y, x0, step, 997).forEach((w, k) => {
      if (wanted[k] !== 0) ink++
      if (w === (wanted[k] === 0 ? 0 : 1)) return
      const p = { x: x0 + k * step, y }
      expect(many.distance(p), `(${p.x}, ${p.y}) is ${w} times within the union`).toBeLessThan(TOLERANCE)
    })
  }
  expect(ink).toBeGreaterThan(0)
}

const outlinesOf = (lines: readonly Line[]): Cubic[][] => lines.flatMap((l) => outlineOf(l, TOLERANCE))
const unite = (outlines: readonly Cubic[][]): Cubic[][] =>
  resolveLoops(
    outlines.map((c) => c.map(whole)),
    TOLERANCE,
  )

describe('dense ink is united as it looks', () => {
  const r = seeded(11)
  const anywhere = (): Vec => ({ x: r() * 300, y: r() * 300 })
  const sets: Record<string, () => Line[]> = {
    ...Object.fromEntries(
      [
        [2, 90],
        [53, 90],
        [60, 90],
        [150, 90],
        [60, 30],
        [150, 30],
        [60, 3],
        [400, 3],
      ].map(([n, degrees]) => [
        `hatching of ${n} lines a direction at ${degrees} degrees`,
        () => [...hatching(n!, 0), ...hatching(n!, degrees!)],
      ]),
    ),
    'curved hatching': () => [...hatching(60, 0, undefined, 0.08), ...hatching(60, 70, undefined, 0.05)],
    'tapered hatching': () => [...hatching(60, 0, tapered), ...hatching(60, 40, tapered, 0.04)],
    'hatching in three directions': () => [...hatching(60, 0), ...hatching(60, 60), ...hatching(60, 120)],
    'dense stipple': () =>
      Array.from({ length: 3000 }, anywhere).map((p) => stroke(p, { x: p.x + 0.4, y: p.y + 0.2 }, evenWeight(1.4))),
    hair: () =>
      Array.from({ length: 300 }, anywhere).map((p) =>
        stroke(p, { x: p.x + r() * 60 - 30, y: p.y + 90 }, tapered, r() * 0.3 - 0.15),
      ),
    'a scribble of 700 strokes over itself': () => [
      newLine(
        { nodes: Array.from({ length: 701 }, () => corner(r() * 600, r() * 600)), closed: false },
        { weight: evenWeight(1) },
      ),
    ],
    'a star of 400 spokes': () =>
      Array.from({ length: 200 }, (_, i) => (i * Math.PI) / 200).map((a) =>
        stroke(
          { x: 200 - 180 * Math.cos(a), y: 200 - 180 * Math.sin(a) },
          { x: 200 + 180 * Math.cos(a), y: 200 + 180 * Math.sin(a) },
        ),
      ),
    'concentric rings': () => Array.from({ length: 100 }, (_, i) => circle(250, 250, 3 + 2 * i)),
    'the same ring 200 times': () => Array.from({ length: 200 }, () => circle(120, 120, 80)),
    'rings that touch': () =>
      Array.from({ length: 64 }, (_, i) => circle(20 + (i % 8) * 21, 20 + Math.floor(i / 8) * 21, 10)),
  }
  for (const [name, make] of Object.entries(sets)) {
    it(name, { timeout: 300_000 }, () => {
      const outlines = outlinesOf(make())
      expectUnion(outlines, unite(outlines))
    })
  }

  it('renders as the strokes do', () => {
    const lines = [...hatching(60, 0), ...hatching(60, 90)]
    const d = (c: Cubic[]): string =>
      `M${c[0]!.p0.x} ${c[0]!.p0.y}` +
      c.map((s) => `C${s.p1.x} ${s.p1.y} ${s.p2.x} ${s.p2.y} ${s.p3.x} ${s.p3.y}`).join('') +
      'Z'
    const strokes = lines
      .map(
        ({ path: { nodes } }) =>
          `<path d="M${nodes[0]!.at.x} ${nodes[0]!.at.y}L${nodes[1]!.at.x} ${nodes[1]!.at.y}" stroke="#000"/>`,
      )
      .join('')
    const alphaOf = (body: string): number[] => {
      const { pixels } = new Resvg(
        `<svg xmlns="http://www.w3.org/2000/svg" width="480" height="480">${body}</svg>`,
      ).render()
      return Array.from({ length: pixels.length / 4 }, (_, i) => pixels[4 * i + 3]!)
    }
    const difference = (a: number[], b: number[]): number =>
      a.reduce((sum, v, i) => sum + Math.abs(v - b[i]!), 0) / a.length / 255
    const united = unite(outlinesOf(lines))
    const wanted = alphaOf(strokes)
    expect(difference(alphaOf(`<path d="${united.map(d).join('')}"/>`), wanted)).toBeLessThan(0.001)
    expect(difference(alphaOf(`<path d="${united.slice(5).map(d).join('')}"/>`), wanted)).toBeGreaterThan(0.001)
  })

  it('a line that is missing would be seen', () => {
    const outlines = outlinesOf([...hatching(20, 0), ...hatching(20, 90)])
    expect(() => expectUnion(outlines, unite(outlines.slice(1)))).toThrow()
  })
})

describe('an arrangement answers for itself', () => {
  const square = (x: number, y: number, size: number) =>
    outlineOf(stroke({ x, y }, { x: x + size, y }, evenWeight(size)), TOLERANCE).map((c) => c.map(whole))

  it('never takes a grid that is coarser than the tolerance allows: far-flung input is refused by a sentence', () => {
    const far = [...square(0, 0, 10), ...square(9e6, 0, 10)]
    expect(() => arrange([far], TOLERANCE)).toThrow(InputError)
    expect(() => arrange([far], TOLERANCE)).toThrow(/too far/)
    expect(arrange([far], 10)!.grid.step).toBeLessThanOrEqual(10 / 8)
    expect(arrange([[...square(0, 0, 10), ...square(1e5, 0, 10)]], TOLERANCE)!.grid.step).toBeLessThanOrEqual(
      TOLERANCE / 8,
    )
  })
})
