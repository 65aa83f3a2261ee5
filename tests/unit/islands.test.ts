import { describe, expect, it } from 'vitest'
import { evenWeight, newDrawing, newLine, newLinesLayer } from '#core/model/create'
import type { Amendment, Drawing, Line } from '#core/model/model'
import type { Vec } from '#core/geometry/point'
import { copiedLayer } from '#core/editing/layers'
import { areaOfCubics } from '#core/geometry/area'
import { cubicsOfPath } from '#core/geometry/path'
import { openInk } from '#core/ink/open-ink'
import { placesIn } from '#core/ink/stack/own-fineness'
import { shapesOf } from '#core/ink/shapes-of'
import { islandsOf } from '#core/shapes/islands'
import { wantsCut } from '#core/shapes/retouch'
import { atOnce } from '#core/turns'
import { findingsOf } from '#core/proof/findings-of'

const node = (x: number, y: number) => ({ at: { x, y }, in: null, out: null, joint: 'corner' as const })
const ring = (id: string, x: number, y: number, r: number): Line =>
  newLine(
    { nodes: [node(x - r, y - r), node(x + r, y - r), node(x + r, y + r), node(x - r, y + r)], closed: true },
    { id, weight: evenWeight(8) },
  )
const wavy = (id: string, y: number): Line =>
  newLine(
    {
      nodes: Array.from({ length: 9 }, (_, i) => ({
        at: { x: 60 + i * 50, y: y + (i % 2 ? 12 : -12) },
        in: i ? { x: 40 + i * 50, y: y + (i % 2 ? 12 : -12) } : null,
        out: { x: 80 + i * 50, y: y + (i % 2 ? 12 : -12) },
        joint: 'smooth' as const,
      })),
      closed: false,
    },
    { id, weight: evenWeight(9) },
  )
const drawingOf = (lines: Line[], amendments: Amendment[] = []): Drawing => ({
  ...newDrawing('Islands', { layers: [newLinesLayer('Lines', lines)] }),
  amendments,
})
const islands = (d: Drawing) =>
  shapesOf(d).shapes.map((s) => islandsOf(s.contours.map((c) => cubicsOfPath({ ...c, closed: true }))))
const areaOf = (d: Drawing): number =>
  shapesOf(d)
    .shapes.flatMap((s) => s.contours)
    .reduce((n, c) => n + areaOfCubics(cubicsOfPath({ ...c, closed: true })), 0)

describe('islands', () => {
  it('have their own holes, also where one lies in the hole of another', () => {
    const [only] = islands(drawingOf([ring('outer', 300, 250, 150), ring('inner', 300, 250, 60), wavy('below', 460)]))
    expect(only!.map((i) => i.length).sort()).toEqual([1, 2, 2])
  })

  it('are simplified by tolerances of their own, measured each by itself', () => {
    const lines = [wavy('a', 100), wavy('b', 300)]
    const plain = drawingOf(lines)
    const coarse = drawingOf(lines, [
      { id: 'f', kind: 'fineness', line: 'b', place: { at: 0.5, ahead: 0, left: 0 }, simplify: 2 },
    ])
    const nodes = (d: Drawing): number[] => shapesOf(d).shapes[0]!.contours.map((c) => c.nodes.length)
    expect(nodes(coarse)[0]).toBe(nodes(plain)[0])
    expect(nodes(coarse)[1]).toBeLessThan(nodes(plain)[1]!)
    const session = openInk(coarse)
    const measures = atOnce(session.shapes()).shapes[0]!.contours.map((c) => session.measureOf(c)!)
    expect(measures[0]!.deviation).toBeLessThanOrEqual(0.15)
    expect(measures[1]!.deviation).toBeGreaterThan(0.15)
    expect(measures[1]!.deviation).toBeLessThanOrEqual(2)
    // As expanded, where it is asked for.
    const [asExpanded] = shapesOf(
      drawingOf(lines, [{ id: 'f', kind: 'fineness', line: 'a', place: { at: 0.5, ahead: 0, left: 0 }, simplify: 0 }]),
    ).shapes
    expect(asExpanded!.contours[0]!.nodes).toHaveLength(measures[0]!.nodes)
  })

  it('waits, and is found by Proof, when its line has no ink there any more', () => {
    const d = drawingOf(
      [wavy('a', 100)],
      [
        { id: 'f', kind: 'fineness', line: 'gone', place: { at: 0.5, ahead: 0, left: 0 }, simplify: 1 },
        { id: 'r', kind: 'retouch', at: { x: 5, y: 5 }, to: null },
      ],
    )
    expect(shapesOf(d)).toMatchObject({ waiting: 2, waits: ['f', 'r'] })
    expect(
      findingsOf(d)
        .filter((f) => f.kind === 'waiting')
        .map((f) => f.mend),
    ).toEqual([
      { do: 'forget', amendment: 'f' },
      { do: 'forget', amendment: 'r' },
    ])
  })

  it('knows the lines in it', () => {
    const d = drawingOf([ring('outer', 300, 250, 150), ring('inner', 300, 250, 60)])
    const [shape] = shapesOf(d).shapes
    const lines = d.layers.flatMap((l) => (l.kind === 'lines' ? l.items : []))
    const cubics = shape!.contours.map((c) => cubicsOfPath({ ...c, closed: true }))
    expect(
      islandsOf(cubics)
        .map((i) =>
          placesIn(
            i.map((k) => cubics[k]!),
            lines,
          ).map((p) => p.line),
        )
        .sort(),
    ).toEqual([['inner'], ['outer']])
  })

  it('stay apart where that is asked for, and so do copies of them', () => {
    const across = [
      wavy('a', 100),
      {
        ...newLine({ nodes: [node(200, 40), node(220, 180)], closed: false }, { id: 'b', weight: evenWeight(9) }),
        apart: 'figure',
      },
    ]
    expect(islands(drawingOf(across)).map((i) => i.length)).toEqual([1, 1])
    const copy = copiedLayer(drawingOf(across).layers[0]!, 'Copy').items as Line[]
    expect(copy[1]!.apart).toBeTruthy()
    expect(copy[1]!.apart).not.toBe('figure')
  })
})

describe('a node dragged across its shape', () => {
  it('cuts it, and what is dragged on after that keeps its place', () => {
    // A bar whose two right corners go past its left end: nothing is left on their side.
    const bar = newLine(
      { nodes: [node(100, 100), node(300, 100)], closed: false },
      {
        id: 'bar',
        weight: evenWeight(40),
        finish: { startCap: 'butt', endCap: 'butt', join: 'miter', miterLimit: 4, align: 'centre', dash: [] },
      },
    )
    const plain = drawingOf([bar])
    const corner = (x: number, y: number): Vec =>
      shapesOf(plain).shapes[0]!.contours[0]!.nodes.find((n) => Math.hypot(n.at.x - x, n.at.y - y) < 1)!.at
    const moved: Amendment = { id: 'm', kind: 'retouch', at: corner(300, 120), to: node(200, 40) }
    const crossed = drawingOf([bar], [moved])
    const contours = shapesOf(crossed).shapes[0]!.contours
    expect(wantsCut(contours, 0.05)).toBe(true)
    const cut = drawingOf([bar], [moved, { id: 'c', kind: 'retouch', at: { x: 200, y: 40 }, to: 'cut' }])
    expect(wantsCut(shapesOf(cut).shapes[0]!.contours, 0.05)).toBe(false)
    // The edge from (300, 80) to (200, 40) to (100, 120) crosses the upper edge at x = 150: a triangle is left.
    expect(areaOf(cut)).toBeCloseTo((50 * 40) / 2, 0)
    const on = drawingOf(
      [bar],
      [...cut.amendments!, { id: 'o', kind: 'retouch', at: corner(100, 80), to: node(90, 70) }],
    )
    expect(shapesOf(on).waiting).toBe(0)
  })
})
