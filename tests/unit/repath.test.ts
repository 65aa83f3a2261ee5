import { describe, expect, it } from 'vitest'
import fc from 'fast-check'
import { applyPatches } from '#core/document/apply-patches'
import { makeEdit } from '#core/document/edits'
import { newDrawing, newLine, newLinesLayer } from '#core/model/create'
import { findLine } from '#core/model/find'
import { retouchOn } from '#core/shapes/retouch'
import { plainLine } from './support/desk'
import { withoutNode } from '#core/editing/edit-path'
import { repath } from '#core/editing/repath'
import { withNodeAt } from '#core/geometry/add-node'
import { ArcLength } from '#core/geometry/arc-length'
import { distance } from '#core/geometry/point'
import type { Path, PathNode } from '#core/geometry/path'
import { cubicsOfPath } from '#core/geometry/path'

const coordinate = fc.integer({ min: 0, max: 900 })
const node = fc
  .record({
    x: coordinate,
    y: coordinate,
    dx: fc.integer({ min: -60, max: 60 }),
    dy: fc.integer({ min: -60, max: 60 }),
  })
  .map(({ x, y, dx, dy }): PathNode => ({
    at: { x, y },
    in: { x: x - dx, y: y - dy },
    out: { x: x + dx, y: y + dy },
    joint: 'smooth',
  }))

const at = (path: Path, share: number) => {
  const arc = new ArcLength(cubicsOfPath(path))
  const { segment, t } = arc.locate(share * arc.total)
  return { segment, point: pointOf(path, segment, t) }
}
const pointOf = (path: Path, segment: number, t: number) => {
  const { p0, p1, p2, p3 } = cubicsOfPath(path)[segment]!
  const u = 1 - t
  const on = (k: 'x' | 'y'): number =>
    u * u * u * p0[k] + 3 * u * u * t * p1[k] + 3 * u * t * t * p2[k] + t * t * t * p3[k]
  return { x: on('x'), y: on('y') }
}

/** Edits of a path near one of its nodes, and the segments that each of them leaves as they are. */
const EDITS: Record<string, (path: Path, k: number) => { path: Path; touched: number[] } | null> = {
  'a node moved': ({ nodes, closed }, k) => ({
    path: { closed, nodes: nodes.map((n, i) => (i === k ? { ...n, at: { x: n.at.x + 70, y: n.at.y - 40 } } : n)) },
    touched: around(nodes.length, closed, k),
  }),
  'a node out': (path, k) => ({ path: withoutNode(path, k), touched: around(path.nodes.length, path.closed, k) }),
  'a node in': (path, k) => (k < path.nodes.length - 1 ? { path: withNodeAt(path, k, 0.3), touched: [] } : null),
  'on from the end': ({ nodes, closed }) =>
    closed
      ? null
      : {
          path: { closed, nodes: [...nodes, { ...nodes[0]!, at: { x: 950, y: 17 }, in: null, out: null }] },
          touched: [],
        },
  'on from the start': ({ nodes, closed }) =>
    closed
      ? null
      : {
          path: { closed, nodes: [{ ...nodes[0]!, at: { x: 950, y: 17 }, in: null, out: null }, ...nodes] },
          touched: [],
        },
  closed: ({ nodes, closed }) => (closed ? null : { path: { nodes, closed: true }, touched: [] }),
}
const around = (n: number, closed: boolean, k: number): number[] =>
  [k - 1, k].map((i) => (closed ? (i + n) % n : i)).filter((i) => i >= 0 && i < (closed ? n : n - 1))

describe('a line that gets another path', () => {
  for (const [what, edit] of Object.entries(EDITS))
    it(`keeps its widths where they were: ${what}`, () => {
      fc.assert(
        fc.property(
          fc.array(node, { minLength: 4, maxLength: 9 }),
          fc.boolean(),
          fc.nat(8),
          fc.array(fc.double({ min: 0.01, max: 0.99, noNaN: true }), { minLength: 2, maxLength: 6 }),
          (nodes, closed, k, shares) => {
            const path = { nodes, closed }
            const made = edit(path, k % nodes.length)
            if (!made) return
            const stops = [...shares].sort((a, b) => a - b).map((s, i) => ({ at: s, left: 1 + i, right: 0.25 * i }))
            const line = newLine(path, { weight: { size: 8, stops, start: null, end: null, nib: null, pinned: false } })
            const before = stops.map((s) => at(path, s.at))
            repath(line, made.path, null)
            for (const [i, was] of before.entries()) {
              if (made.touched.includes(was.segment)) continue
              const near = line.weight.stops.map((s) =>
                s.left === stops[i]!.left ? distance(at(line.path, s.at).point, was.point) : Infinity,
              )
              expect(Math.min(...near), `stop ${i}`).toBeLessThan(0.5)
            }
          },
        ),
        { numRuns: 500 },
      )
    })

  it('has the width of the cut at its new end, and no stop beyond', () => {
    const straight = (x: number): PathNode => ({ at: { x, y: 5 }, in: null, out: null, joint: 'corner' })
    const stops = [
      { at: 0, left: 1, right: 3 },
      { at: 0.9, left: 2, right: 1 },
    ]
    const weight = { size: 8, stops, start: null, end: null, nib: null, pinned: false }
    const path = { nodes: [0, 50, 100].map(straight), closed: false }
    const line = newLine(path, { weight, snips: [{ from: 0.2, to: 0.4 }] })
    repath(line, withoutNode(path, 2), null)
    expect(line.weight.stops[0]).toEqual(stops[0])
    const [, end] = line.weight.stops
    expect(line.weight.stops).toHaveLength(2)
    expect(end!.at).toBe(1)
    expect(end!.left).toBeGreaterThan(1.4)
    expect(end!.right).toBeLessThan(2.1)
    expect(line.snips).toEqual([{ from: 0.4, to: 0.8 }])
  })
})

it('undone, what hangs on the line is where it was', () => {
  const line = { ...plainLine({ x: 3, y: 8 }, { x: 97, y: 20 }, 9), id: 'a' }
  const before = newDrawing('Test', {
    layers: [newLinesLayer('Ink', [line])],
    amendments: [
      retouchOn([line], { at: { x: 40, y: 9 }, to: 'add' }),
      { id: 't', kind: 'trim', line: 'a', place: { at: 0.4, ahead: 0, left: 0 }, over: [], bounds: [] },
    ],
  })
  const last = { at: { x: 180, y: 44 }, in: null, out: null, joint: 'corner' } as const
  const { drawing, edit } = makeEdit(before, 'Go on', (draft) => {
    const found = findLine(draft, 'a')!.line
    repath(found, { ...found.path, nodes: [...found.path.nodes, last] }, draft)
  })!
  expect(drawing.amendments).not.toEqual(before.amendments)
  expect(applyPatches(drawing, JSON.parse(JSON.stringify(edit.inverse)))).toEqual(before)
})
