import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { newDrawing, newLine, newLinesLayer, roundFinish } from '#core/model/create'
import type { Path } from '#core/geometry/path'
import type { Shape } from '#core/model/model'
import { InputError } from '#core/errors'
import { areaOfCubics } from '#core/geometry/area'
import { cubicsOfPath, pathOfCubics } from '#core/geometry/path'
import { arc } from '#core/outline/arc'
import { expandLine } from '#core/outline/expand'
import { openInk } from '#core/ink/open-ink'
import { deviationBetween } from '#core/shapes/deviation'
import { simplifyContours } from '#core/shapes/simplify'
import { unionShapes } from '#core/shapes/combine'
import { FlatOutline } from './support/flat-outline'
import { randomLine } from './support/random-lines'
import { polyline } from './support/paths'

const polygon = (...points: [number, number][]): Path => ({
  nodes: points.map(([x, y]) => ({ at: { x, y }, in: null, out: null, joint: 'corner' })),
  closed: true,
})
const rectangle = (x: number, y: number, w: number, h: number): Path =>
  polygon([x, y], [x + w, y], [x + w, y + h], [x, y + h])
const disc = (x: number, y: number, r: number): Path =>
  pathOfCubics(arc({ x, y }, { x: r, y: 0 }, 2 * Math.PI, 1e-4), true)
const shape = (...contours: Path[]): Shape => ({ id: 's', contours, ink: 'black', from: [] })
const area = (contours: readonly Path[]): number => contours.reduce((a, c) => a + areaOfCubics(cubicsOfPath(c)), 0)
const nodes = (contours: readonly Path[]): number => contours.reduce((n, c) => n + c.nodes.length, 0)
const TOLERANCE = { tolerance: 0.05 }

describe('union', () => {
  it('leaves untouched curves bit for bit', () => {
    const d = disc(50, 50, 30)
    const out = unionShapes([shape(d), shape(rectangle(200, 200, 10, 10))], TOLERANCE)
    const points = new Set(out.flatMap((c) => c.nodes.map((n) => `${n.at.x},${n.at.y}`)))
    for (const n of d.nodes) expect(points.has(`${n.at.x},${n.at.y}`)).toBe(true)
  })

  it('of nothing is nothing', () => {
    expect(unionShapes([], TOLERANCE)).toEqual([])
    expect(unionShapes([shape()], TOLERANCE)).toEqual([])
  })

  it.each([0, -1, Number.NaN, Infinity])('refuses a tolerance of %d', (tolerance) => {
    expect(() => unionShapes([shape(rectangle(0, 0, 1, 1))], { tolerance })).toThrow(InputError)
  })

  it('refuses a coordinate that is not a number, by its name', () => {
    expect(() => unionShapes([shape(polygon([0, 0], [Number.NaN, 1], [1, 1]))], TOLERANCE)).toThrow(
      /shapes\[0\]\.contours\[0\]\.nodes\[1\]\.at\.x/,
    )
  })
})

describe('simplify', () => {
  it('turns a polygon of a thousand points back into a circle of few nodes', () => {
    const points = Array.from({ length: 1000 }, (_, i): [number, number] => [
      100 * Math.cos((i * Math.PI) / 500),
      100 * Math.sin((i * Math.PI) / 500),
    ])
    const { contours, deviation, nodesBefore, nodesAfter } = simplifyContours([polygon(...points)], { tolerance: 0.1 })
    expect(nodesBefore).toBe(1000)
    expect(nodesAfter).toBeLessThanOrEqual(6)
    expect(deviation).toBeLessThanOrEqual(0.1)
    expect(area(contours) / (Math.PI * 1e4)).toBeCloseTo(1, 3)
  })

  it('keeps corners and makes straight runs straight', () => {
    const dotted = (a: [number, number], b: [number, number]): [number, number][] =>
      Array.from({ length: 20 }, (_, i) => [a[0] + ((b[0] - a[0]) * i) / 20, a[1] + ((b[1] - a[1]) * i) / 20])
    const square = polygon(
      ...dotted([0, 0], [50, 0]),
      ...dotted([50, 0], [50, 50]),
      ...dotted([50, 50], [0, 50]),
      ...dotted([0, 50], [0, 0]),
    )
    const { contours } = simplifyContours([square], { tolerance: 0.1 })
    expect(contours[0]!.nodes).toHaveLength(4)
    expect(contours[0]!.nodes.every((n) => !n.in && !n.out && n.joint === 'corner')).toBe(true)
    expect(area(contours)).toBeCloseTo(2500, 6)
  })

  it('never deviates by more than it was allowed, as measured apart, and says how much', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 2000 }), fc.constantFrom(0.05, 0.3, 1), (seed, tolerance) => {
        const before = expandLine(randomLine(seed), TOLERANCE)
        const { contours, deviation, nodesAfter, nodesBefore } = simplifyContours(before, { tolerance })
        const measured = deviationBetween(before.flatMap(cubicsOfPath), contours.flatMap(cubicsOfPath), tolerance * 0.8)
        expect(deviation).toBeLessThanOrEqual(tolerance)
        expect(measured).toBeLessThanOrEqual(tolerance * 1.05)
        expect(nodesAfter).toBeLessThanOrEqual(nodesBefore)
        expect(nodes(contours)).toBe(nodesAfter)
      }),
      { seed: 3, numRuns: 40 },
    )
  })

  it('does not make a contour cross itself, turn over or vanish', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 2000 }), (seed) => {
        const before = expandLine(randomLine(seed), TOLERANCE)
        const { contours } = simplifyContours(before, { tolerance: 1 })
        expect(contours).toHaveLength(before.length)
        contours.forEach((c, i) =>
          expect(areaOfCubics(cubicsOfPath(c)) * areaOfCubics(cubicsOfPath(before[i]!))).toBeGreaterThan(0),
        )
        expect(new FlatOutline(contours.map(cubicsOfPath), 0.02).deepestCrossing()).toBeLessThan(1e-6)
      }),
      { seed: 4, numRuns: 25 },
    )
  })

  it('leaves alone what it cannot make simpler', () => {
    const square = rectangle(0, 0, 10, 10)
    const result = simplifyContours([square], { tolerance: 0.1 })
    expect(result).toMatchObject({ contours: [square], deviation: 0, nodesBefore: 4, nodesAfter: 4 })
  })
})

describe('shapes of a drawing', () => {
  const line = (x: number, ink = 'black') => newLine(polyline(x, 0, x, 50), { ink, finish: roundFinish() })
  const drawing = (unite: boolean, simplify = 0) =>
    newDrawing('Test', {
      layers: [
        newLinesLayer('A', [line(0), line(3), line(4, 'red')]),
        { ...newLinesLayer('Hidden', [line(90)]), visible: false },
      ],
      settings: { shapes: { unite, tolerance: 0.05, simplify } },
    })
  const derive = (d: ReturnType<typeof drawing>) => {
    const steps = openInk(d).shapes()
    const shares: number[] = []
    for (;;) {
      const step = steps.next()
      if (step.done) return { result: step.value, shares }
      shares.push(step.value)
    }
  }

  it('are united by ink, remember their lines, and leave hidden layers out', () => {
    const { result } = derive(drawing(true))
    expect(result.shapes.map((s) => [s.ink, s.from.length])).toEqual([
      ['black', 2],
      ['red', 1],
    ])
  })

  it('stay apart when asked', () => {
    expect(derive(drawing(false)).result.shapes).toHaveLength(3)
  })

  it('count their nodes and report their progress in order', () => {
    const { result, shares } = derive(drawing(true, 0.2))
    expect(result.nodesAfter).toBe(result.shapes.reduce((n, s) => n + nodes(s.contours), 0))
    expect(shares).toEqual([...shares].sort((a, b) => a - b))
    expect(shares.at(-1)).toBeLessThanOrEqual(1)
  })
})
