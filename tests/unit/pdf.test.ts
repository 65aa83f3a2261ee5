import { inflateSync } from 'node:zlib'
import type { PDFRawStream } from 'pdf-lib'
import { PDFArray, PDFDocument, PDFName } from 'pdf-lib'
import { describe, expect, it } from 'vitest'
import type { Drawing } from '#core/model/model'
import { printInkOf } from '#core/formats/pdf/print-ink'
import { writePdf } from '#core/formats/pdf/write-pdf'
import { writeSvg } from '#core/formats/svg/write-svg'
import { shapesOf } from '#core/ink/shapes-of'
import { documentOf, SCENARIO } from '../../demo/scenario'
import { differenceOf, pixelsOf } from './support/before-and-after'

const options = { bleed: 0, marks: false, separate: false, colours: 'screen' as const, tolerance: 0.05 }
const shapesIn = (d: Drawing) => shapesOf(d).shapes

/** What a page's content draws, as an SVG of its size in points: read as ISO 32000-1 has the operators. */
async function drawnBy(
  bytes: Uint8Array,
  index = 0,
): Promise<{ svg: string; fills: number; clip: number[]; strokes: number[][]; words: string }> {
  const document = await PDFDocument.load(bytes)
  const page = document.getPage(index)
  const contents = page.node.Contents()!
  const streams = contents instanceof PDFArray ? contents.asArray().map((r) => document.context.lookup(r)) : [contents]
  const text = streams
    .map((s) => {
      const stream = s as PDFRawStream
      const raw = Buffer.from(stream.getContents())
      return (stream.dict.get(PDFName.of('Filter')) ? inflateSync(raw) : raw).toString('latin1')
    })
    .join('\n')
  const { width, height } = page.getSize()
  let [stack, d, fill, matrix]: [number[], string, string, string] = [[], '', '#000', '']
  const out: string[] = []
  const strokes: number[][] = []
  let [clip, way]: [number[], number[]] = [[], []]
  const words = [...text.matchAll(/<([0-9A-F]*)> Tj/g)]
    .map(([, hex]) => Buffer.from(hex!, 'hex').toString('latin1'))
    .join(' ')
  const channel = (v: number): string => `${Math.round(v * 255)}`
  for (const token of text.replace(/<[0-9A-F]*> Tj/g, '').split(/\s+/)) {
    const v = Number(token)
    if (token !== '' && Number.isFinite(v)) stack.push(v)
    else {
      if (token === 're') clip = stack
      if (token === 'm' || token === 'l') way.push(...stack)
      if (token === 'S') strokes.push(way)
      if (token === 'm') d += `M${stack.join(' ')}`
      if (token === 'l') d += `L${stack.join(' ')}`
      if (token === 'c') d += `C${stack.join(' ')}`
      if (token === 'h') d += 'Z'
      if (token === 'rg') fill = `rgb(${stack.map(channel).join()})`
      if (token === 'k')
        fill = `rgb(${stack
          .slice(0, 3)
          .map((c) => channel((1 - c) * (1 - stack[3]!)))
          .join()})`
      if (token === 'cm') matrix = `matrix(${stack.join(' ')})`
      if (token === 'f') out.push(`<path fill="${fill}" transform="matrix(1 0 0 -1 0 ${height}) ${matrix}" d="${d}"/>`)
      if (['f', 'S', 'n'].includes(token)) [d, way] = ['', []]
      stack = []
    }
  }
  return {
    svg: `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="0 0 ${width} ${height}">${out.join('')}</svg>`,
    fills: out.length,
    clip,
    strokes,
    words,
  }
}

describe('a PDF', () => {
  it.each(SCENARIO.map((make) => make()).map((d) => [d.name, documentOf(d, null)] as const))(
    'of %s draws what its outlines are',
    { timeout: 120_000 },
    async (_, drawing) => {
      const shapes = shapesIn(drawing)
      const { svg } = await drawnBy(await writePdf(drawing, { ...options, shapes }))
      const outlines = pixelsOf(writeSvg(drawing, { content: 'outlines', shapes }))
      expect(differenceOf(pixelsOf(svg), outlines)).toBeLessThan(0.0004)
      // Less the topmost shape it would be told.
      expect(
        differenceOf(
          pixelsOf((await drawnBy(await writePdf(drawing, { ...options, shapes: shapes.slice(0, -1) }))).svg),
          outlines,
        ),
      ).toBeGreaterThan(0.0004)
    },
  )

  it('has the page in its true size, with bleed and room for marks about it', async () => {
    const drawing = documentOf(SCENARIO[0]!(), null)
    const mm = (pt: number): number => (pt / 72) * 25.4
    const page = (
      await PDFDocument.load(await writePdf(drawing, { ...options, shapes: [], bleed: 3, marks: true }))
    ).getPage(0)
    const [trim, bleed, media] = [page.getTrimBox(), page.getBleedBox(), page.getMediaBox()]
    expect([mm(trim.width), mm(trim.height)].map((v) => v.toFixed(2))).toEqual(
      [drawing.page.width / 6, drawing.page.height / 6].map((v) => v.toFixed(2)),
    )
    expect([mm(bleed.width - trim.width), mm(trim.x - bleed.x)].map((v) => v.toFixed(2))).toEqual(['6.00', '3.00'])
    expect(mm(media.width - bleed.width)).toBeCloseTo(16, 6)
    const { clip, strokes } = await drawnBy(await writePdf(drawing, { ...options, shapes: [], bleed: 4, marks: true }))
    const near = (a: number[], b: number[]): boolean =>
      a.length === b.length && a.every((v, i) => Math.abs(v - b[i]!) < 0.01)
    const [w, h] = [drawing.page.width / 6, drawing.page.height / 6]
    // What is drawn reaches as far as the bleed; marks of 5 mm point at the corners of the page from 3 mm beyond it.
    const rim = 4 + 3 + 5
    expect(near(clip.map(mm), [rim - 4, rim - 4, w + 8, h + 8])).toBe(true)
    const wanted = [0, w].flatMap((x) =>
      [0, h].flatMap((y) => [
        [rim + x, rim + y + (y ? 7 : -7), rim + x, rim + y + (y ? 12 : -12)],
        [rim + x + (x ? 7 : -7), rim + y, rim + x + (x ? 12 : -12), rim + y],
      ]),
    )
    expect(strokes).toHaveLength(8)
    for (const mark of wanted) expect(strokes.filter((s) => near(s.map(mm), mark))).toHaveLength(1)
    await expect(writePdf(drawing, { ...options, shapes: [], bleed: Number.NaN })).rejects.toThrow(/bleed/)
  })

  it(
    'of one ink a page has every ink once, cut out, and together they are the whole',
    { timeout: 120_000 },
    async () => {
      const drawing = documentOf(SCENARIO[3]!(), null)
      const shapes = shapesIn(drawing)
      const bytes = await writePdf(drawing, { ...options, shapes, separate: true, marks: true })
      const count = (await PDFDocument.load(bytes)).getPageCount()
      expect(count).toBe(new Set(shapes.map((s) => s.ink)).size)
      expect(count).toBeGreaterThan(3)
      // What is dark on any page is what the drawing covers, and nothing is dark on two.
      const pages = await Promise.all(
        Array.from({ length: count }, async (_, i) => pixelsOf((await drawnBy(bytes, i)).svg).pixels),
      )
      // Each page is named for the ink that lies there in the drawing.
      const whole = pixelsOf((await drawnBy(await writePdf(drawing, { ...options, shapes, marks: true }))).svg).pixels
      for (const [i, page] of pages.entries()) {
        const { words } = await drawnBy(bytes, i)
        const ink = drawing.inks.find((k) => words.startsWith(`${k.name}, C${printInkOf(k).c} M${printInkOf(k).m} `))
        if (words.startsWith('Tone')) continue
        const colour = [1, 3, 5].map((k) => parseInt(ink!.colour.slice(k, k + 2), 16))
        let [dark, other] = [0, 0]
        for (let p = 3; p < page.length; p += 4) {
          if (page[p]! < 250) continue
          dark++
          if (colour.some((c, k) => Math.abs(whole[p - 3 + k]! - c) > 12)) other++
        }
        expect([words, dark > 40, other / dark < 0.05]).toEqual([words, true, true])
      }
      let [twice, all] = [0, 0]
      for (let i = 3; i < pages[0]!.length; i += 4) {
        const sum = pages.reduce((n, p) => n + p[i]!, 0)
        if (sum > 300) twice++
        if (sum > 200) all++
      }
      expect(all).toBeGreaterThan(5000)
      expect(twice / all).toBeLessThan(0.02)
    },
  )

  it('in printing inks has those that were given; dark lines print with black alone', async () => {
    expect(printInkOf({ colour: '#211c1a' })).toEqual({ c: 0, m: 0, y: 0, k: 100 })
    expect(printInkOf({ colour: '#ff0000' })).toEqual({ c: 0, m: 100, y: 100, k: 0 })
    expect(printInkOf({ colour: '#d04080' })).toEqual({ c: 0, m: 69, y: 38, k: 18 })
    expect(printInkOf({ colour: '#ffffff' })).toEqual({ c: 0, m: 0, y: 0, k: 0 })
    const drawing = documentOf(SCENARIO[0]!(), null)
    drawing.inks[0]!.print = { c: 10, m: 20, y: 30, k: 40 }
    const { svg, fills } = await drawnBy(
      await writePdf(drawing, { ...options, shapes: shapesIn(drawing), colours: 'print' }),
    )
    expect(fills).toBeGreaterThan(0)
    expect(svg).toContain(`rgb(${[0.1, 0.2, 0.3].map((c) => Math.round((1 - c) * 0.6 * 255)).join()})`)
  })
})
