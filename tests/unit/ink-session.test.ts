import fc from 'fast-check'
import { current } from 'immer'
import { describe, expect, it } from 'vitest'
import { evenWeight, newDrawing, newLine, newLinesLayer } from '#core/model/create'
import type { Drawing, Line } from '#core/model/model'
import { makeEdit } from '#core/document/edits'
import type { Patch } from '#core/document/patch'
import { applyPatches } from '#core/document/apply-patches'
import { cubicsOfPath } from '#core/geometry/path'
import { seenLines } from '#core/model/queries'
import { edgeOf, holdOf } from '#core/ink/regions/edge'
import { openInk } from '#core/ink/open-ink'
import { Book } from '#core/recall/book'
import { shapesOf } from '#core/ink/shapes-of'
import { SideFinder } from '#core/ink/regions/side-finder'
import { atOnce } from '#core/turns'
import { FlatOutline } from './support/flat-outline'
import { seeded } from './support/random-lines'
import { polyline } from './support/paths'
import { few } from './support/thorough'
import { findingsIn } from '#core/proof/findings-of'
import { strokes } from '../../bench/strokes'

const bar = (id: string, from: [number, number], to: [number, number], over: Partial<Line> = {}): Line => ({
  ...newLine(polyline(...from, ...to), { weight: evenWeight(20), id }),
  ...over,
})

/** A drawing of bars across each other on two layers, in two inks. */
function meshOf(count: number): Drawing {
  const r = seeded(3)
  const lines = Array.from({ length: count }, (_, i) => {
    const [x, y, a] = [40 + r() * 300, 40 + r() * 200, r() * 7]
    const line = bar(`l${i}`, [x, y], [x + 90 * Math.cos(a), y + 90 * Math.sin(a)], { ink: i % 5 ? 'black' : 'white' })
    return { ...line, weight: { ...line.weight, size: 3 + r() * 9 } }
  })
  // A patch that covers what lies behind it.
  const corners: [number, number][] = [
    [150, 90],
    [260, 100],
    [240, 190],
    [140, 180],
  ]
  lines.push({
    ...newLine(
      {
        nodes: corners.map(([x, y]) => ({ at: { x, y }, in: null, out: null, joint: 'corner' as const })),
        closed: true,
      },
      { weight: evenWeight(4), id: 'patch' },
    ),
    cover: true,
  })
  const drawing = newDrawing('Mesh', {
    layers: [newLinesLayer('Below', lines.slice(0, count / 2)), newLinesLayer('Above', lines.slice(count / 2))],
  })
  return { ...drawing, inks: [...drawing.inks, { id: 'white', name: 'White', colour: '#ffffff' }] }
}

/** What is kept from one life of the application to the next: whole, damaged at one place, cut off, or of another engine. */
class Library {
  readonly book: Book

  constructor(
    private pages: Uint8Array[] = [],
    private readonly engine = 'one',
  ) {
    this.book = new Book(engine)
    for (const page of pages) this.book.read(page)
  }

  closed(a: number, b: number): Library {
    if (b % 3) this.pages.push(this.book.written())
    else this.pages = [this.book.rewritten()]
    const pages = this.pages.map((page) => page.slice(0, a % 5 ? page.length : (page.length * b) / 60))
    const [last] = pages.slice(-1)
    if (b % 2 && last!.length) last![(a * 104_729 + b * 7919) % last!.length]! ^= 1 << (a % 8)
    return new Library(pages, a % 7 ? this.engine : `${this.engine}'`)
  }
}

/** What a hand may do to the drawing. */
type Act = (draft: Drawing, a: number, b: number) => void
const lineAt = (d: Drawing, a: number): Line | undefined => {
  const all = d.layers.flatMap((l) => (l.kind === 'lines' ? l.items : []))
  return all[a % Math.max(1, all.length)]
}
const ACTS: readonly Act[] = [
  (d, a, b) => void (lineAt(d, a) && (lineAt(d, a)!.path.nodes[b % 2]!.at.x += (b % 7) - 3)),
  (d, a, b) =>
    void (
      lineAt(d, a) &&
      (lineAt(d, a)!.weight.stops = [
        { at: 0, left: (b % 4) / 2, right: 1 },
        { at: 1, left: 1, right: (b % 3) / 2 },
      ])
    ),
  (d, a, b) => void (lineAt(d, a) && (lineAt(d, a)!.snips = b % 2 ? [{ from: 0.4, to: 0.5 }] : [])),
  (d, a, b) => void (lineAt(d, a) && (lineAt(d, a)!.ink = b % 2 ? 'black' : 'white')),
  (d, _, b) => {
    const patch = d.layers.flatMap((l) => l.items as Line[]).find((l) => l.id === 'patch')
    if (patch) patch.path.nodes[b % 4]!.at.x += (b % 11) - 5
  },
  (d, a) => void (d.layers[a % 2]!.visible = !d.layers[a % 2]!.visible),
  (d, a) => void (d.layers[a % 2]!.items as Line[]).splice(a % Math.max(1, d.layers[a % 2]!.items.length), 1),
  (d) => void d.layers.reverse(),
  (d, _, b) => void (d.settings.shapes.simplify = [0, 0.15, 0.5][b % 3]!),
  (d, _, b) => void (d.settings.shapes.unite = b % 4 !== 0),
  (d, _, b) => void (d.page.width = [720, 400, 1500][b % 3]!),
  (d, a, b) => {
    const line = lineAt(d, a)
    if (line)
      d.amendments = b % 2 ? [{ id: `r${b}`, kind: 'retouch', at: { ...line.path.nodes[0]!.at }, to: null }] : []
  },
  (d, a, b) => {
    const line = lineAt(d, a)
    if (line)
      d.amendments = [
        ...(d.amendments ?? []),
        {
          id: `f${a} ${b} ${d.amendments?.length ?? 0}`,
          kind: 'fineness',
          line: line.id,
          place: { at: (b % 10) / 10, ahead: 0, left: 0 },
          simplify: [0, 0.4, 1.5][b % 3]!,
        },
      ]
  },
  (d, a, b) => void (lineAt(d, a) && (b % 3 ? (lineAt(d, a)!.apart = `figure ${b % 2}`) : delete lineAt(d, a)!.apart)),
  (d, a, b) => {
    // Whatever region lies about a point is poured, or another ink is poured over what was.
    const now = structuredClone(current(d))
    const paper = atOnce(openInk(now).paper((b % 3) * 2))
    const faces = paper.index.faces.filter((f) => f.box)
    const face = faces[a % Math.max(1, faces.length)]
    const where = (['region', 'region', 'region', 'open', 'page'] as const)[b % 5]!
    if (!face) return
    const hold = [...holdOf(edgeOf(face, new SideFinder(seenLines(now)), paper.bridges, 1))]
    d.fills = [
      ...(d.fills ?? []),
      {
        id: `p${a} ${b} ${d.fills?.length ?? 0}`,
        ink: b % 2 ? 'black' : 'white',
        where,
        at: { x: a, y: b },
        hold,
        gap: ((b % 3) * 2) / now.page.pxPerMm,
        ...(b % 4 === 0 && { under: 0.1 }),
      },
    ]
  },
  (d, a, b) => {
    if (!d.fills?.length) return
    const fill = d.fills[a % d.fills.length]!
    if (b % 3 === 0) d.fills.splice(a % d.fills.length, 1)
    else fill.ink = b % 2 ? 'black' : 'white'
  },
  (d, _, b) => void (d.settings.shapes.corner = [5, 14, 60][b % 3]!),
  (d, a, b) => {
    // A node of an outline is dragged across it, and what comes to lie outside in is cut away.
    const shape = shapesOf(structuredClone(current(d))).shapes[0]
    const contour = shape?.contours[a % shape.contours.length]
    if (!contour) return
    const [node, far] = [contour.nodes[b % contour.nodes.length]!, contour.nodes[(b + 3) % contour.nodes.length]!.at]
    const to = { x: 2 * far.x - node.at.x, y: 2 * far.y - node.at.y }
    d.amendments = [
      ...(d.amendments ?? []),
      {
        id: `m${a} ${b} ${d.amendments?.length ?? 0}`,
        kind: 'retouch',
        at: node.at,
        to: { at: to, in: null, out: null, joint: 'corner' },
      },
      { id: `x${a} ${b} ${d.amendments?.length ?? 0}`, kind: 'retouch', at: to, to: 'cut' },
    ]
  },
  (d, a, b) => void (lineAt(d, a) && (lineAt(d, a)!.tuck = { first: (['out', 'in', 'under'] as const)[b % 3]! })),
  (d, _, b) => void (d.settings.tuck = b % 3 !== 0),
  (d, a, b) => {
    // Two ends are brought together, and the corner finished.
    const [one, two] = [lineAt(d, a), lineAt(d, a + 1)]
    if (!one || !two || one === two || one.path.closed || two.path.closed) return
    two.path.nodes[0]!.at = { ...one.path.nodes[1]!.at }
    if (b % 2) d.settings.corner = (['pointed', 'rounded', 'caps'] as const)[b % 3]!
    else
      d.amendments = [
        ...(d.amendments ?? []),
        {
          id: `c${a} ${b} ${d.amendments?.length ?? 0}`,
          kind: 'corner',
          ends: [
            { line: one.id, end: 'last' },
            { line: two.id, end: 'first' },
          ],
          style: (['pointed', 'tucked', 'crossing'] as const)[b % 3]!,
        },
      ]
  },
  (d, a, b) => {
    const line = lineAt(d, a)
    if (!line) return
    // Whatever lies under a point of the line is trimmed, from one line or another.
    const [p, q] = [line.path.nodes[0]!.at, line.path.nodes[1]!.at]
    const hits = atOnce(
      openInk(structuredClone(current(d))).piecesAt({
        x: p.x + ((q.x - p.x) * (b % 10)) / 10,
        y: p.y + ((q.y - p.y) * (b % 10)) / 10,
      }),
    )
    const hit = hits[b % Math.max(1, hits.length)]
    if (hit)
      d.amendments = [
        ...(d.amendments ?? []),
        { id: `t${a} ${b} ${d.amendments?.length ?? 0}`, kind: 'trim', ...hit.trim },
      ]
  },
]

describe('an ink session', () => {
  it(
    'gives exactly what a fresh start gives, through edits, undo, edits that come from elsewhere, and lives of the application',
    { timeout: 120_000 },
    () => {
      const start = meshOf(24)
      const steps = fc.array(
        fc.record({
          act: fc.nat(ACTS.length - 1),
          a: fc.nat(60),
          b: fc.nat(60),
          how: fc.constantFrom('edit', 'edit', 'edit', 'undo', 'drop', 'reopen'),
        }),
        { minLength: 3, maxLength: 10 },
      )
      fc.assert(
        fc.property(steps, (all) => {
          let library = new Library()
          let session = openInk(start, library.book)
          const undo: Patch[][] = []
          let now = start
          for (const { act, a, b, how } of all) {
            if (how === 'reopen') {
              session.keepWholes()
              library = library.closed(a, b)
              session = openInk(structuredClone(now), library.book)
              expect(atOnce(session.shapes())).toEqual(shapesOf(now))
              continue
            }
            const back = how === 'undo' ? undo.pop() : undefined
            if (back) now = applyPatches(now, back)
            const made = back ? null : makeEdit(now, 'Step', (d) => ACTS[act]!(d, a, b))
            if (made) {
              undo.push(made.edit.inverse)
              now = made.drawing
            }
            session.apply(back ?? made?.edit.patches ?? [])
            if (how === 'drop') {
              // Somebody looked, and lost interest in the middle.
              const work = session.shapes()
              for (let i = 0; i < b % 9; i++) if (work.next().done) break
              continue
            }
            expect(session.drawing).toEqual(now)
            expect(atOnce(session.shapes())).toEqual(shapesOf(now))
          }
          // Regions that bridges part are the same to a millionth of a px, see docs/ink.md; their number and order, and the bridges, are exact.
          const [kept, made] = [atOnce(session.paper(2)), atOnce(openInk(session.drawing).paper(2))]
          expect(kept.bridges).toEqual(made.bridges)
          expect(kept.index.faces.map((f) => f.contours.map((c) => c.length))).toEqual(
            made.index.faces.map((f) => f.contours.map((c) => c.length)),
          )
          const points = (p: typeof kept): number[] =>
            p.index.faces.flatMap((f) =>
              f.contours.flatMap((c) => c.flatMap(({ p0, p1, p2 }) => [p0, p1, p2].flatMap(({ x, y }) => [x, y]))),
            )
          const fresh = points(made)
          expect(Math.max(0, ...points(kept).map((v, i) => Math.abs(v - fresh[i]!)))).toBeLessThan(1e-6)
        }),
        { seed: 5, numRuns: few(35, 500) },
      )
    },
  )

  it('works nothing out twice: opened again, all is found, and made ready from what was found', () => {
    const many = {
      ...newDrawing('Many', { layers: [newLinesLayer('Ink', strokes(560))] }),
      settings: meshOf(2).settings,
    }
    const library = new Library()
    const session = openInk(many, library.book)
    const made = atOnce(session.shapes())
    const found = atOnce(findingsIn(session))
    session.keepWholes()
    const { book } = library.closed(1, 2)
    const kept: string[] = []
    const again = openInk(structuredClone(many), {
      find: (key) => book.find(key),
      keep: (key, numbers) => void (kept.push(key), book.keep(key, numbers)),
      own: () => undefined,
    })
    const read = atOnce(again.shapes())
    expect(read).toEqual(made)
    expect(atOnce(findingsIn(again))).toEqual(found)
    expect(kept).toEqual([])
    expect(read.shapes.map((s) => s.contours.map((c) => again.measureOf(c)))).toEqual(
      made.shapes.map((s) => s.contours.map((c) => session.measureOf(c))),
    )
    // Each stage finds what it needs, and makes the very contours that were read.
    atOnce(again.ready())
    expect(kept).toEqual([])
    // Nothing is new, so there is nothing to be written.
    again.keepWholes()
    expect(book.fresh).toBe(0)
    const far = makeEdit(
      many,
      'One line',
      (d) => void (d.layers[0] as { items: Line[] }).items.push(bar('far', [2000, 2000], [2080, 2020])),
    )!
    again.apply(far.edit.patches)
    const contours = new Set(read.shapes.flatMap((s) => s.contours))
    expect(
      atOnce(again.shapes())
        .shapes.flatMap((s) => s.contours)
        .filter((c) => !contours.has(c)),
    ).toHaveLength(1)
    expect(atOnce(again.originals())(read.shapes[0]!.contours[0]!)).toEqual(
      atOnce(session.originals())(made.shapes[0]!.contours[0]!),
    )
  })

  it('finds nothing that does not fit: a next life of what any hand made of the drawing, and of another engine', () => {
    // Curves, nearly all ends of which are tucked, and two that meet in a corner.
    const lines = strokes(18)
    lines.push(bar('m', [900, 900], [960, 930]), bar('n', [960, 930], [930, 990]))
    const mesh = newDrawing('Curves', { layers: [newLinesLayer('Below', lines), newLinesLayer('Above', [])] })
    const start = { ...mesh, inks: meshOf(2).inks, settings: { ...mesh.settings, corner: 'pointed' as const } }
    const library = new Library()
    const session = openInk(start, library.book)
    atOnce(session.shapes())
    session.keepWholes()
    // Corners as they were before they were pointed are kept, too.
    session.apply(makeEdit(start, 'Caps', (d) => void (d.settings.corner = 'caps'))!.edit.patches)
    atOnce(session.shapes())
    const page = library.book.rewritten()
    const deeds: [what: string, deed: (d: Drawing) => void][] = [
      ...(['rounded', 'caps'] as const).map((style): (typeof deeds)[number] => [
        style,
        (d) => void (d.settings.corner = style),
      ]),
      ['ends let out', (d) => (d.layers[0]!.items as Line[]).forEach((l) => (l.tuck = { first: 'out', last: 'out' }))],
      ...ACTS.flatMap((act, i) =>
        [1, 4].map((b): (typeof deeds)[number] => [`act ${i}, ${b}`, (d) => act(d, 7 * i + b, b)]),
      ),
    ]
    for (const [what, deed] of deeds) {
      const next = makeEdit(start, 'Step', deed)?.drawing ?? start
      const { book } = new Library([page])
      expect(atOnce(openInk(structuredClone(next), book).shapes()), what).toEqual(shapesOf(next))
    }
    const other = new Library([page], 'two').book
    atOnce(openInk(structuredClone(start), other).shapes())
    expect(other.written().length).toBeGreaterThan(0.5 * page.length)
  })

  it('gives the plain union, bit for bit, once tucks and trims are taken back', () => {
    const plain = { ...meshOf(24), settings: { ...meshOf(24).settings, tuck: false } }
    const session = openInk({ ...plain, settings: { ...plain.settings, tuck: true } })
    const before = atOnce(session.shapes())
    const trims = Array.from(
      { length: 40 },
      (_, i) => atOnce(session.piecesAt({ x: 60 + i * 7, y: 60 + ((i * 37) % 180) }))[0],
    ).flatMap((hit, i) => (hit ? [{ id: `t${i}`, kind: 'trim' as const, ...hit.trim }] : []))
    expect(trims.length).toBeGreaterThan(5)
    const edit = makeEdit(session.drawing, 'Trim', (d) => void (d.amendments = trims))!
    session.apply(edit.edit.patches)
    const after = atOnce(session.shapes())
    expect(atOnce(session.trimmed()).every((t) => t.piece)).toBe(true)
    expect(after).not.toEqual(before)
    session.apply(
      makeEdit(edit.drawing, 'Back', (d) => {
        delete d.amendments
        d.settings.tuck = false
      })!.edit.patches,
    )
    expect(atOnce(session.shapes())).toEqual(shapesOf(plain))
    expect(atOnce(session.shapes())).not.toEqual(before)
  })

  it('answers at once, with the same objects, while nothing changes, and keeps the contours that an edit does not touch', () => {
    const drawing = meshOf(24)
    const session = openInk(drawing)
    const first = atOnce(session.shapes())
    expect(session.shapes().next()).toEqual({ done: true, value: first })
    const far = makeEdit(
      drawing,
      'One line',
      (d) => void (d.layers[1] as { items: Line[] }).items.push(bar('far', [600, 480], [680, 500])),
    )!
    session.apply(far.edit.patches)
    const second = atOnce(session.shapes())
    const contours = new Set(first.shapes.flatMap((s) => s.contours))
    expect(second.shapes.flatMap((s) => s.contours).filter((c) => !contours.has(c))).toHaveLength(1)
  })
})

describe('uniting', () => {
  const inks = (order: string[]): Drawing => {
    const lines = order.map((ink, i) =>
      bar(`b${i}`, i % 2 ? [100, 150] : [150, 100], i % 2 ? [200, 150] : [150, 200], { ink }),
    )
    const drawing = newDrawing('Inks', { layers: [newLinesLayer('Bars', lines)] })
    return { ...drawing, inks: [...drawing.inks, { id: 'white', name: 'White', colour: '#ffffff' }] }
  }
  /** The ink on top at a point. */
  const inkAt = ({ shapes }: ReturnType<typeof shapesOf>, x: number, y: number): string | undefined =>
    shapes.findLast((s) => new FlatOutline(s.contours.map(cubicsOfPath), 0.01).row(y, x, 1, 1)[0] !== 0)?.ink

  it('never changes what is seen: the upper black stays above the white', () => {
    const shapes = shapesOf(inks(['black', 'white', 'black']))
    expect(inkAt(shapes, 150, 150)).toBe('black')
    expect(inkAt(shapes, 110, 150)).toBe('white')
    expect(shapes.shapes.map((s) => s.ink)).toEqual(['black', 'white', 'black'])
  })

  it('joins an ink over another that lies elsewhere', () => {
    const d = inks(['black', 'white', 'black'])
    const aside = makeEdit(d, 'Aside', (draft) => {
      for (const n of (draft.layers[0] as { items: Line[] }).items[1]!.path.nodes) n.at.y += 200
    })!.drawing
    expect(shapesOf(aside).shapes.map((s) => [s.ink, s.from.length])).toEqual([
      ['black', 2],
      ['white', 1],
    ])
  })
})
