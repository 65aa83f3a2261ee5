import { describe, expect, it } from 'vitest'
import { newDrawing, newLinesLayer } from '#core/model/create'
import type { Drawing } from '#core/model/model'
import type { Path } from '#core/geometry/path'
import { movedLine } from '#core/editing/move'
import { patchesBetween } from '#core/document/patches-between'
import { applyPatches } from '#core/document/apply-patches'
import { checkDrawing } from '#core/document/check-drawing'
import { withNodeAt } from '#core/geometry/add-node'
import { withoutNode } from '#core/editing/edit-path'
import { shapesOf } from '#core/ink/shapes-of'
import { retouchesBetween } from '#core/shapes/retouch'
import { plainLine } from './support/desk'

const drawingOf = (over: Partial<Drawing> = {}): Drawing =>
  newDrawing('Test', {
    layers: [newLinesLayer('Lines', [{ ...plainLine({ x: 0, y: 0 }, { x: 100, y: 0 }, 10), id: 'a' }])],
    ...over,
  })

const contourOf = (d: Drawing): Path => shapesOf(d).shapes[0]!.contours[0]!
const withRetouches = (d: Drawing, edit: (c: Path) => Path): Drawing => {
  const before = contourOf(d)
  return { ...d, amendments: [...(d.amendments ?? []), ...retouchesBetween([before], [edit(before)])] }
}

describe('a retouch of an outline', () => {
  const edits: [string, (c: Path) => Path][] = [
    [
      'a moved node',
      (c) => ({ ...c, nodes: c.nodes.map((n, i) => (i === 1 ? { ...n, at: { x: n.at.x + 3, y: n.at.y - 2 } } : n)) }),
    ],
    ['a node that went', (c) => withoutNode(c, 1)],
    ['a node that came', (c) => withNodeAt(c, 0, 0.4)],
  ]

  it.each(edits)('(%s) is put on whenever the outlines are made', (_, edit) => {
    const plain = drawingOf()
    const goal = edit(contourOf(plain))
    const result = shapesOf(withRetouches(plain, edit))
    expect(result.waiting).toBe(0)
    const [got] = result.shapes[0]!.contours
    expect(got!.nodes).toHaveLength(goal.nodes.length)
    got!.nodes.forEach((n, i) => {
      expect(Math.hypot(n.at.x - goal.nodes[i]!.at.x, n.at.y - goal.nodes[i]!.at.y)).toBeLessThan(1e-6)
      const [a, b] = [n.in ?? n.at, goal.nodes[i]!.in ?? goal.nodes[i]!.at]
      expect(Math.hypot(a.x - b.x, a.y - b.y)).toBeLessThan(1e-6)
    })
  })

  it('follows others, and waits when the line has gone elsewhere; the line itself never changes', () => {
    const once = withRetouches(drawingOf(), edits[0]![1])
    const twice = withRetouches(once, (c) => ({
      ...c,
      nodes: c.nodes.map((n, i) => (i === 1 ? { ...n, at: { x: n.at.x + 4, y: n.at.y } } : n)),
    }))
    expect(contourOf(twice).nodes[1]!.at.x - contourOf(drawingOf()).nodes[1]!.at.x).toBeCloseTo(7, 9)
    const line = drawingOf().layers[0]!.items[0]!
    const away = { ...twice, layers: [newLinesLayer('Lines', [movedLine(line as never, { x: 0, y: 200 })])] }
    expect(shapesOf(away)).toMatchObject({ waiting: 2 })
    expect(shapesOf(away).shapes[0]!.contours).toEqual(shapesOf({ ...away, amendments: [] }).shapes[0]!.contours)
  })

  it('passes the schema and travels as a patch; one that makes no sense does not', () => {
    const plain = drawingOf()
    const drawing = withRetouches(plain, edits[1]![1])
    expect(checkDrawing(JSON.parse(JSON.stringify(drawing)))).toBeTruthy()
    expect(applyPatches(plain, patchesBetween(plain, drawing)).amendments).toEqual(drawing.amendments)
    expect(() =>
      checkDrawing({ ...drawing, amendments: [{ id: 'r', kind: 'retouch', at: { x: Number.NaN, y: 0 }, to: null }] }),
    ).toThrow(/amendments\[0\]/)
    expect(() =>
      checkDrawing({ ...drawing, amendments: [{ id: 'r', kind: 'retouch', at: { x: 1, y: 0 }, to: 'gone' }] }),
    ).toThrow(/amendments/)
  })
})

it('a field that an item may lack comes and goes by its patch, also after a journey as text', () => {
  const plain = { ...plainLine({ x: 0, y: 0 }, { x: 9, y: 0 }), id: 'a' }
  const line = { ...plain, scrapes: [{ nodes: [], closed: true }] }
  const [before, after] = [line, plain].map((l) =>
    newDrawing('Test', { id: 'd', layers: [{ ...newLinesLayer('Lines', [l]), id: 'l' }] }),
  )
  const travelled = (a: typeof before, b: typeof before) => JSON.parse(JSON.stringify(patchesBetween(a!, b!)))
  expect(applyPatches(before!, travelled(before, after)).layers[0]!.items[0]).toEqual(plain)
  expect(applyPatches(after!, travelled(after, before)).layers[0]!.items[0]).toEqual(line)
})
