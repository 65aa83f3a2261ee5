import { describe, expect, it } from 'vitest'
import { newDrawing, newFillsLayer, newLine } from '#core/model/create'
import type { Drawing, Line, Shape } from '#core/model/model'
import { turnBack } from '#core/from-outlines/turn-back'
import { cubicsOfPath } from '#core/geometry/path'
import { shapesOf } from '#core/ink/shapes-of'
import { outlineOf } from '#core/outline/expand'
import { islandsOf } from '#core/shapes/islands'
import { lineFromOutline } from '#core/from-outlines/line-from-outline'
import { documentOf, SCENARIO } from '../../demo/scenario'
import { FlatOutline } from './support/flat-outline'
import { polyline } from './support/paths'
import { someOf } from './support/thorough'

const NEAR = 0.3

/** The farthest that probes of one outline lie from another: measured by polygons, not as the engine does. */
function apart(a: Shape['contours'], line: Parameters<typeof newLine>[1] & Pick<Line, 'path'>): number {
  const mine = a.map((c) => cubicsOfPath({ ...c, closed: true }))
  const theirs = outlineOf(newLine(line.path, line), 0.01)
  const probes = (of: typeof mine, to: typeof mine): number => {
    const flat = new FlatOutline(to, 0.005)
    return Math.max(
      ...of
        .flat()
        .flatMap((c) => [0, 0.17, 0.5, 0.83].map((t) => flat.distance({ x: at(c, t, 'x'), y: at(c, t, 'y') }))),
    )
  }
  return Math.max(probes(mine, theirs), probes(theirs, mine))
}

const at = (c: ReturnType<typeof cubicsOfPath>[number], t: number, k: 'x' | 'y'): number =>
  c.p0[k] * (1 - t) ** 3 + 3 * c.p1[k] * t * (1 - t) ** 2 + 3 * c.p2[k] * t * t * (1 - t) + c.p3[k] * t ** 3

describe('outlines of the demo drawings', () => {
  it('become lines again, each within 0.3 px, at most one in nine of them no line', { timeout: 300_000 }, () => {
    let [islands, lines] = [0, 0]
    for (const make of someOf(SCENARIO.slice(1), 5)) {
      const drawing = documentOf(make(), null)
      // Where forms lie in front, lines are in pieces cut along others' outlines: what becomes a line is near, not all does.
      const isWhole = !drawing.amendments?.some((a) => a.kind === 'front')
      const apartFrom = {
        ...drawing,
        fills: [],
        settings: {
          ...drawing.settings,
          tuck: false,
          shapes: { ...drawing.settings.shapes, unite: false, simplify: 0 },
        },
      } as Drawing
      for (const shape of shapesOf(apartFrom).shapes) {
        for (const island of islandsOf(shape.contours.map((c) => cubicsOfPath({ ...c, closed: true })))) {
          if (isWhole) islands++
          const contours = island.map((i) => shape.contours[i]!)
          const found = lineFromOutline(contours, { tolerance: NEAR })
          if (!found) continue
          if (isWhole) lines++
          expect(apart(contours, found.line)).toBeLessThan(NEAR + 0.02)
          if (isWhole) expect(found.line.weight.stops.length).toBeLessThan(50)
        }
      }
    }
    expect(lines / islands).toBeGreaterThan(8 / 9)
  })
})

describe('an outline', () => {
  it('that is no stroke stays as it is', () => {
    const node = (x: number, y: number) => ({ at: { x, y }, in: null, out: null, joint: 'corner' as const })
    const square = { nodes: [node(0, 0), node(100, 0), node(100, 100), node(0, 100)], closed: true }
    expect(lineFromOutline([square], { tolerance: NEAR })).toBeNull()
    const cross = {
      nodes: [
        [0, 40],
        [40, 40],
        [40, 0],
        [60, 0],
        [60, 40],
        [100, 40],
        [100, 60],
        [60, 60],
        [60, 100],
        [40, 100],
        [40, 60],
        [0, 60],
      ].map(([x, y]) => node(x!, y!)),
      closed: true,
    }
    expect(lineFromOutline([cross], { tolerance: NEAR })).toBeNull()
    expect(lineFromOutline([{ nodes: [node(0, 0)], closed: true }], { tolerance: NEAR })).toBeNull()
    expect(() => lineFromOutline([square], { tolerance: 0 })).toThrow(/above 0/)
  })

  it('of a straight stroke has its ends, its width and its caps back', () => {
    for (const cap of ['butt', 'round'] as const) {
      const plain = newLine(polyline(20, 30, 160, 60))
      const line = {
        ...plain,
        weight: { ...plain.weight, size: 8 },
        finish: { ...plain.finish, startCap: cap, endCap: cap },
      }
      const back = lineFromOutline(
        outlineOf(line, 0.01).map((c) => ({
          nodes: c.map((q, i) => ({
            at: q.p0,
            in: c[(i + c.length - 1) % c.length]!.p2,
            out: q.p1,
            joint: 'corner' as const,
          })),
          closed: true,
        })),
        { tolerance: NEAR },
      )!
      expect(back.deviation).toBeLessThan(0.1)
      expect(back.line.finish).toMatchObject({ startCap: cap, endCap: cap })
      expect(back.line.weight.size).toBeCloseTo(8, 1)
      expect(back.line.weight.stops.length).toBeLessThan(5)
      const ends = back.line.path.nodes.map((n) => n.at).sort((a, b) => a.x - b.x)
      expect([ends[0]!.x, ends.at(-1)!.x].map(Math.round)).toEqual([20, 160])
    }
  })

  it('with an end that was cut along another line is a line that is scraped there', () => {
    const node = (x: number, y: number, back: number, on: number) => ({
      at: { x, y },
      in: back ? { x: back, y: y / 2 } : null,
      out: on ? { x: on, y: y / 2 } : null,
      joint: 'corner' as const,
    })
    const hollow = {
      nodes: [node(0, -5, 0, 0), node(150, -5, 0, 144), node(150, 5, 144, 0), node(0, 5, 0, 0)],
      closed: true,
    }
    const back = lineFromOutline([hollow], { tolerance: NEAR })!
    expect(back.line.scrapes?.length).toBeGreaterThan(0)
    expect(apart([hollow], back.line)).toBeLessThan(NEAR + 0.02)
  })

  it('gives its place to the line: on a layer of its own right above, in its ink, what is no stroke left', () => {
    const solid = (id: string): Shape => ({ id, contours: [], ink: 'black', from: [] })
    const drawing = newDrawing('Packet', { layers: [newFillsLayer('Art', [solid('a'), solid('b'), solid('c')])] })
    const { path, weight, finish } = newLine(polyline(0, 0))
    const some = structuredClone(drawing)
    const made = turnBack(
      some,
      new Map([
        ['a', [{ path, weight, finish }]],
        [
          'c',
          [
            { path, weight, finish },
            { path, weight, finish },
          ],
        ],
      ]),
    )
    expect(some.layers.map((l) => [l.kind, l.name, l.items.length])).toEqual([
      ['fills', 'Art', 1],
      ['lines', 'Art lines', 3],
    ])
    expect(some.layers[1]!.items.map((i) => i.id)).toEqual(made)
    const all = structuredClone(drawing)
    turnBack(all, new Map(['a', 'b', 'c'].map((id) => [id, [{ path, weight, finish }]])))
    expect(all.layers.map((l) => [l.kind, l.name, l.items.length])).toEqual([['lines', 'Art', 3]])
  })
})
