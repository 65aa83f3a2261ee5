import { Resvg } from '@resvg/resvg-js'
import { describe, expect, it } from 'vitest'
import { newDrawing, newLine, newLinesLayer, evenWeight } from '#core/model/create'
import { carriedFills, withFillsAlong } from '#core/editing/fills-along'
import { colourIn, differenceOf, tonedInk, untoned } from '#core/model/inks'
import type { Drawing, Fill, Line } from '#core/model/model'
import type { Vec } from '#core/geometry/point'
import { linesOf, seenLines } from '#core/model/queries'
import { writeSvg } from '#core/formats/svg/write-svg'
import { areaOfCubics } from '#core/geometry/area'
import { cubicsOfPath } from '#core/geometry/path'
import { windingAt } from '#core/geometry/winding-at'
import { measureOfFace } from '#core/ink/regions/faces'
import { edgeOf, holdOf } from '#core/ink/regions/edge'
import { openInk } from '#core/ink/open-ink'
import { regionHitAt } from '#core/ink/session/region-hits'
import { shapesOf } from '#core/ink/shapes-of'
import { regionsAsDrawn } from '#core/repetition/region-as-drawn'
import { withCopies } from '#core/repetition/with-copies'
import { knockedOutShapes } from '#core/ink/fills/knockout'
import { SideFinder } from '#core/ink/regions/side-finder'
import { atOnce } from '#core/turns'
import { documentOf, SCENARIO } from '../../demo/scenario'
import { polygon, polyline } from './support/paths'

const bar = (id: string, a: [number, number], b: [number, number], size = 6): Line =>
  newLine(polyline(...a, ...b), { id, weight: evenWeight(size) })
/** A box of four bars, 200 by 120, whose left upper corner is at (x, y). */
const box = (id: string, x: number, y: number): Line[] => [
  bar(`${id}-top`, [x, y], [x + 200, y]),
  bar(`${id}-right`, [x + 200, y], [x + 200, y + 120]),
  bar(`${id}-bottom`, [x + 200, y + 120], [x, y + 120]),
  bar(`${id}-left`, [x, y + 120], [x, y]),
]
const drawingOf = (...lines: Line[]): Drawing => ({
  ...newDrawing('Fills', { layers: [newLinesLayer('Ink', lines)] }),
  inks: [
    { id: 'black', name: 'Black', colour: '#211c1a' },
    { id: 'leaf', name: 'Leaf', colour: '#4a6a3a' },
    { id: 'straw', name: 'Straw', colour: '#e8c96a' },
  ],
})
const withLines = (d: Drawing, change: (lines: Line[]) => Line[]): Drawing => ({
  ...d,
  layers: [{ ...newLinesLayer('Ink', change([...linesOf(d)])), id: d.layers[0]!.id }],
})

function poured(d: Drawing, at: Vec, ink: string, gap = 0, over: Partial<Fill> = {}): Drawing {
  const { hold } = atOnce(regionHitAt(openInk(d), at, gap * d.page.pxPerMm))!
  return {
    ...d,
    fills: [...(d.fills ?? []), { id: `fill ${d.fills?.length ?? 0}`, ink, where: 'region', at, hold, gap, ...over }],
  }
}
/** The ink of the topmost shape at a point. */
const inkAt = (d: Drawing, x: number, y: number): string | undefined =>
  shapesOf(d).shapes.findLast(
    (s) =>
      windingAt(
        s.contours.map((c) => cubicsOfPath({ ...c, closed: true })),
        { x, y },
      ) !== 0,
  )?.ink
const statesOf = (d: Drawing) =>
  atOnce(openInk(d).fills()).poured.map((p) => (p.faces.length ? p.faces.length : (p.lostTo ?? 'waits')))

describe('a fill', () => {
  const d = poured(drawingOf(...box('a', 100, 100)), { x: 200, y: 160 }, 'leaf')

  it('lies in its region and runs to the middle of the ink about it, not beyond', () => {
    expect([inkAt(d, 200, 160), inkAt(d, 101, 160), inkAt(d, 90, 160)]).toEqual(['leaf', 'black', undefined])
    const [fill] = shapesOf(d).shapes
    expect(fill!.ink).toBe('leaf')
    const area = fill!.contours.reduce((n, c) => n + areaOfCubics(cubicsOfPath({ ...c, closed: true })), 0)
    // Between the inner edges (194 x 114) and the outer ones (206 x 126), about the middles (200 x 120).
    expect(area).toBeGreaterThan(199 * 119)
    expect(area).toBeLessThan(202 * 122)
    const shallow = poured(drawingOf(...box('a', 100, 100)), { x: 200, y: 160 }, 'leaf', 0, { under: 0 })
    expect(
      shapesOf(shallow).shapes[0]!.contours.reduce((n, c) => n + areaOfCubics(cubicsOfPath({ ...c, closed: true })), 0),
    ).toBeCloseTo(194 * 114, -1)
  })

  it('is bounded over a gap as wide as it was poured with, and no wider', () => {
    // Between the round ends of the top and the right there are 8 px, 1.33 mm.
    const open = (top: number): Line[] =>
      box('a', 100, 100).map((l) => (l.id === 'a-top' ? bar('a-top', [100, 100], [top, 100]) : l))
    const gapped = poured(drawingOf(...open(286)), { x: 200, y: 160 }, 'leaf', 1.5)
    expect(statesOf(gapped)).toEqual([1])
    expect(statesOf(withLines(gapped, () => open(282)))).toEqual(['waits'])
  })

  it('follows when its lines are moved, made heavier, and when one bends', () => {
    const moved = withLines(d, (lines) =>
      lines.map((l) => ({
        ...l,
        path: { ...l.path, nodes: l.path.nodes.map((n) => ({ ...n, at: { x: n.at.x + 300, y: n.at.y + 50 } })) },
      })),
    )
    expect([inkAt(moved, 500, 210), inkAt(moved, 200, 160)]).toEqual(['leaf', undefined])
    const heavy = withLines(d, (lines) => lines.map((l) => ({ ...l, weight: evenWeight(20) })))
    expect([inkAt(heavy, 200, 160), inkAt(heavy, 106, 160)]).toEqual(['leaf', 'black'])
    const bent = withLines(d, (lines) =>
      lines.map((l) =>
        l.id === 'a-top'
          ? {
              ...l,
              path: {
                ...l.path,
                nodes: [
                  { ...l.path.nodes[0]!, out: { x: 160, y: 20 } },
                  { ...l.path.nodes[1]!, in: { x: 240, y: 20 } },
                ],
              },
            }
          : l,
      ),
    )
    expect([inkAt(bent, 200, 60), inkAt(bent, 200, 30)]).toEqual(['leaf', undefined])
  })

  it('fills both parts that a new line makes of its region, also where they are unlike, and not the region beside', () => {
    for (const x of [120, 200, 285]) {
      const split = withLines(d, (lines) => [...lines, bar('split', [x, 100], [x, 220])])
      expect(statesOf(split)).toEqual([2])
      expect([inkAt(split, 110, 160), inkAt(split, 293, 160)]).toEqual(['leaf', 'leaf'])
    }
    const beside = withLines(d, (lines) => [
      ...lines,
      bar('top', [300, 100], [400, 100]),
      bar('right', [400, 100], [400, 220]),
      bar('bottom', [400, 220], [300, 220]),
    ])
    expect([inkAt(beside, 200, 160), inkAt(beside, 350, 160)]).toEqual(['leaf', undefined])
  })

  it("waits when its region is open or gone, is told by Proof's source, and comes back", () => {
    const open = withLines(d, (lines) => lines.filter((l) => l.id !== 'a-left'))
    expect(statesOf(open)).toEqual(['waits'])
    expect(inkAt(open, 200, 160)).toBeUndefined()
    const full = withLines(d, (lines) => [...lines, bar('all', [90, 160], [310, 160], 200)])
    expect(statesOf(full)).toEqual(['waits'])
    expect(statesOf(withLines(full, (lines) => lines.filter((l) => l.id !== 'all')))).toEqual([1])
  })

  it('gives way to a larger one when a line between them goes', () => {
    const lines = [...box('a', 100, 100), bar('between', [160, 100], [160, 220])]
    const two = poured(poured(drawingOf(...lines), { x: 130, y: 160 }, 'straw'), { x: 250, y: 160 }, 'leaf')
    expect([inkAt(two, 130, 160), inkAt(two, 250, 160)]).toEqual(['straw', 'leaf'])
    const joined = withLines(two, (all) => all.filter((l) => l.id !== 'between'))
    expect(statesOf(joined)).toEqual(['fill 1', 1])
    expect(inkAt(joined, 130, 160)).toBe('leaf')
  })

  it('keeps to a bridge where its edge lies on open paper', () => {
    const lines = box('a', 100, 100).map((l) => (l.id === 'a-top' ? bar('a-top', [100, 100], [288, 100]) : l))
    const d2 = poured(drawingOf(...lines), { x: 200, y: 160 }, 'leaf', 3)
    expect([inkAt(d2, 293.5, 103), inkAt(d2, 293.5, 98)]).toEqual(['leaf', undefined])
  })

  it('is one shape with lines of its ink, and shapes of one ink are one', () => {
    const black = poured(
      poured(drawingOf(...box('a', 100, 100), ...box('b', 400, 100)), { x: 200, y: 160 }, 'black'),
      { x: 500, y: 160 },
      'leaf',
    )
    expect(shapesOf(black).shapes.map((s) => [s.ink, s.contours.length])).toEqual([
      ['leaf', 1],
      ['black', 3],
    ])
  })
})

describe('lines about a fill', () => {
  const d = poured(drawingOf(...box('a', 100, 100), bar('free', [400, 100], [500, 100])), { x: 200, y: 160 }, 'leaf')

  it('take a darker tone of it where they are tinted, all or one by one; others stay as they are', () => {
    const all = { ...d, settings: { ...d.settings, tint: 0.4 } }
    expect([inkAt(all, 100, 160), inkAt(all, 450, 100), inkAt(all, 200, 160)]).toEqual(['leaf -0.40', 'black', 'leaf'])
    const one = withLines(all, (lines) => lines.map((l) => (l.id === 'a-left' ? { ...l, tint: 0 } : l)))
    expect([inkAt(one, 100, 160), inkAt(one, 300, 160)]).toEqual(['black', 'leaf -0.40'])
  })

  it('take it along when they are copied, and the shades on it when they are moved', () => {
    const square = polygon(150, 130, 250, 130, 250, 180)
    const fill = { ...d.fills![0]!, shades: [{ id: 's', contours: [square], tone: -0.3 }] }
    const ids = linesOf(d).map((l) => l.id)
    const [copy] = carriedFills([fill], new Map(ids.map((id) => [id, `${id} copy`])), { x: 10, y: 20 })
    expect(copy!.id).not.toBe(fill.id)
    expect(copy!.hold.map((h) => h.line)).toEqual(fill.hold.map((h) => `${h.line} copy`))
    expect(copy!.shades![0]!.contours[0]!.nodes[0]!.at).toEqual({ x: 160, y: 150 })
    // One line of four is not enough to go along with.
    expect(carriedFills([fill], new Map([['a-left', 'x']]), { x: 0, y: 0 })).toEqual([])
    const along = withFillsAlong({ ...d, fills: [fill] }, ids, (p) => ({ x: p.x + 5, y: p.y }))
    expect(along.fills![0]!.shades![0]!.contours[0]!.nodes[0]!.at).toEqual({ x: 155, y: 130 })
  })
})

describe('shades', () => {
  const base = poured(drawingOf(...box('a', 100, 100)), { x: 200, y: 160 }, 'straw')
  const square = polygon(150, 130, 400, 130, 400, 400, 150, 400)
  const shaded = { ...base, fills: [{ ...base.fills![0]!, shades: [{ id: 's', contours: [square], tone: -0.3 }] }] }

  it('stay within their fill, and go with the ink of it', () => {
    expect([inkAt(shaded, 250, 160), inkAt(shaded, 140, 160), inkAt(shaded, 350, 160)]).toEqual([
      'straw -0.30',
      'straw',
      undefined,
    ])
    expect(inkAt({ ...shaded, fills: [{ ...shaded.fills[0]!, ink: 'leaf' }] }, 250, 160)).toBe('leaf -0.30')
    expect(colourIn(shaded.inks, 'straw -0.30')).not.toBe(colourIn(shaded.inks, 'straw'))
    expect(untoned(tonedInk('a b', -0.3))).toEqual({ ink: 'a b', tone: -0.3 })
    expect(differenceOf('#211c1a', '#231e1c')).toBeLessThan(3)
  })

  it("from the light lie away from it, and the light's own towards it", () => {
    const lit = {
      ...base,
      settings: { ...base.settings, light: { at: { x: 200, y: -300 }, strength: 0.5, softness: 0.5, live: false } },
      fills: [{ ...base.fills![0]!, lit: { depth: 0.4, softness: 0.3, shade: 0.3, light: 0.2 } }],
    }
    expect([inkAt(lit, 200, 212), inkAt(lit, 200, 160), inkAt(lit, 200, 107)]).toEqual([
      'straw -0.30',
      'straw',
      'straw +0.20',
    ])
    // Beyond the ink on all four sides, and in the ink, there is none of it.
    expect(
      [
        [200, 229],
        [200, 91],
        [91, 150],
        [309, 180],
        [200, 222],
        [150, 98],
      ].map(([x, y]) => inkAt(lit, x!, y!)),
    ).toEqual([undefined, undefined, undefined, undefined, 'black', 'black'])
  })
})

describe.each(SCENARIO.map((s) => s()).map((d) => [d.name, d] as const))('%s, every region poured', (_, scene) => {
  const plain = documentOf(scene, null)
  const gap = 0.3
  const paper = atOnce(openInk(plain).paper(gap * plain.page.pxPerMm))
  const lines = seenLines(withCopies(plain))
  const regions = paper.index.faces.filter((f) => f.box && measureOfFace(f).area > 4)
  const d: Drawing = {
    ...plain,
    inks: [...plain.inks, { id: 'cream', name: 'Cream', colour: '#f2ead2' }],
    fills: regions.map((f, i): Fill => ({
      id: `f${i}`,
      ink: 'cream',
      where: 'region',
      at: { x: 0, y: 0 },
      hold: regionsAsDrawn(plain)(holdOf(edgeOf(f, new SideFinder(lines), paper.bridges, 1))).hold,
      gap,
    })),
  }

  it('each finds its own region again', () => {
    expect(regions.length).toBeGreaterThan(6)
    // Of a region and its image the later fill has both.
    const states = statesOf(d)
    expect(states.filter((s) => typeof s === 'number')).toEqual(regions.map(() => 1))
    expect(states).not.toContain('waits')
  })

  it('leaves no slit between a fill and its ink, and nothing of a fill on open ground', () => {
    const render = (shapes: ReturnType<typeof shapesOf>['shapes']): { pixels: Buffer; width: number } => {
      const { pixels, width } = new Resvg(writeSvg(d, { content: 'outlines', shapes }), {
        fitTo: { mode: 'width', value: d.page.width * 4 },
        background: '#ff0000',
      }).render()
      return { pixels, width }
    }
    const { shapes } = shapesOf(d)
    const all = render(shapes)
    const ink = render(shapes.filter((s) => s.ink !== 'cream'))
    // Within the regions, a pixel or two from their edge at most, no red shows through; on open ground nothing but red.
    const { index } = paper
    let [red, beyond] = [0, 0]
    for (let y = 1; y < d.page.height * 4 - 1; y += 1) {
      for (let x = 1; x < all.width - 1; x += 1) {
        const i = 4 * (y * all.width + x)
        const isRed = all.pixels[i]! > 200 && all.pixels[i + 1]! < 60
        const wasRed = ink.pixels[i]! > 200 && ink.pixels[i + 1]! < 60
        if (!wasRed) continue
        const p = { x: (x + 0.5) / 4, y: (y + 0.5) / 4 }
        if ((x + y) % 7 === 0 && !isRed && index.openAt(p)) beyond++
        if (isRed && (x * 3 + y) % 5 === 0 && regions.includes(index.at(p)!)) red++
      }
    }
    expect({ red, beyond }).toEqual({ red: 0, beyond: 0 })
    expect(new Set(knockedOutShapes(shapes, d.inks, 'cut-out', { tolerance: 0.05 }).map((s) => s.ink))).toEqual(
      new Set([...lines.map((l) => l.ink), 'cream']),
    )
  })
})
