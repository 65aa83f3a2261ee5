import { Resvg } from '@resvg/resvg-js'
import { describe, expect, it } from 'vitest'
import { changed } from '#core/document/edits'
import { checkDrawing } from '#core/document/check-drawing'
import { patchesBetween } from '#core/document/patches-between'
import { changePage } from '#core/editing/change-page'
import { decideFronts } from '#core/editing/fronts'
import { tangentAt } from '#core/geometry/cubic'
import { cubicsOfPath } from '#core/geometry/path'
import type { Vec } from '#core/geometry/point'
import { windingAt } from '#core/geometry/winding-at'
import { openInk } from '#core/ink/open-ink'
import { emptyRegions, regionHitAt } from '#core/ink/session/region-hits'
import { shapesOf } from '#core/ink/shapes-of'
import { evenWeight, newDrawing, newLine, newLinesLayer, roundFinish } from '#core/model/create'
import type { Drawing, Line, LinesLayer, Mirror, Repeat } from '#core/model/model'
import { linesOf } from '#core/model/queries'
import { imageOf } from '#core/repetition/image-of-line'
import { imagesOf } from '#core/repetition/images'
import { setFree } from '#core/repetition/set-free'
import { withCopies } from '#core/repetition/with-copies'
import { atOnce } from '#core/turns'
import { proposeByContact } from '#core/weight/by-contact'
import { mirrored } from '#core/weight/mirror-match'
import { writeSvg } from '#core/formats/svg/write-svg'
import { parseSvg } from '#core/formats/svg/parse-svg'
import { through } from '../../demo/kit/spline'
import { seeded } from './support/random-lines'
import { few } from './support/thorough'
import { unlikePixels } from './support/wrong-pixels'

const PAGE = 300
const ZOOM = 4
const UPRIGHT: Mirror = { id: 'upright', kind: 'mirror', lines: [], from: { x: 150, y: 0 }, to: { x: 150, y: 300 } }

/** Lines left of an upright axis, some with an end on it, with weights that are no mirror of themselves, and a form before another. */
function half(seed: number): Line[] {
  const r = seeded(seed)
  for (let i = 0; i < 6; i++) r()
  return Array.from({ length: 5 }, (_, i) => {
    const at = (): [number, number] => [20 + 110 * r(), 20 + 260 * r()]
    const points = [at(), at(), at()]
    const ends = [true, false, true, false, true]
    if (i < 3) points[2] = [150 + 0.6 * (r() - 0.5), 30 + 90 * i + 40 * r()]
    if (i === 2) points[0] = [150, 60 + 40 * r()]
    const path = through(...points)
    const closed = i > 3
    const stops = [0.1, 0.45, 0.9].map((u) => ({ at: u, left: 0.3 + r(), right: 0.3 + r() }))
    return newLine(
      { ...path, closed },
      {
        id: `line-${i}`,
        weight: {
          ...evenWeight(4 + 5 * r()),
          stops,
          start: i === 0 ? { length: 20, unit: 'px', tip: 0.1, ease: 'round' } : null,
        },
        finish: {
          ...roundFinish(),
          join: 'round',
          ...(i === 1 && { align: 'left' }),
          startCap: ends[i] ? 'round' : 'butt',
        },
        snips: i === 3 ? [{ from: 0.2, to: 0.35 }] : [],
      },
    )
  })
}

const sceneOf = (lines: Line[], rule: Mirror | Repeat, over: Partial<Drawing> = {}): Drawing => {
  const blank = newDrawing('Mirrored', {
    page: { width: PAGE, height: PAGE, unit: 'px', pxPerMm: 4 },
    layers: [newLinesLayer('Half', lines)],
    amendments: [{ ...rule, lines: lines.map((l) => l.id) }],
    ...over,
  })
  return { ...blank, settings: { ...blank.settings, shapes: { ...blank.settings.shapes, simplify: 0 } } }
}

const pixelsOf = (drawing: Drawing): Uint8Array =>
  new Resvg(
    writeSvg(drawing, { content: 'outlines', shapes: shapesOf(drawing).shapes }).replace(
      '<svg ',
      '<svg shape-rendering="crispEdges" ',
    ),
    { fitTo: { mode: 'width', value: PAGE * ZOOM }, background: '#fff' },
  ).render().pixels

/** A picture turned over about its upright middle. */
function turnedOver(pixels: Uint8Array): Uint8Array {
  const [side, over] = [PAGE * ZOOM, new Uint8Array(pixels.length)]
  for (let y = 0; y < side; y++)
    for (let x = 0; x < side; x++)
      over.set(pixels.subarray(4 * (y * side + x), 4 * (y * side + x) + 4), 4 * (y * side + side - 1 - x))
  return over
}

const inkOf = (drawing: Drawing): ((p: Vec) => boolean) => {
  const contours = shapesOf(drawing).shapes.flatMap((s) => s.contours.map((c) => cubicsOfPath({ ...c, closed: true })))
  return (p) => windingAt(contours, p) !== 0
}

const turnedBy = (p: Vec, { about }: Repeat, angle: number): Vec => {
  const [c, s] = [Math.cos(angle), Math.sin(angle)]
  const [x, y] = [p.x - about.x, p.y - about.y]
  return { x: about.x + c * x - s * y, y: about.y + s * x + c * y }
}

describe('lines that are mirrored', () => {
  it('stand on both sides alike, px by px, joined across the axis', () => {
    for (let seed = 1; seed <= few(8, 60); seed++) {
      const drawing = sceneOf(half(seed), UPRIGHT)
      const pixels = pixelsOf(drawing)
      expect(unlikePixels(pixels, turnedOver(pixels), PAGE * ZOOM, 100), `scene ${seed}`).toBe(0)
      const plain = pixelsOf({ ...drawing, amendments: [] })
      expect(unlikePixels(plain, turnedOver(plain), PAGE * ZOOM, 100)).toBeGreaterThan(200)
      // The left half of it is what was drawn, but for what reaches across.
      const whole = linesOf(withCopies(drawing))
      expect(whole.map((l) => l.id)).toEqual([
        'line-0',
        'line-1',
        'line-2',
        'line-3',
        'line-3~uprigh',
        'line-4',
        'line-4~uprigh',
      ])
      expect(whole.map((l) => l.path.closed)).toEqual([false, false, true, false, false, true, true])
    }
  })

  it('go smoothly across the axis, or with a corner where the hand wants one', () => {
    const lines = half(5)
    const ways = [[], ['line-0']].map((otherwise) => {
      const [joined] = linesOf(withCopies(sceneOf(lines, { ...UPRIGHT, otherwise })))
      const cubics = cubicsOfPath(joined!.path)
      const at = cubics.findIndex((c) => Math.abs(c.p3.x - 150) < 1e-9)
      const [a, b] = [tangentAt(cubics[at]!, 1)!, tangentAt(cubics[at + 1]!, 0)!]
      const along = a.x * b.x + a.y * b.y
      return along
    })
    expect(Math.max(...ways)).toBeGreaterThan(1 - 1e-9)
    expect(Math.min(...ways)).toBeLessThan(0.99)
  })

  it('hold about any axis, for fills, trims, fronts and what is decided of ends', () => {
    const axis = { from: { x: 110, y: 20 }, to: { x: 190, y: 285 } }
    const over = (p: Vec): Vec => mirrored(p, { a: axis.from, b: axis.to })
    const wing = newLine(
      { ...through([30, 60], [100, 90], [90, 190], [40, 180], [18, 120]), closed: true },
      { id: 'wing', weight: evenWeight(4) },
    )
    const spot = newLine(
      { ...through([60, 90], [120, 120], [70, 150]), closed: true },
      { id: 'spot', weight: evenWeight(3) },
    )
    const vein = newLine(through([10, 140], [60, 160], [140, 120]), { id: 'vein', weight: evenWeight(3) })
    const plain = sceneOf([wing, spot, vein], { ...UPRIGHT, ...axis })
    const red = { id: 'red', name: 'Red', colour: '#c03020' }
    const scene = changed({ ...plain, inks: [...plain.inks, red] }, (d) => {
      decideFronts(d, [{ form: ['spot'], to: ['wing'], choice: 'before' }])
      const hit = atOnce(regionHitAt(openInk(plain), { x: 60, y: 70 }, 0))!
      d.fills = [{ id: 'fill', ink: 'red', where: 'region', at: { x: 60, y: 70 }, hold: hit.hold, gap: 0 }]
      d.amendments!.push({
        id: 'trim',
        kind: 'trim',
        line: 'vein',
        place: { at: 0.02, ahead: 0, left: 0 },
        over: [],
        bounds: [{ by: 'wing', side: 1 }],
      })
    })
    expect(
      withCopies(scene)
        .amendments!.map((a) => a.kind)
        .sort(),
    ).toEqual(['front', 'front', 'trim', 'trim'])
    expect(shapesOf(scene).waits).toEqual([])
    const ofInk = (d: Drawing, ink: string) => {
      const contours = shapesOf(d)
        .shapes.filter((s) => s.ink === ink)
        .flatMap((s) => s.contours.map((c) => cubicsOfPath(c)))
      return (p: Vec): boolean => windingAt(contours, p) !== 0
    }
    const r = seeded(9)
    const points = Array.from({ length: 1500 }, () => ({ x: 10 + 130 * r(), y: 30 + 180 * r() }))
    for (const ink of ['black', 'red']) {
      const has = ofInk(scene, ink)
      const unlike = points.filter((p) => has(p) !== has(over(p)))
      expect(unlike.length, ink).toBeLessThan(6)
      expect(points.filter(has).length, ink).toBeGreaterThan(20)
    }
    // What is trimmed is gone on both sides, and what lies behind.
    const [drawn, trimmed] = [ofInk(plain, 'black'), ofInk(scene, 'black')]
    for (const at of [vein.path.nodes[0]!.at, over(vein.path.nodes[0]!.at)])
      expect([drawn(at), trimmed(at)]).toEqual([true, false])
  })
})

describe('lines that are repeated', () => {
  it('stand about a point so many times, and one by one can be set free', () => {
    for (const times of [3, 5, 24]) {
      const rule: Repeat = { id: 'repeat', kind: 'repeat', lines: [], about: { x: 140, y: 160 }, times }
      const petal = newLine(through([150, 150], [205, 120], [230, 165], [170, 172]), {
        id: 'petal',
        weight: evenWeight(3),
      })
      const drawing = sceneOf([petal], rule)
      const has = inkOf(drawing)
      const r = seeded(times)
      const points = Array.from({ length: 400 }, () => ({ x: 130 + 110 * r(), y: 100 + 90 * r() }))
      const unlike = points.filter((p) => has(p) !== has(turnedBy(p, rule, (2 * Math.PI) / times)))
      expect(unlike.length).toBeLessThan(4)
      expect(points.filter(has).length).toBeGreaterThan(20)
      const one = setFree(drawing, drawing.amendments![0] as Repeat, 2)
      expect(one.amendments).toMatchObject([{ kind: 'repeat', left: [2] }])
      expect(linesOf(one).length).toBe(2)
      const all = setFree(one, one.amendments![0] as Repeat)
      expect(all.amendments).toEqual([])
      expect(linesOf(all).length).toBe(times)
      for (const d of [one, all]) {
        expect(checkDrawing(JSON.parse(JSON.stringify(d)))).toBeTruthy()
        expect(unlikePixels(pixelsOf(d), pixelsOf(drawing), PAGE * ZOOM, 100)).toBe(0)
      }
    }
  })
})

describe('what is drawn once and stands more than once', () => {
  it('is poured as it was drawn, wherever the hand is', () => {
    const round = (points: [number, number][], id: string, size: number): Line =>
      newLine({ ...through(...points), closed: true }, { id, weight: evenWeight(size) })
    const petal = [
      [160, 132],
      [172, 92],
      [190, 60],
      [194, 98],
      [180, 118],
    ] as [number, number][]
    const eye = [
      [176, 100],
      [188, 92],
      [184, 108],
    ] as [number, number][]
    const stem = newLine(through([168, 118], [160, 108], [150, 104]), { id: 'stem', weight: evenWeight(2) })
    const lines = [round(petal, 'petal', 4), round(eye, 'eye', 2), stem]
    const one = sceneOf(lines, UPRIGHT)
    const repeat: Repeat = { id: 'sixth', kind: 'repeat', lines: [], about: { x: 150, y: 160 }, times: 4 }
    const scene = { ...one, amendments: [...one.amendments!, { ...repeat, lines: lines.map((l) => l.id) }] }
    const ink = openInk(scene)
    const at = { x: 186, y: 78 }
    const own = atOnce(regionHitAt(ink, at, 0))!
    for (let k = 0; k < 4; k++) {
      for (const p of [at, mirrored(at, { a: UPRIGHT.from, b: UPRIGHT.to })]) {
        const hit = atOnce(regionHitAt(ink, turnedBy(p, repeat, (k * Math.PI) / 2), 0))!
        expect([...new Set(hit.hold.map((h) => `${h.line} ${h.side}`))].sort()).toEqual(
          [...new Set(own.hold.map((h) => `${h.line} ${h.side}`))].sort(),
        )
        expect(windingAt([cubicsOfPath({ ...hit.outer, closed: true })], at)).not.toBe(0)
      }
    }
    // Of each region and its seven images there is one to be poured, with the contours of all.
    const { regions } = atOnce(emptyRegions(ink, 0, 4))
    const drawn = regions.filter((r) => windingAt([cubicsOfPath({ ...r.outer, closed: true })], at) !== 0)
    expect(drawn.map((r) => r.hold)).toEqual([own.hold])
    expect(drawn[0]!.contours.length).toBe(8 * own.contours.length)
    const red = { id: 'red', name: 'Red', colour: '#c03020' }
    const fill = {
      id: 'fill',
      ink: 'red',
      where: 'region' as const,
      at: own.outer.nodes[0]!.at,
      hold: own.hold,
      gap: 0,
    }
    const filled = openInk({ ...scene, inks: [...scene.inks, red], fills: [fill] })
    expect(atOnce(filled.fills()).poured.map((p) => p.faces.length)).toEqual([1, 1, 1, 1, 1, 1, 1, 1])
    expect(atOnce(regionHitAt(filled, turnedBy(at, repeat, Math.PI), 0))!.fill).toBe('fill')
  })

  it('follows every edit, and undo, as from scratch; what does not change stays the same', () => {
    for (let seed = 1; seed <= few(3, 40); seed++) {
      const r = seeded(seed * 7)
      let now = sceneOf(half(seed), UPRIGHT)
      now = {
        ...now,
        amendments: [
          ...now.amendments!,
          { id: 'round', kind: 'repeat', lines: ['line-3', 'line-4'], about: { x: 150, y: 150 }, times: 3 },
        ],
      }
      const ink = openInk(now)
      const steps = [now]
      atOnce(ink.shapes())
      for (let k = 0; k < 8; k++) {
        const next =
          k % 4 === 3
            ? steps.at(-2)!
            : changed(now, (d) => {
                const line = (d.layers[0] as LinesLayer).items[Math.floor(5 * r())]!
                if (r() < 0.5) line.weight.size = 2 + 6 * r()
                else line.path.nodes[1]!.at = { x: 30 + 90 * r(), y: 40 + 200 * r() }
                if (k === 5) (d.amendments![0] as Mirror).from = { x: 140, y: 10 }
              })
        const before = linesOf(withCopies(now))
        ink.apply(patchesBetween(now, next))
        now = next
        steps.push(now)
        const [kept, fresh] = [atOnce(ink.shapes()), shapesOf(now)]
        expect(kept.shapes.map((s) => s.contours)).toEqual(fresh.shapes.map((s) => s.contours))
        if (k !== 5) expect(linesOf(withCopies(now)).filter((l) => !before.includes(l)).length).toBeLessThan(7)
      }
    }
  })

  it('is lit as what stands on the page, and its ends meet what stands there', () => {
    const line = (id: string, ...points: [number, number][]): Line =>
      newLine(through(...points), { id, weight: evenWeight(5) })
    // Half a kite, open to the right: only with its other half does it bound anything.
    const kite = [line('upper', [150, 60], [96, 150]), line('lower', [96, 150], [150, 262])]
    const light = { at: { x: -60, y: 40 }, strength: 0.6, softness: 0.4, live: true }
    const lit = (d: Drawing): Drawing => changed(d, (draft) => void (draft.settings.light = light))
    const over = (l: Line): Line => imageOf(l, imagesOf(UPRIGHT)[0]!)
    const whole = lit({ ...sceneOf([...kite, ...kite.map(over)], UPRIGHT), amendments: [] })
    const [half, alone] = [lit(sceneOf(kite, UPRIGHT)), lit({ ...sceneOf(kite, UPRIGHT), amendments: [] })]
    const weightsOf = (d: Drawing) => linesOf(d).flatMap((l) => (l.id.includes('~') ? [] : [l.weight]))
    expect(weightsOf(half)).toEqual(weightsOf(whole))
    expect(weightsOf(half)).not.toEqual(weightsOf(alone))
    // A rib that ends on the other half's edge is full there, and runs out at its free end.
    const rib = line('rib', [70, 60], [104, 120], [198, 140])
    const lines = linesOf(withCopies(sceneOf([...kite, rib], UPRIGHT)))
    const rule = { reach: 1.5, overshoot: 8, strength: 1, taper: 40, pinned: false }
    const verdictsOf = (all: readonly Line[]) =>
      proposeByContact(all, null, rule).flatMap((p) => (p.line === 'rib' ? [p.verdict] : []))
    expect([verdictsOf(lines), verdictsOf([...kite, rib])]).toEqual([
      ['taper', 'full'],
      ['taper', 'taper'],
    ])
  })

  it('keeps its place when the page is moved about it', () => {
    const drawing = sceneOf(half(2), UPRIGHT)
    const wider = changed(drawing, (d) => changePage(d, { ...d.page, width: 340, height: 320 }, 30, 12))
    const [was, is] = [inkOf(drawing), inkOf(wider)]
    const r = seeded(4)
    const points = Array.from({ length: 600 }, () => ({ x: 300 * r(), y: 300 * r() }))
    expect(points.filter((p) => was(p) !== is({ x: p.x + 30, y: p.y + 12 })).length).toBeLessThan(4)
  })

  it('goes to a file and back as it is, whole to look at', () => {
    const drawing = sceneOf(half(4), UPRIGHT)
    const svg = writeSvg(drawing, { content: 'lines' })
    const back = parseSvg(svg).drawing
    expect(back.amendments).toEqual(drawing.amendments)
    expect(linesOf(back).map((l) => l.id)).toEqual(linesOf(drawing).map((l) => l.id))
    const plain = writeSvg({ ...drawing, amendments: [] }, { content: 'lines' })
    // As much ink on either side of the axis; less on the right of what was drawn alone.
    const sides = [svg, plain].map((text) => {
      const pixels = new Resvg(text, { fitTo: { mode: 'width', value: 600 }, background: '#fff' }).render().pixels
      const dark = [0, 0]
      for (let i = 0; i < 600 * 600; i++) if (pixels[4 * i]! < 128) dark[i % 600 < 300 ? 0 : 1]!++
      return dark[1]! / dark[0]!
    })
    expect(sides[0]).toBeCloseTo(1, 2)
    expect(sides[1]).toBeLessThan(0.8)
  })
})
