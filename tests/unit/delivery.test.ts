import sharp from 'sharp'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { newLine } from '#core/model/create'
import type { Drawing, LinesLayer, Shape } from '#core/model/model'
import { unzipped } from '#core/formats/archive/zip'
import type { Deliverer } from '#core/formats/delivery/deliver'
import { deliverable, outlinesOf } from '#core/formats/delivery/deliver'
import { partOf } from '#core/formats/delivery/part'
import { pictureSize } from '#core/formats/delivery/picture-size'
import type { DeliverySettings } from '#core/formats/delivery/settings'
import { deliverySchema, FIRST_DELIVERIES, LARGEST_PICTURE, PLAIN_DELIVERY } from '#core/formats/delivery/settings'
import { freeFileName } from '#core/formats/file-name'
import { PngWriter } from '#core/formats/png/png-writer'
import { pathsOfData } from '#core/formats/svg/paths'
import { sheetSvg } from '#core/formats/pdf/sheet-svg'
import { sheetsOf } from '#core/formats/pdf/sheets'
import { IDENTITY } from '#core/geometry/matrix'
import { shapesOf } from '#core/ink/shapes-of'
import { documentOf, SCENARIO } from '../../demo/scenario'
import { drawPicture } from '../../server/delivery/draw-picture'
import { pictureSvg } from '../../server/delivery/picture-svg'
import { differenceOf, pixelsOf } from './support/before-and-after'

const by: Deliverer = { picture: (order) => drawPicture(pictureSvg(order), order), samplesOf: () => undefined }
const all = SCENARIO.map((make) => documentOf(make(), null)).map(
  (drawing) => [drawing.name, drawing, shapesOf(drawing).shapes] as const,
)
const can = all.find(([name]) => name === 'Watering can')!
const withSvg = (svg: Partial<DeliverySettings['svg']>, over: Partial<DeliverySettings> = {}): DeliverySettings => ({
  ...PLAIN_DELIVERY,
  ...over,
  svg: { ...PLAIN_DELIVERY.svg, ...svg },
})
const svgOf = (drawing: Drawing, shapes: readonly Shape[], settings: DeliverySettings): string =>
  outlinesOf(drawing, shapes, settings).svg

describe.each(all)('outlines of %s', (_, drawing, shapes) => {
  const plain = pixelsOf(svgOf(drawing, shapes, PLAIN_DELIVERY))

  it('look the same in groups by layer or ink, in mm, and with fewer decimals', () => {
    for (const settings of [
      withSvg({ groups: 'layer' }),
      withSvg({ groups: 'ink' }),
      withSvg({ unit: 'mm' }),
      withSvg({ digits: 2 }),
    ])
      expect(differenceOf(plain, pixelsOf(svgOf(drawing, shapes, settings)))).toBeLessThan(0.0005)
  })

  it('are written to a thousandth of a px, in mm too', () => {
    for (const [unit, scale] of [
      ['px', 1],
      ['mm', drawing.page.pxPerMm],
    ] as const) {
      const said = [...svgOf(drawing, shapes, withSvg({ unit })).matchAll(/ d="([^"]+)"/g)]
        .flatMap(([, d]) => pathsOfData(d!, IDENTITY))
        .flatMap((p) => p.nodes)
      const meant = shapes.flatMap((s) => s.contours.flatMap((c) => c.nodes))
      expect(said.length).toBe(meant.length)
      expect(
        Math.max(...said.map((n, i) => Math.hypot(n.at.x * scale - meant[i]!.at.x, n.at.y * scale - meant[i]!.at.y))),
      ).toBeLessThan(0.001)
    }
  })

  it('as a picture are what the SVG is', { timeout: 60_000 }, async () => {
    const file = await deliverable(
      drawing,
      shapes,
      { ...PLAIN_DELIVERY, kind: 'picture', picture: { by: 'px', dpi: 300, side: 512, tones: 'colour' } },
      by,
    )
    const { data, info } = await sharp(file.bytes).raw().toBuffer({ resolveWithObject: true })
    expect([info.width, info.height, info.channels]).toEqual([plain.width, plain.height, 4])
    // Colours of clear dots are of no account: both on white.
    const onWhite = (p: ArrayLike<number>): Uint8Array =>
      Uint8Array.from({ length: p.length }, (_, i) =>
        Math.round((p[i]! * p[i - (i % 4) + 3]!) / 255 + 255 - p[i - (i % 4) + 3]!),
      )
    expect(differenceOf({ ...plain, pixels: onWhite(plain.pixels) }, { ...plain, pixels: onWhite(data) })).toBeLessThan(
      0.002,
    )
    // The two draw edges differently; drawn by one of them there is next to no difference.
    expect(
      differenceOf(plain, pixelsOf(pictureSvg({ drawing, shapes, width: plain.width, height: plain.height }))),
    ).toBeLessThan(0.0005)
  })
})

describe('an SVG', () => {
  const [, drawing, shapes] = can

  it('has its groups named for layers and inks, its ground first, and its page in mm', () => {
    const byInk = svgOf(drawing, shapes, withSvg({ groups: 'ink' }, { leaving: 'cut-out' }))
    const names = [...byInk.matchAll(/<g id="([^"]*)"/g)].map(([, n]) => n!)
    expect(names).toContain('Black')
    expect(new Set(names).size).toBe(names.length)
    const byLayer = svgOf(drawing, shapes, withSvg({ groups: 'layer' }))
    // Layers in the order of the stack, each as often as others lie between its parts.
    const layers = [...byLayer.matchAll(/<g id="([^"]*)"/g)].map(([, n]) => n!)
    for (const { name } of drawing.layers) expect(layers).toContain(name)
    const mm = svgOf(drawing, shapes, withSvg({ unit: 'mm', digits: 3 }, { ground: '#fff8e0' }))
    const { width, height, pxPerMm } = drawing.page
    expect(mm).toContain(`viewBox="0 0 ${width / pxPerMm} ${Number((height / pxPerMm).toFixed(4))}"`)
    expect(mm.split('\n')[2]).toMatch(/^<rect .*fill="#fff8e0"/)
    expect(mm).not.toMatch(/\.\d{5}/)
    expect(pixelsOf(mm).pixels[3]).toBe(255)
  })
})

describe('a PNG', () => {
  it('written in bands gives its dots back, whatever the bands', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.integer({ min: 1, max: 37 }),
        fc.integer({ min: 1, max: 23 }),
        fc.integer({ min: 1, max: 9 }),
        fc.constantFrom('rgba' as const, 'rgb' as const, 'one-bit' as const),
        fc.integer(),
        async (width, height, band, tones, seed) => {
          let s = seed
          const dots = Uint8ClampedArray.from(
            { length: width * height * 4 },
            (_, i) => ((s = (s * 1103515245 + 12345) & 0x7fffffff), i % 4 === 3 && tones !== 'rgba' ? 255 : s >> 16),
          )
          const writer = new PngWriter({ width, height, tones, dpi: 300 })
          for (let top = 0; top < height; top += band)
            writer.add(dots.subarray(top * width * 4, Math.min(height, top + band) * width * 4))
          const file = Buffer.concat(writer.end())
          const { width: w, height: h, density } = await sharp(file).metadata()
          expect([w, h, density]).toEqual([width, height, 300])
          const back = await sharp(file).ensureAlpha().toColourspace('srgb').raw().toBuffer()
          const wanted =
            tones === 'one-bit'
              ? dots.map((_, i) =>
                  i % 4 === 3
                    ? 255
                    : 0.2126 * dots[i - (i % 4)]! + 0.7152 * dots[i - (i % 4) + 1]! + 0.0722 * dots[i - (i % 4) + 2]! <
                        127.5
                      ? 0
                      : 255,
                )
              : dots
          expect(Buffer.from(wanted.buffer).equals(back)).toBe(true)
        },
      ),
      { numRuns: 120 },
    )
  })

  it('is as fine as was asked for, within its largest size', async () => {
    const page = { width: 720, height: 522, unit: 'mm' as const, pxPerMm: 6 }
    expect(pictureSize(page, { by: 'dpi', dpi: 254, side: 1, tones: 'colour' })).toMatchObject({
      width: 1200,
      height: 870,
    })
    expect(pictureSize(page, { by: 'px', dpi: 1, side: 3000, tones: 'colour' })).toMatchObject({
      width: 3000,
      height: 2175,
    })
    expect(pictureSize(page, { by: 'dpi', dpi: 4800, side: 1, tones: 'colour' }).width).toBe(LARGEST_PICTURE)
    expect(() => new PngWriter({ width: 0, height: 3, tones: 'rgb', dpi: null })).toThrow(/width/)
    const [, drawing, shapes] = can
    const { bytes } = await deliverable(
      drawing,
      shapes,
      { ...PLAIN_DELIVERY, kind: 'picture', picture: { by: 'dpi', dpi: 100, side: 1, tones: 'one-bit' } },
      by,
    )
    const meta = await sharp(bytes).metadata()
    expect([meta.density, meta.bitsPerSample]).toEqual([100, 1])
    const tones = new Set(await sharp(bytes).greyscale().raw().toBuffer())
    expect([...tones].sort((a, b) => a - b)).toEqual([0, 255])
  })
})

describe('a part of a drawing', () => {
  const [, drawing] = can
  it('is a layer alone, or some lines alone, with the fills that these bound', () => {
    const layer = drawing.layers.find((l) => l.name === 'Handle') as LinesLayer
    const alone = partOf(drawing, { what: 'layer', id: layer.id })
    const itemsOf = (d: Drawing): { id: string }[] => d.layers.flatMap((l): { id: string }[] => l.items)
    expect(itemsOf(alone)).toEqual(layer.items)
    const kept = new Set(layer.items.map((i) => i.id))
    for (const f of alone.fills ?? []) expect(f.hold.every((h) => kept.has(h.line))).toBe(true)
    expect(shapesOf(alone).shapes.length).toBeGreaterThan(0)
    const [first] = layer.items
    expect(itemsOf(partOf(drawing, { what: 'items', ids: [first!.id] }))).toEqual([first])
    expect(partOf(drawing, { what: 'page' })).toBe(drawing)
    // A layer that is hidden can leave on its own.
    const hidden = { ...drawing, layers: drawing.layers.map((l) => ({ ...l, visible: false })) } as Drawing
    expect(shapesOf(partOf(hidden, { what: 'layer', id: layer.id })).shapes.length).toBeGreaterThan(0)
  })
})

describe('a delivery', () => {
  it('of everything holds all kinds, and pen traces where there are some', { timeout: 60_000 }, async () => {
    const [, drawing, shapes] = can
    const small = {
      ...PLAIN_DELIVERY,
      kind: 'all' as const,
      picture: { by: 'px' as const, dpi: 1, side: 64, tones: 'colour' as const },
    }
    const names = async (of: Drawing): Promise<string[]> => [
      ...unzipped((await deliverable(of, shapes, small, by)).bytes, { files: 20, bytes: 1e8 }).keys(),
    ]
    expect(await names(drawing)).toEqual([
      'watering-can.svg',
      'watering-can.live.svg',
      'watering-can.pdf',
      'watering-can.png',
    ])
    const samples = [0, 1].map((i) => ({ x: i, y: i, t: i, pressure: 1 }))
    const traced = {
      ...drawing,
      layers: drawing.layers.map((l, i) =>
        i === drawing.layers.length - 1 && l.kind === 'lines'
          ? {
              ...l,
              items: [
                ...l.items,
                newLine(
                  { nodes: [], closed: false },
                  { trace: { samples, device: 'pen', steadiness: 0, response: 1 } },
                ),
              ],
            }
          : l,
      ),
    } as Drawing
    expect(await names(traced)).toContain('watering-can.inkml')
    await expect(deliverable(drawing, shapes, { ...small, kind: 'traces' }, by)).rejects.toThrow('keeps a pen trace')
  })

  it('has settings that are checked, and names that do not clash', () => {
    for (const { settings } of FIRST_DELIVERIES) expect(deliverySchema.validateSync(settings)).toEqual(settings)
    for (const bad of [
      { ground: 'red' },
      { kind: 'film' },
      { svg: { ...PLAIN_DELIVERY.svg, digits: 9 } },
      { picture: { ...PLAIN_DELIVERY.picture, side: 20_001 } },
      { pdf: { ...PLAIN_DELIVERY.pdf, bleed: -1 } },
    ])
      expect(() => deliverySchema.validateSync({ ...PLAIN_DELIVERY, ...bad })).toThrow()
    expect(freeFileName(new Set(['Bee.live.svg', 'bee-2.live.svg']), 'bee.live.svg')).toBe('bee-3.live.svg')
  })

  it('shows each page of a PDF with its bleed and marks', () => {
    const [, drawing, shapes] = can
    const sheets = sheetsOf(drawing, { shapes, separate: true, tolerance: 0.05 })
    expect(sheets.length).toBe(new Set(shapes.map((s) => s.ink)).size)
    const { svg, box } = sheetSvg(drawing, sheets[0]!, { bleed: 3, marks: true })
    expect(box.minX).toBeCloseTo(-11 * drawing.page.pxPerMm)
    expect(svg.match(/stroke=/g)).toHaveLength(8)
    expect([...svg.matchAll(/ fill="([^"]*)"/g)].every(([, f]) => f === '#000000')).toBe(true)
  })
})
