import { readdirSync } from 'node:fs'
import sharp from 'sharp'
import { describe, expect, it } from 'vitest'
import { defaultPage } from '#core/model/create'
import type { Path } from '#core/geometry/path'
import { ArcLength } from '#core/geometry/arc-length'
import { cubicsOfPath, mapPath } from '#core/geometry/path'
import { pathsOfData } from '#core/formats/svg/paths'
import { IDENTITY } from '#core/geometry/matrix'
import type { GreyImage } from '#core/sketch/grey-image'
import { partOf } from '#core/sketch/grey-image'
import { proposeLines } from '#core/sketch/propose-lines'
import { underLines } from '#core/sketch/under-lines'
import { pencilSketch } from '../../demo/kit/pencil'
import { SCENARIO } from '../../demo/scenario'
import type { SketchKind } from './support/icon-sketch'
import { iconSketch } from './support/icon-sketch'
import type { Judged } from './support/judge-proposals'
import { distances, judged, median, placesOn } from './support/judge-proposals'
import { seeded } from './support/random-lines'
import { searchedSketch } from './support/searched-sketch'
import { polyline } from './support/paths'
import { someOf } from './support/thorough'

async function imageOf(png: Buffer): Promise<GreyImage> {
  const { data, info } = await sharp(png).greyscale().raw().toBuffer({ resolveWithObject: true })
  return { width: info.width, height: info.height, grey: new Uint8Array(data) }
}

describe('lines proposed from a sketch', () => {
  const page = defaultPage()
  const halved = (p: Path): Path => mapPath(p, ({ x, y }) => ({ x: x / 2, y: y / 2 }))
  /** Those that are shown at first, on a page of half the scan's px. */
  const shown = (image: GreyImage): Path[] =>
    proposeLines(image)
      .filter((p) => p.confidence > 0.3)
      .map((p) => halved(p.path))
  function expectGood({ recall, precision, median, nodes }: Judged): void {
    expect(recall).toBeGreaterThan(0.92)
    expect(precision).toBeGreaterThan(0.92)
    expect(median).toBeLessThan(0.7)
    expect(nodes).toBeLessThan(1.3)
  }

  it.each(
    someOf(
      SCENARIO.map((make, i) => [make().name, make(), i] as const),
      3,
    ),
  )('of %s lie on the lines that were drawn', { timeout: 120_000 }, async (_, inked, i) => {
    const lines = inked.layers.flatMap((l) => l.lines)
    const found = shown(await imageOf(await pencilSketch(lines, page, 41 + i)))
    // The scan lies a little askew.
    const [c, s] = [Math.cos(0.0035), Math.sin(0.0035)]
    const [mx, my] = [page.width / 2, page.height / 2]
    const truth = lines.map((l) =>
      mapPath(l.path, ({ x, y }) => ({ x: mx + (x - mx) * c - (y - my) * s, y: my + (x - mx) * s + (y - my) * c })),
    )
    expectGood(judged(found, truth))
    // Where lines that were not drawn are asked for, next to nothing is found: the judge judges.
    expect(
      judged(
        found,
        truth.map((p) => mapPath(p, ({ x, y }) => ({ x: x + 5, y: y + 5 }))),
      ).recall,
    ).toBeLessThan(0.6)
  })

  // Icons of another hand, as a pencil would draw them: none that anything was tuned on.
  const icons = readdirSync('node_modules/lucide-static/icons')
    .filter((n) => n.endsWith('.svg'))
    .map((n) => n.slice(0, -4))
  const KINDS: readonly SketchKind[] = [
    { name: 'smooth paper, one stroke', paper: 'smooth', strokes: 1 },
    { name: 'toothed paper, two strokes', paper: 'toothed', strokes: 2 },
    { name: 'mottled paper, three strokes', paper: 'mottled', strokes: 3 },
    { name: 'toothed paper, four strokes', paper: 'toothed', strokes: 4 },
    { name: 'smooth paper, two strokes, blurred', paper: 'smooth', strokes: 2, blur: 1.5 },
    { name: 'toothed paper, two strokes, JPEG of quality 40', paper: 'toothed', strokes: 2, jpeg: 40 },
    { name: 'smooth paper, three strokes, under a shadow', paper: 'smooth', strokes: 3, shadow: 0.55 },
    {
      name: 'mottled paper, four strokes, all of it at once',
      paper: 'mottled',
      strokes: 4,
      blur: 1,
      jpeg: 40,
      shadow: 0.45,
    },
  ]
  it(
    'of icons lie on the lines that were drawn, on every kind of paper, and meet where they do',
    { timeout: 240_000 },
    async () => {
      let [met, sought] = [0, 0]
      for (const [n, kind] of someOf([...KINDS.entries()].reverse(), 2)) {
        const names = Array.from({ length: 8 }, (_, i) => icons[(n * 613 + i * 389 + 101) % icons.length]!)
        const { image, paths } = await iconSketch(names, kind, 300 + n)
        const result = judged(shown(image), paths.map(halved))
        expectGood(result)
        met += result.junctions * result.sought
        sought += result.sought
      }
      expect(sought).toBeGreaterThan(50)
      expect(met / sought).toBeGreaterThan(0.85)
    },
  )

  const drawn = async (body: string, width = 600, height = 400): Promise<GreyImage> =>
    imageOf(
      await sharp(
        Buffer.from(
          `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}"><rect width="100%" height="100%" fill="#e8e4da"/><g fill="none" stroke="#555" stroke-width="2.4">${body}</g></svg>`,
        ),
      )
        .png()
        .toBuffer(),
    )

  const straight = (x: number, y: number, u: number, v: number): Path => polyline(x, y, u, v)

  it('close what is closed, go straight on through a crossing, and bridge a gap', async () => {
    const found = proposeLines(
      await drawn('<circle cx="150" cy="200" r="80"/><path d="M300 200H400M406 200H560M430 80V330"/>'),
    ).filter((p) => p.confidence > 0.3)
    expect(found.filter((p) => p.path.closed)).toHaveLength(1)
    const open = found
      .filter((p) => !p.path.closed)
      .map(({ path: { nodes } }) =>
        [nodes[0]!.at, nodes.at(-1)!.at].map((p) => [Math.round(p.x / 10), Math.round(p.y / 10)]),
      )
    expect(open).toHaveLength(2)
    const across = open.find(([a, b]) => Math.abs(a![1]! - b![1]!) < 2)!
    expect(Math.abs(across[0]![0]! - across[1]![0]!)).toBeGreaterThan(24)
  })

  it('are none along the edge of the sheet, and close over the gap that a hand leaves going round', async () => {
    const [w, h] = [600, 400]
    const edge = '<path d="M0 4L600 2M3 0L5 400" stroke-width="5" stroke="#333"/>'
    const found = proposeLines(
      await drawn(`${edge}<path d="M148 140A70 60 0 1 1 139 140" /><path d="M420 90C470 150 430 260 500 330"/>`, w, h),
    ).filter((p) => p.confidence > 0.3)
    expect(found.map((p) => p.path.closed).sort()).toEqual([false, true])
    expect(found.every((p) => p.path.nodes.every(({ at }) => at.x > 40 && at.y > 40))).toBe(true)
  })

  it('are one line where a stroke was doubled over a stretch, and where one begins beside the end of another', async () => {
    const one = async (body: string) => proposeLines(await drawn(body, 1440, 700)).filter((p) => p.confidence > 0.3)
    // The second stroke leaves the first, lies up to 12 px aside, and comes back.
    const doubled = await one('<path d="M120 500L1300 300"/><path d="M400 452.5Q470 464 560 425.5"/>')
    expect(doubled).toHaveLength(1)
    // And one that ends in the open, some 40 px on.
    expect(await one('<path d="M120 500L1300 300"/><path d="M430 447.5Q438 461 472 453"/>')).toHaveLength(1)
    // The second stroke begins 60 px before the first one's end, 11 px aside.
    const passing = await one('<path d="M110 200L700 260"/><path d="M640 243L1320 330"/>')
    expect(passing).toHaveLength(1)
    const { nodes } = passing[0]!.path
    expect([nodes[0]!.at.x, nodes.at(-1)!.at.x].map((x) => Math.round(x / 10)).sort((a, b) => a - b)).toEqual([11, 132])
    // Lines of their own, 20 px apart over all their length, and one that only joins, stay.
    expect(await one('<path d="M110 200L900 240"/><path d="M110 221L900 262"/>')).toHaveLength(2)
    expect(await one('<path d="M110 200L900 240"/><path d="M500 222L640 520"/>')).toHaveLength(2)
  })

  it('are as many as Merge says, where it is set', async () => {
    const image = await drawn(
      '<path d="M110 200L1300 290"/><path d="M110 208L1300 299"/><path d="M110 215L1300 306"/>',
      1440,
      500,
    )
    expect([1.4, 3.6].map((merge) => proposeLines(image, { merge }).filter((p) => p.confidence > 0.3).length)).toEqual([
      3, 1,
    ])
  })

  it('keep their way where one joins another at a slant, and both are one crest for a stretch', async () => {
    for (const degrees of [16, 25, 38]) {
      const a = (degrees * Math.PI) / 180
      const end = { x: 500 + 500 * Math.cos(a), y: 409.75 - 500 * Math.sin(a) }
      const found = proposeLines(
        await drawn(`<path d="M110 400L1310 430"/><path d="M500 409.75L${end.x} ${end.y}"/>`, 1440, 700),
      ).filter((p) => p.confidence > 0.3)
      expect(found).toHaveLength(2)
      const [through, joining] = found
        .map((p) => p.path)
        .sort((p, q) => Math.max(...q.nodes.map((n) => n.at.x)) - Math.max(...p.nodes.map((n) => n.at.x)))
      // Across both lines, and along the one that is joined.
      expect(
        Math.max(...distances(placesOn([joining!], 3), placesOn([straight(500, 409.75, end.x, end.y)], 0.25))),
      ).toBeLessThan(2)
      expect(
        Math.max(...distances(placesOn([through!], 3), placesOn([straight(110, 400, 1310, 430)], 0.25))),
      ).toBeLessThan(1.2)
      expect(Math.min(...joining!.nodes.map((n) => Math.abs(n.at.x - 500)))).toBeLessThan(12)
    }
  })

  it('lie within a third of a px of a clean line, also under a shadow', async () => {
    const line = '<path d="M40 320C160 40 420 40 560 300"/>'
    const shadow =
      '<defs><linearGradient id="g"><stop stop-color="#000" stop-opacity="0"/><stop offset="1" stop-color="#000" stop-opacity="0.55"/></linearGradient></defs><rect width="600" height="400" fill="url(#g)" stroke="none"/>'
    const truth: Path = {
      closed: false,
      nodes: [
        { at: { x: 40, y: 320 }, in: null, out: { x: 160, y: 40 }, joint: 'corner' },
        { at: { x: 560, y: 300 }, in: { x: 420, y: 40 }, out: null, joint: 'corner' },
      ],
    }
    for (const body of [line, line + shadow]) {
      const [best] = proposeLines(await drawn(body))
      const off = distances(placesOn([best!.path], 3), placesOn([truth], 0.25))
      expect(median(off)).toBeLessThan(0.34)
      expect(new ArcLength(cubicsOfPath(best!.path)).total).toBeGreaterThan(
        0.95 * new ArcLength(cubicsOfPath(truth)).total,
      )
    }
  })

  it("of a part are those of the whole there, and have the pencil's own thickness", async () => {
    // A wedge from 2 to 8 px wide, and a line beside it.
    const image = await drawn(
      '<path d="M60 120L540 117V123Z" fill="#555" stroke="none"/><path d="M60 300C200 200 400 200 540 300" stroke-width="3"/>',
    )
    const whole = proposeLines(image)
    const { image: part, left, top } = partOf(image, { x: 0.05, y: 0.1, width: 0.9, height: 0.4 })
    const inPart = proposeLines(part, { whole: 600 })
    expect(inPart).toHaveLength(1)
    const wedge = whole.find((p) => p.path.nodes.every((n) => n.at.y < 160))!
    const moved = mapPath(inPart[0]!.path, ({ x, y }) => ({ x: x + left, y: y + top }))
    expect(Math.max(...distances(placesOn([moved], 4), placesOn([wedge.path], 0.5)))).toBeLessThan(1)
    const [first, last] = [wedge.thickness.stops[0]!, wedge.thickness.stops.at(-1)!]
    // Thin at its point, thick at its foot; as wide on the mean as it is.
    const [thin, thick] = wedge.path.nodes[0]!.at.x < 300 ? [first, last] : [last, first]
    expect(thin.left).toBeLessThan(0.75)
    expect(thick.left).toBeGreaterThan(1.2)
    const even = whole.find((p) => p !== wedge && p.confidence > 0.3)!
    expect(Math.abs(even.thickness.mean - 3)).toBeLessThan(0.8)
    expect(even.thickness.stops.every((s) => Math.abs(s.left - 1) < 0.3)).toBe(true)
  })

  it(
    'are one line where several strokes search for it, by themselves, as far apart as they lie',
    { timeout: 120_000 },
    () => {
      const found = (strokes: number, apart: number, merge?: number) => {
        const { image, paths } = searchedSketch(strokes, apart, 11 * strokes + apart)
        const all = proposeLines(image, merge ? { merge } : {})
          .filter((p) => p.confidence > 0.3)
          .map((p) => p.path)
        return { ...judged(all, paths), lines: all.length / paths.length }
      }
      // px from stroke to stroke, and what of the lines is found, at least; see docs/sketch.md.
      const pictures = [
        [4, 8, 0.94],
        [1, 0, 0.97],
        [2, 8, 0.97],
        [3, 6, 0.97],
        [4, 4, 0.97],
      ] as const
      for (const [strokes, apart, least] of someOf(pictures, 2)) {
        const { recall, precision, lines, nodes } = found(strokes, apart)
        expect([strokes, apart, recall > least, precision > least, lines <= 1.2, nodes <= 1.4]).toEqual([
          strokes,
          apart,
          true,
          true,
          true,
          true,
        ])
      }
      // With one scale for all pictures each of three strokes was a line of its own.
      expect(found(3, 6, 3.6).lines).toBeGreaterThan(3)
    },
  )

  it('lie under lines that go their way, and under no others', () => {
    const path = (d: string): Path => pathsOfData(d, IDENTITY)[0]!
    const offers = ['M0 0L100 0', 'M0 2L100 3', 'M0 0L0 100', 'M0 30L100 30'].map((d) => ({ path: path(d) }))
    expect([...underLines(offers, [path('M-10 1L110 1')], 3)]).toEqual(offers.slice(0, 2))
    expect(underLines(offers, [], 3).size).toBe(0)
  })

  it('follow a single stroke at every slant: a skeleton two pixels wide was taken for one long junction', () => {
    for (const k of [2, 3]) {
      const { image, paths } = searchedSketch(1, 4, 15 + 1000 * k)
      const { recall, precision } = judged(
        proposeLines(image)
          .filter((p) => p.confidence > 0.3)
          .map((p) => p.path),
        paths,
      )
      expect([k, recall > 0.98, precision > 0.98]).toEqual([k, true, true])
    }
  })

  it('are none on paper, in the dark and in one pixel; noise gives next to none; what is impossible is refused', () => {
    const flat = (width: number, height: number, value: number): GreyImage => ({
      width,
      height,
      grey: new Uint8Array(width * height).fill(value),
    })
    for (const image of [flat(300, 200, 255), flat(300, 200, 0), flat(1, 1, 90), flat(7, 900, 200)])
      expect(proposeLines(image)).toEqual([])
    const r = seeded(3)
    const noise = {
      width: 300,
      height: 200,
      grey: Uint8Array.from({ length: 60_000 }, () => 215 + Math.floor(r() * 40)),
    }
    expect(proposeLines(noise).filter((p) => p.confidence > 0.3)).toEqual([])
    expect(() => proposeLines({ width: 3, height: 3, grey: new Uint8Array(8) })).toThrow(/9 pixels/)
    expect(() => proposeLines({ width: -1, height: 3, grey: new Uint8Array(0) })).toThrow(/width/i)
    expect(() => proposeLines(flat(20, 20, 255), { merge: Number.NaN })).toThrow(/merge/)
  })
})
