import { describe, expect, it } from 'vitest'
import { newDrawing, newLinesLayer } from '#core/model/create'
import type { Drawing, Line } from '#core/model/model'
import { linesOf } from '#core/model/queries'
import { pointAt } from '#core/geometry/cubic'
import { arcOfPath } from '#core/geometry/known'
import type { Path } from '#core/geometry/path'
import { cubicsOfPath, mapPath } from '#core/geometry/path'
import type { Vec } from '#core/geometry/point'
import { distance } from '#core/geometry/point'
import { nearestIndex } from '#core/geometry/polyline'
import { carriedAmendments, copiedLines } from '#core/editing/copies'
import { reversedLine } from '#core/editing/edit-line'
import { repath } from '#core/editing/repath'
import { followRemade, turnedRound } from '#core/editing/remade-lines'
import { changed } from '#core/document/edits'
import type { LinesLayer } from '#core/model/model'
import { movedLine } from '#core/editing/move'
import { patchesBetween } from '#core/document/patches-between'
import { applyPatches } from '#core/document/apply-patches'
import { checkDrawing } from '#core/document/check-drawing'
import { withNodeAt } from '#core/geometry/add-node'
import { withoutNode } from '#core/editing/edit-path'
import { shapesOf } from '#core/ink/shapes-of'
import { retouchesBetween, retouchOn } from '#core/shapes/retouch'
import { plainLine } from './support/desk'

const drawingOf = (over: Partial<Drawing> = {}): Drawing =>
  newDrawing('Test', {
    layers: [newLinesLayer('Lines', [{ ...plainLine({ x: 0, y: 0 }, { x: 100, y: 0 }, 10), id: 'a' }])],
    ...over,
  })

const contourOf = (d: Drawing): Path => shapesOf(d).shapes[0]!.contours[0]!
const withRetouches = (d: Drawing, edit: (c: Path) => Path, isHung = false): Drawing => {
  const before = contourOf(d)
  const lines = isHung ? linesOf(d) : []
  return { ...d, amendments: [...(d.amendments ?? []), ...retouchesBetween([before], [edit(before)], lines)] }
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
    const hung = withRetouches(plain, edits[0]![1], true)
    const cut = retouchOn(linesOf(plain), { at: { x: 50, y: 5 }, to: 'cut' })
    expect(checkDrawing(JSON.parse(JSON.stringify({ ...hung, amendments: [...hung.amendments!, cut] })))).toBeTruthy()
    expect(() =>
      checkDrawing({ ...drawing, amendments: [{ id: 'r', kind: 'retouch', at: { x: Number.NaN, y: 0 }, to: null }] }),
    ).toThrow(/amendments\[0\]/)
    expect(() =>
      checkDrawing({ ...drawing, amendments: [{ id: 'r', kind: 'retouch', at: { x: 1, y: 0 }, to: 'gone' }] }),
    ).toThrow(/amendments/)
  })
})

describe('a retouch that hangs on a line', () => {
  /** A wavy line whose outline has no two stretches alike. */
  const wavy: Line = {
    ...plainLine({ x: 20, y: 60 }, { x: 320, y: 40 }, 14),
    id: 'a',
    path: {
      closed: false,
      nodes: [
        { at: { x: 20, y: 60 }, in: null, out: { x: 90, y: -30 }, joint: 'smooth' },
        { at: { x: 170, y: 70 }, in: { x: 120, y: 20 }, out: { x: 220, y: 120 }, joint: 'smooth' },
        { at: { x: 320, y: 40 }, in: { x: 300, y: 140 }, out: null, joint: 'smooth' },
      ],
    },
  }
  const drawn = (line: Line, amendments?: Drawing['amendments']): Drawing =>
    newDrawing('Test', { layers: [newLinesLayer('Lines', [line])], ...(amendments && { amendments }) })
  /** The node of the outline's upper edge nearest to a third of the line is pulled out by 9 px. */
  const spot = { x: 110, y: 20 }
  const nearestNode = (c: Path, p: Vec): number =>
    nearestIndex(
      c.nodes.map((n) => n.at),
      p,
    )
  const pulled = (c: Path): Path => {
    const i = nearestNode(c, spot)
    const out = (p: Vec | null): Vec | null => p && { x: p.x + 4, y: p.y - 8 }
    const n = c.nodes[i]!
    return { ...c, nodes: c.nodes.with(i, { ...n, at: out(n.at)!, in: out(n.in), out: out(n.out) }) }
  }
  const retouched = withRetouches(drawn(wavy), pulled, true)
  const mapped = (map: (p: Vec) => Vec): Line => ({ ...wavy, path: mapPath(wavy.path, map) })
  const ringOf = (c: Path): Vec[] =>
    cubicsOfPath({ ...c, closed: true }).flatMap((k) =>
      [0, 0.1, 0.2, 0.3, 0.4, 0.5, 0.6, 0.7, 0.8, 0.9].map((t) => pointAt(k, t)),
    )
  /** How far the outline with the retouch lies from the one without, at most, and where. */
  const bump = (line: Line): { far: number; at: Vec; waiting: number } => {
    const made = shapesOf(drawn(line, retouched.amendments))
    const plain = arcOfPath({ ...contourOf(drawn(line)), closed: true })
    let most = { far: 0, at: spot }
    for (const p of ringOf(made.shapes[0]!.contours[0]!)) {
      const far = plain.nearest(p).distance
      if (far > most.far) most = { far, at: p }
    }
    return { ...most, waiting: made.waiting }
  }
  // Between other nodes the same pull makes a somewhat narrower or wider bump.
  const here = bump(wavy)

  it('goes where the line is moved and turned, as it was made', () => {
    expect(here.far).toBeGreaterThan(4)
    const turn = (p: Vec): Vec => ({ x: 400 + 0.6 * p.x - 0.8 * p.y, y: 90 + 0.8 * p.x + 0.6 * p.y })
    for (const map of [(p: Vec): Vec => ({ x: p.x - 7.3, y: p.y + 230 }), turn]) {
      const there = bump(mapped(map))
      expect(there.waiting).toBe(0)
      expect(Math.abs(there.far - here.far)).toBeLessThan(0.3)
      expect(distance(there.at, map(here.at))).toBeLessThan(1)
    }
  })

  it('stays on the line, at its place, when that is bent or weighed', () => {
    const [a, b, c] = wavy.path.nodes
    const bent: Line = { ...wavy, path: { closed: false, nodes: [a!, { ...b!, at: { x: 176, y: 61 } }, c!] } }
    const heavy: Line = { ...wavy, weight: { ...wavy.weight, size: 22 } }
    const swelling: Line = {
      ...wavy,
      weight: {
        ...wavy.weight,
        stops: [
          { at: 0, left: 0.6, right: 1 },
          { at: 0.3, left: 1.4, right: 0.8 },
          { at: 1, left: 1, right: 0.5 },
        ],
      },
    }
    for (const [line, grows] of [
      [bent, 1],
      [heavy, 22 / 14],
      [swelling, 1.4],
    ] as const) {
      const there = bump(line)
      expect(there.waiting).toBe(0)
      expect(there.far).toBeGreaterThan(0.5 * here.far * Math.min(1, grows))
      expect(there.far).toBeLessThan(1.8 * here.far * grows)
      expect(distance(there.at, here.at)).toBeLessThan(16)
    }
  })

  it('stays at its place when the line goes on beyond an end', () => {
    const longer = changed(retouched, (draft) => {
      const line = (draft.layers[0] as LinesLayer).items[0]!
      const last = { at: { x: 470, y: 10 }, in: null, out: null, joint: 'smooth' } as const
      repath(line, { closed: false, nodes: [...wavy.path.nodes, last] }, draft)
    })
    const made = shapesOf(longer)
    expect(made.waiting).toBe(0)
    const goal = ringOf(contourOf(retouched)).filter((p) => p.x < 250)
    const got = arcOfPath({ ...made.shapes[0]!.contours[0]!, closed: true })
    for (const p of goal) expect(got.nearest(p).distance).toBeLessThan(0.1 * here.far)
  })

  it('comes along with a copy and with a line turned round; it waits only when the line is gone', () => {
    const [copy] = copiedLines([wavy], { x: 40, y: 150 }, [])
    const carried = carriedAmendments(retouched.amendments!, new Map([['a', copy!.id]]))
    expect(shapesOf(drawn(copy!, carried)).waiting).toBe(0)
    const round = changed(retouched, (draft) => {
      ;(draft.layers[0] as LinesLayer).items[0]! = reversedLine(wavy)
      followRemade(retouched, draft, new Map([['a', turnedRound('a')]]))
    })
    const [was, is] = [retouched, round].map((d) => shapesOf(d))
    expect(is!.waiting).toBe(0)
    const goal = arcOfPath({ ...was!.shapes[0]!.contours[0]!, closed: true })
    for (const p of ringOf(is!.shapes[0]!.contours[0]!)) expect(goal.nearest(p).distance).toBeLessThan(0.1 * here.far)
    const other = { ...mapped((p) => ({ x: p.x, y: p.y + 300 })), id: 'b' }
    expect(shapesOf(drawn(other, retouched.amendments)).waiting).toBe(1)
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
