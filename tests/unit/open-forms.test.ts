import { Resvg } from '@resvg/resvg-js'
import { describe, expect, it } from 'vitest'
import { evenWeight, newDrawing, newLine, newLinesLayer, roundFinish } from '#core/model/create'
import type { Drawing, Line } from '#core/model/model'
import { bendBridge, decideFronts } from '#core/editing/fronts'
import { followRemade } from '#core/editing/remade-lines'
import { changed } from '#core/document/edits'
import { pathData } from '#core/geometry/path'
import { openInk } from '#core/ink/open-ink'
import { bowThrough } from '#core/ink/front/form-bridges'
import { formsAndOverlaps } from '#core/ink/overlaps-of'
import { shapesOf } from '#core/ink/shapes-of'
import { stretchAround } from '#core/editing/snips'
import { findingsOf } from '#core/proof/findings-of'
import { touchesOf } from '#core/relations/touches'
import { asSeen, isUnseen } from '#core/ink/front/as-seen'
import { copiedLines, carriedAmendments } from '#core/editing/copies'
import { patchesBetween } from '#core/document/patches-between'
import { atOnce } from '#core/turns'
import { parseSvg } from '#core/formats/svg/parse-svg'
import { writeSvg } from '#core/formats/svg/write-svg'
import type { Point } from '../../demo/kit/spline'
import { around, through } from '../../demo/kit/spline'
import { pairs } from './support/paths'
import { unlikePixels } from './support/wrong-pixels'

const PAGE = 300
const ZOOM = 4

/** What a form runs into, and its outline from one end to the other, of one line or of several; how far in its bridge lies, if it is bent. */
interface Case {
  into: string
  lines: string
  bend?: Point
}

const HEAD = '150 40 205 70 212 130 160 172 98 140 90 78'
const BODY = '150 160 230 180 250 280 140 292 48 276 66 184'
const CUP = '70 90 180 84 184 150 160 236 96 240 66 160'
const TRUNK = '120 30 160 24 172 140 190 270 100 276 116 140'

/** Twenty things as hands draw them: open where they run into what they belong to. */
const CASES: Record<string, Case> = {
  'neck and body': { into: BODY, lines: '132 176 134 130 120 96 / 120 96 160 80 186 92 / 186 92 176 132 180 180' },
  'neck that opens into the body': {
    into: BODY,
    lines: '126 168 134 130 120 96 / 120 96 160 80 186 92 / 186 92 176 132 184 170',
    bend: [156, 190],
  },
  'head and ear': { into: HEAD, lines: '204 76 238 60 252 92 226 116 210 110' },
  'the other ear, of two lines': { into: HEAD, lines: '92 76 62 58 44 84 / 44 84 56 118 92 120' },
  'cup and handle': { into: CUP, lines: '176 110 240 104 262 160 214 206 168 196' },
  'handle drawn from below': { into: CUP, lines: '168 196 214 206 262 160 240 104 176 110' },
  'handle of three lines': { into: CUP, lines: '176 110 240 104 / 252 180 240 104 / 252 180 214 206 168 196' },
  'spout and can': { into: CUP, lines: '76 130 40 96 22 60 / 22 60 44 46 / 44 46 58 84 86 104' },
  'leaf and stalk': { into: TRUNK, lines: '164 110 214 70 276 62 / 276 62 252 126 170 146' },
  'leaf on the other side': { into: TRUNK, lines: '118 150 60 118 22 150 70 200 110 186' },
  'branch and trunk': { into: TRUNK, lines: '166 90 220 40 262 30 / 262 30 270 44 / 270 44 226 62 172 130' },
  'root that the trunk opens into': {
    into: TRUNK,
    lines: '182 230 240 262 280 268 / 280 268 236 284 176 262',
    bend: [160, 244],
  },
  'arm and body': { into: BODY, lines: '236 196 272 230 280 280 / 280 280 256 284 240 248 226 236' },
  tail: { into: BODY, lines: '240 240 282 220 276 160 / 276 160 262 150 258 196 230 206' },
  beak: { into: HEAD, lines: '206 92 256 108 / 256 108 204 126' },
  crest: { into: HEAD, lines: '128 52 120 20 146 30 156 10 168 34 190 22 186 66' },
  'lid of a box': { into: CUP, lines: '74 110 56 82 60 60 190 52 198 76 178 104' },
  'chin that opens into the head': { into: HEAD, lines: '120 150 128 206 168 204 184 152', bend: [150, 132] },
  'cap of a mushroom on its stem': { into: TRUNK, lines: '116 60 60 66 64 20 140 6 218 22 222 70 164 62' },
  'end of a scarf': { into: HEAD, lines: '186 150 226 170 250 220 / 250 220 216 236 184 190 158 168' },
}

const finish = { ...roundFinish(), join: 'round' as const }

const pointsOf = (numbers: string): Point[] => pairs(numbers.split(' ').map(Number))
const waysOf = ({ lines }: Case): Point[][] => lines.split(' / ').map(pointsOf)

function sceneOf(one: Case): { drawing: Drawing; base: Line; open: Line[] } {
  const { into, bend } = one
  const base = newLine(around(...pointsOf(into)), { id: 'into', weight: evenWeight(4), finish })
  const open = waysOf(one).map((points, i) =>
    newLine(through(...points), { id: `open-${i}`, weight: evenWeight(3.4), finish }),
  )
  const blank = newDrawing('Open form', {
    page: { width: PAGE, height: PAGE, unit: 'px', pxPerMm: 4 },
    layers: [newLinesLayer('Into', [base]), newLinesLayer('Open', open)],
  })
  const plain: Drawing = {
    ...blank,
    settings: { ...blank.settings, tuck: false, shapes: { ...blank.settings.shapes, simplify: 0 } },
  }
  const drawing = bend ? changed(plain, (d) => bendBridge(d, ids(open), bentTo(plain, bend))) : plain
  return { drawing, base, open }
}

const ids = (lines: readonly Line[]): string[] => lines.map((l) => l.id)
const openFormOf = (drawing: Drawing) => formsAndOverlaps(drawing).forms.find((f) => f.bridge)!
const bentTo = (drawing: Drawing, [x, y]: Point) => bowThrough(openFormOf(drawing).bridge!, { x, y })

/** Back to front as a painter paints: paper within the outline, which the straight or bent bridge closes, then its strokes. */
function paintedOver(base: Line, open: readonly Line[], one: Case, openInFront: boolean): string {
  const { bend } = one
  const lines = waysOf(one)
  const turned = lines.map(
    (points, i) => i > 0 && !same(points[0]!, lines[i - 1]!.at(-1)!) && !same(points[0]!, lines[i - 1]![0]!),
  )
  const way = open.map((l, i) => {
    const nodes = turned[i] ? l.path.nodes.map((n) => ({ ...n, in: n.out, out: n.in })).reverse() : l.path.nodes
    const d = pathData({ nodes, closed: false }, 4)
    return i ? d.replace('M', 'L') : d
  })
  const first = lines[0]![0]!
  const last = turned.at(-1) ? lines.at(-1)![0]! : lines.at(-1)!.at(-1)!
  const top = bend && [2 * bend[0] - (first[0] + last[0]) / 2, 2 * bend[1] - (first[1] + last[1]) / 2]
  const back = top ? `Q${top.join(' ')} ${first.join(' ')}` : ''
  const stroke = (l: Line): string =>
    `<path d="${pathData(l.path, 4)}" fill="none" stroke="#000" stroke-width="${l.weight.size}" stroke-linecap="round" stroke-linejoin="round"/>`
  const form = `<path d="${way.join(' ')} ${back}Z" fill="#fff"/>${open.map(stroke).join('')}`
  const under = `<path d="${pathData(base.path, 4)}Z" fill="#fff"/>${stroke(base)}`
  const [below, above] = openInFront ? [under, form] : [form, under]
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${PAGE} ${PAGE}"><rect width="100%" height="100%" fill="#fff"/>${below}${above}</svg>`
}

const same = (a: Point, b: Point): boolean => a[0] === b[0] && a[1] === b[1]

const pixelsOf = (svg: string): Uint8Array =>
  new Resvg(svg.replace('<svg ', '<svg shape-rendering="crispEdges" '), {
    fitTo: { mode: 'width', value: PAGE * ZOOM },
    background: '#fff',
  }).render().pixels

const delivered = (drawing: Drawing): string =>
  writeSvg(drawing, { content: 'outlines', shapes: shapesOf(drawing).shapes })
const decided = (drawing: Drawing, base: Line, open: readonly Line[], choice: 'before' | 'behind'): Drawing =>
  changed(drawing, (d) => decideFronts(d, [{ form: ids(open), to: [base.id], choice }]))

describe('open forms that run into others', () => {
  it.each(Object.entries(CASES))('%s', (_, one) => {
    const { drawing, base, open } = sceneOf(one)
    const { forms, pairs } = formsAndOverlaps(drawing)
    expect(forms.map((f) => f.bridge !== null)).toEqual([false, true])
    expect([...forms[1]!.lines.map((l) => l.id)].sort()).toEqual(ids(open).sort())
    expect(pairs).toEqual([[0, 1]])
    const raw = pixelsOf(delivered(drawing))
    for (const choice of ['before', 'behind'] as const) {
      const [ours, theirs] = [
        delivered(decided(drawing, base, open, choice)),
        paintedOver(base, open, one, choice === 'before'),
      ].map(pixelsOf)
      expect(unlikePixels(ours!, theirs!, PAGE * ZOOM, 100), choice).toBe(0)
      // The other way round, and with nothing decided, it is another picture.
      expect(unlikePixels(raw, theirs!, PAGE * ZOOM, 100), choice).toBeGreaterThan(20)
    }
  })
})

describe('a bridge', () => {
  const one = CASES['chin that opens into the head']!
  const { drawing, base, open } = sceneOf(one)
  const middle = (d: Drawing) => openFormOf(d).bridge!.middle

  it('stays where it is in its form, which moves, is turned round, is cut, is copied, and goes to a file and back', () => {
    expect(middle(drawing).x).toBeCloseTo(150, 6)
    const moved = changed(drawing, (d) => {
      for (const l of d.layers)
        for (const i of l.items)
          if ('path' in i)
            for (const n of i.path.nodes) for (const p of [n.at, n.in, n.out]) if (p) [p.x, p.y] = [300 - p.y, p.x]
    })
    expect(middle(moved).x).toBeCloseTo(300 - 132, 6)
    expect(middle(moved).y).toBeCloseTo(150, 6)
    const halves = [open[0]!.path.nodes.slice(0, 2), open[0]!.path.nodes.slice(1)].map((nodes, i) =>
      newLine({ nodes, closed: false }, { id: `half-${i}` }),
    )
    const cut = changed(drawing, (d) => {
      d.layers[1]!.items = halves
      followRemade(
        drawing,
        d,
        new Map([[open[0]!.id, halves.map((l) => ({ line: l.id, from: 0, to: 1, at: 0, span: 1 }) as never)]]),
      )
    })
    expect(cut.amendments!.find((a) => a.kind === 'bridge')).toMatchObject({ lines: ['half-0', 'half-1'] })
    const copies = copiedLines([base, ...open], { x: 0, y: 0 }, [])
    const known = new Map([base, ...open].map((l, i) => [l.id, copies[i]!.id]))
    const copied = {
      ...drawing,
      layers: [newLinesLayer('Copies', copies)],
      amendments: carriedAmendments(drawing.amendments!, known),
    }
    expect(middle(copied).y).toBeCloseTo(132, 6)
    expect(middle(parseSvg(writeSvg(drawing, { content: 'lines' })).drawing).y).toBeCloseTo(132, 2)
  })

  it('is followed at once, as from scratch', () => {
    const opening = sceneOf(CASES['neck that opens into the body']!)
    const over = decided(opening.drawing, opening.base, opening.open, 'before')
    const ink = openInk(over)
    atOnce(ink.shapes())
    const bent = changed(over, (d) => bendBridge(d, ids(opening.open), bentTo(opening.drawing, [156, 140])))
    ink.apply(patchesBetween(over, bent))
    const [kept, fresh] = [atOnce(ink.shapes()), shapesOf(bent)]
    expect(kept.shapes.map((s) => s.contours)).toEqual(fresh.shapes.map((s) => s.contours))
    expect(fresh.shapes.map((s) => s.contours)).not.toEqual(shapesOf(over).shapes.map((s) => s.contours))
  })
})

describe('what is hidden', () => {
  const head = newLine(around(...pointsOf(HEAD)), { id: 'head', weight: evenWeight(4) })
  // A line that stops within the head, with a line beside it that ends on it there, and one that lies wholly within.
  const arm = newLine(through([20, 220], [90, 160], [150, 120]), { id: 'arm', weight: evenWeight(5) })
  const back = newLine(through([150, 120], [120, 200], [30, 240]), { id: 'back', weight: evenWeight(5) })
  const strap = newLine(through([128, 100], [140, 131]), { id: 'strap', weight: evenWeight(4) })
  const scene: Drawing = changed(
    newDrawing('Hidden', { layers: [newLinesLayer('Arm', [arm, back, strap]), newLinesLayer('Head', [head])] }),
    (d) => {
      ;(d.layers[0]!.items as Line[]).push(
        newLine(through([20, 220], [30, 240]), { id: 'cuff', weight: evenWeight(5) }),
      )
      decideFronts(d, [{ form: ['head'], to: ['arm', 'back', 'cuff'], choice: 'before' }])
    },
  )
  const inFront = atOnce(openInk(scene).inFront())
  const seen = (line: Line): Line => asSeen(line, inFront.get(line.id))

  it('is not there for Snip, Contact and Proof', () => {
    expect([...inFront.keys()].sort()).toEqual(['arm', 'back', 'cuff'])
    expect(isUnseen(seen(arm))).toBe(false)
    // The strap crosses the arm where it is hidden.
    expect(stretchAround(strap, [arm], 0.1)).not.toBeNull()
    const options = { reach: 3, overshoot: 8 }
    const by = (lines: Line[]): string[] => touchesOf(strap, lines, options).map((t) => t.by)
    expect(by([strap, arm, back, head])).toContain('arm')
    expect(by([strap, seen(arm), seen(back), head])).not.toContain('arm')
    const spoken = (d: Drawing): string[] => findingsOf(d).flatMap((f) => f.items)
    expect(spoken({ ...scene, amendments: [] })).toContain('arm')
    expect(spoken(scene)).not.toContain('arm')
  })
})
