import { Resvg } from '@resvg/resvg-js'
import { describe, expect, it } from 'vitest'
import { evenWeight, newDrawing, newLine, newLinesLayer, newSketchLayer } from '#core/model/create'
import type { Drawing, Line, Shape } from '#core/model/model'
import { checkDrawing } from '#core/document/check-drawing'
import { InputError } from '#core/errors'
import { matrixOf, scaleOf } from '#core/formats/svg/transform'
import { parseSvg } from '#core/formats/svg/parse-svg'
import { writeSvg } from '#core/formats/svg/write-svg'
import { shapesOf } from '#core/ink/shapes-of'
import { randomLine } from './support/random-lines'
import { plainLine } from './support/desk'
import { polyline } from './support/paths'

const svg = (inner: string, root = 'viewBox="0 0 100 100"'): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" ${root}>${inner}</svg>`

/** One shape a line. */
const outlines = (d: Drawing, tolerance: number): Shape[] =>
  shapesOf({ ...d, settings: { shapes: { unite: false, tolerance, simplify: 0 } } }).shapes

const lines = (d: Drawing): Line[] => d.layers.flatMap((l) => (l.kind === 'lines' ? l.items : []))
const shapes = (d: Drawing): Shape[] => d.layers.flatMap((l) => (l.kind === 'shapes' ? l.items : []))

function sample(): Drawing {
  const traced = newLine(randomLine(3).path, {
    trace: {
      samples: [
        { x: 1.5, y: 2, t: 0, pressure: 0.3 },
        { x: 4, y: 2.25, t: 8, pressure: 0.6, tiltX: 10, tiltY: -4 },
      ],
      device: 'pen',
      steadiness: 0.4,
      response: 1.2,
    },
    snips: [{ from: 0.9, to: 1 }],
  })
  const decided = {
    ...randomLine(2),
    tuck: { first: 'out' as const, last: 'under' as const },
    outside: 'left' as const,
  }
  const drawing = newDrawing('Radish & "bunch" <1>', {
    layers: [
      newSketchLayer({ id: 'sk', image: 'a'.repeat(64), x: 3, y: 4, width: 100, height: 80, angle: 1.5 }),
      newLinesLayer('Roots', [randomLine(1), decided, traced]),
      { ...newLinesLayer('Hidden', [randomLine(4)]), visible: false, locked: true, opacity: 0.5 },
      {
        id: 'fills',
        name: 'Blacks',
        kind: 'shapes',
        visible: true,
        locked: false,
        opacity: 1,
        items: outlines(newDrawing('x', { layers: [newLinesLayer('a', [randomLine(7)])] }), 0.05),
      },
    ],
    amendments: [
      {
        id: 't',
        kind: 'trim',
        line: decided.id,
        place: { at: 0.5, ahead: 0, left: -0.25 },
        over: [traced.id],
        bounds: [{ by: traced.id, side: 1 }],
      },
      {
        id: 'c',
        kind: 'corner',
        ends: [
          { line: decided.id, end: 'last' },
          { line: traced.id, end: 'first' },
        ],
        style: 'tucked',
        behind: 1,
      },
      { id: 'l', kind: 'leave', key: `blunt ${decided.id} first` },
    ],
  })
  return { ...drawing, settings: { ...drawing.settings, tuck: true, corner: 'rounded', proof: { thin: 0.3 } } }
}

describe('live lines', () => {
  it('open again exactly as they were', () => {
    const before = sample()
    const { drawing, warnings } = parseSvg(writeSvg(before, { content: 'lines' }))
    expect(warnings).toEqual([])
    expect({ ...drawing, id: before.id }).toEqual(JSON.parse(JSON.stringify(before)))
  })

  it('survive any number of round trips letter by letter', () => {
    const once = writeSvg(sample(), { content: 'lines' })
    const twice = writeSvg(parseSvg(once).drawing, { content: 'lines' })
    expect(twice).toBe(once)
  })

  it('show plain strokes to other viewers', () => {
    const d = newDrawing('x', {
      layers: [newLinesLayer('a', [newLine(polyline(10, 50, 90, 50), { weight: evenWeight(10) })])],
      page: { width: 100, height: 100, unit: 'px', pxPerMm: 4 },
    })
    const picture = new Resvg(writeSvg(d, { content: 'lines' }), { background: '#ffffff' }).render()
    expect(picture.pixels[(50 * picture.width + 50) * 4]).toBeLessThan(60)
    expect(picture.pixels[(20 * picture.width + 50) * 4]).toBe(255)
  })

  it('that share an id each get one of their own', () => {
    const svg = writeSvg(
      newDrawing('Twins', { layers: [newLinesLayer('A', [newLine(randomLine(1).path), newLine(randomLine(2).path)])] }),
      { content: 'lines' },
    )
    const ids = [...svg.matchAll(/<path id="([^"]+)"/g)].map((m) => m[1]!)
    const { drawing } = parseSvg(svg.replace(ids[1]!, ids[0]!))
    const [first, second] = drawing.layers[0]!.items
    expect(first!.id).toBe(ids[0])
    expect(second!.id).not.toBe(ids[0])
  })

  it('that are damaged are left out with a word, and what is with them comes in', () => {
    const text = writeSvg(sample(), { content: 'lines' }).replace(/bt:weight="[^"]{10}/, 'bt:weight="{{{')
    expect(parseSvg(text).warnings[0]).toMatch(/damaged \(bt:weight\)/)
    expect(shapes(parseSvg(text).drawing)).toHaveLength(shapes(sample()).length)
  })

  it('with a width that is not a number are left out with a word', () => {
    const text = writeSvg(sample(), { content: 'lines' }).replace(
      /&quot;size&quot;:[\d.]+/,
      '&quot;size&quot;:&quot;NaN&quot;',
    )
    expect(parseSvg(text).warnings[0]).toMatch(/size/)
    expect(lines(parseSvg(text).drawing)).toHaveLength(lines(sample()).length - 1)
  })

  it('that are null, nested deeply or of another kind never end in anything but a sentence', () => {
    const whole = writeSvg(sample(), { content: 'lines' })
    const attributes = [...whole.matchAll(/bt:(drawing|layer|line|weight|finish|shape|joints|sketch)="[^"]*"/g)]
    const odd = [
      'null',
      '7',
      '[]',
      '""',
      '{}',
      '{',
      '['.repeat(3000) + ']'.repeat(3000),
      `${'{&quot;a&quot;:'.repeat(3000)}1${'}'.repeat(3000)}`,
      '{&quot;__proto__&quot;:null,&quot;stops&quot;:{}}',
      '{&quot;path&quot;:null,&quot;id&quot;:7,&quot;snips&quot;:[null]}',
    ]
    for (const { 0: attribute, 1: name, index } of attributes) {
      for (const value of odd) {
        const text = `${whole.slice(0, index)}bt:${name}="${value}"${whole.slice(index + attribute.length)}`
        try {
          checkDrawing(parseSvg(text).drawing)
        } catch (e) {
          expect(e, `${name} ${value.slice(0, 40)}`).toBeInstanceOf(InputError)
        }
      }
    }
  })
})

describe('outlines', () => {
  it('hold no strokes and close every contour', () => {
    const d = sample()
    const text = writeSvg(d, { content: 'outlines', shapes: outlines(d, 0.05) })
    expect(text).not.toMatch(/stroke|bt:/)
    for (const [, data] of text.matchAll(/ d="([^"]+)"/g))
      expect(data!.match(/M/g)).toHaveLength(data!.match(/Z/g)!.length)
  })
})

describe('reading other files', () => {
  it('takes strokes as lines with their finish', () => {
    const { drawing } = parseSvg(
      svg(
        '<path d="M0 0L10 0" stroke="#f00" fill="none" stroke-width="3" stroke-linecap="square" stroke-linejoin="bevel" stroke-dasharray="4 2"/>',
      ),
    )
    const [l] = lines(drawing)
    expect(l).toMatchObject({
      weight: { size: 3 },
      finish: { startCap: 'square', endCap: 'square', join: 'bevel', dash: [4, 2] },
    })
    expect(drawing.inks.find((i) => i.id === l!.ink)?.colour).toBe('#ff0000')
  })

  it('takes fills as shapes and keeps the stacking order', () => {
    const { drawing } = parseSvg(
      svg(
        '<rect x="1" y="2" width="5" height="6"/><path d="M0 0H9" stroke="black"/><circle cx="5" cy="1" r="2" fill="#00ff00"/>',
      ),
    )
    expect(drawing.layers.map((l) => l.kind)).toEqual(['shapes', 'lines', 'shapes'])
    expect(shapes(drawing)).toHaveLength(2)
  })

  it('brings in many elements that have a fill and a stroke, and more colours than there are inks', () => {
    const row = Array.from(
      { length: 600 },
      (_, i) =>
        `<rect x="${i}" y="${i % 3}" width="5" height="6" fill="#${(i + 4096).toString(16).padStart(6, '0')}" stroke="black"/>`,
    ).join('')
    const { drawing, warnings } = parseSvg(svg(row))
    expect(drawing.layers.length).toBeLessThanOrEqual(500)
    expect(drawing.layers.reduce((n, l) => n + l.items.length, 0)).toBe(1200)
    expect(warnings.join()).toMatch(/the order of some may differ.*colours/)
    // Side by side, two layers do.
    const apart = Array.from(
      { length: 600 },
      (_, i) => `<rect x="${9 * i}" y="0" width="5" height="6" fill="red" stroke="black"/>`,
    ).join('')
    expect(parseSvg(svg(apart)).drawing.layers.map((l) => l.kind)).toEqual(['shapes', 'lines'])
  })

  it('a name with a space at its edge, and one bad path among good ones, lose nothing else', () => {
    const named = writeSvg({ ...sample(), name: 'Pod' }, { content: 'lines' }).replace(
      '&quot;Pod&quot;',
      '&quot; Pod &quot;',
    )
    expect(parseSvg(named).drawing.name).toBe('Pod')
    const { drawing, warnings } = parseSvg(
      svg(
        '<path d="M0 0Lx" stroke="black"/><path d="M0 0L9 9" stroke="black"/><path d="M0 0L1e300 5" stroke="black"/>',
      ),
    )
    expect(lines(drawing)).toHaveLength(1)
    expect(warnings.filter((w) => w.includes('was left out'))).toHaveLength(2)
  })

  it('takes no time that grows with the square of a file', () => {
    // A hang, not slowness, is looked for: the square of a file so large is minutes or hours.
    const grows = (make: (n: number) => string): void => {
      const start = performance.now()
      try {
        parseSvg(make(300_000))
      } catch (e) {
        expect(e).toBeInstanceOf(InputError)
      }
      expect(performance.now() - start).toBeLessThan(30_000)
    }
    grows((n) => svg(`<path d="M0 0L9 9" stroke="black" transform="${'a'.repeat(n)}"/>`))
    grows((n) => svg(`<path d="M0 0L9 9" stroke="black" transform="${'('.repeat(n)}"/>`))
    grows((n) => svg(`<path d="M0 0L9 9" stroke="black" transform="${'scale('.repeat(n / 6)}"/>`))
    grows((n) => svg(`<polyline stroke="black" fill="none" points="${'1 2 '.repeat(n / 2)}"/>`))
    grows((n) => svg(`<path stroke="black" d="M0 0${'L1 2'.repeat(n / 2)}"/>`))
    grows((n) => svg(`<path stroke="black" d="M0 0l${'1-2'.repeat(n / 2)}"/>`))
    grows((n) => svg(`<path stroke="black" d="${'M0 0'.repeat(8 * n)}"/>`))
    grows((n) =>
      svg(
        Array.from(
          { length: n / 25 },
          (_, i) => `<path d="M0 0L9 9" stroke="#${i.toString(16).padStart(6, '0')}"/>`,
        ).join(''),
      ),
    )
    grows((n) =>
      svg(`<path stroke="black" d="M0 0L9 9" style="${';'.repeat(n)}" stroke-dasharray="${' '.repeat(n)}"/>`),
    )
  }, 120_000)

  it('fits the page to width and height in px, else to the view box', () => {
    expect(parseSvg(svg('', 'width="200" height="100" viewBox="0 0 100 50"')).drawing.page).toMatchObject({
      width: 200,
      height: 100,
    })
    expect(parseSvg(svg('', 'viewBox="-10 -10 40 30"')).drawing.page).toMatchObject({ width: 40, height: 30 })
  })
})

describe('what is kept beside the lines', () => {
  const retouch = { id: 'r', kind: 'retouch' as const, at: { x: 1, y: 2 }, to: null }

  it('settings and retouches come back as they went', () => {
    const drawing = newDrawing('Kept', {
      page: { width: 72, height: 50, unit: 'px', pxPerMm: 4 },
      amendments: [retouch],
      settings: { shapes: { unite: false, tolerance: 0.02, simplify: 0.4 } },
    })
    const { drawing: back } = parseSvg(writeSvg(drawing, { content: 'lines' }))
    expect(back).toMatchObject({ amendments: drawing.amendments, settings: drawing.settings })
  })

  it('those of a file in the first form mean what they meant', () => {
    const drawing = newDrawing('Kept', { page: { width: 360, height: 50, unit: 'px', pxPerMm: 4 } })
    const first = JSON.stringify({
      name: 'Old',
      page: drawing.page,
      inks: drawing.inks,
      settings: {
        shapes: { unite: true, tolerance: 0.05, simplify: 0.15 },
        retouches: [{ at: { x: 1, y: 2 }, to: null }],
      },
    })
    const { drawing: back } = parseSvg(
      `<svg xmlns="http://www.w3.org/2000/svg" xmlns:bt="urn:bellatrait:1" bt:drawing='${first}'/>`,
    )
    expect(back.settings).toEqual({ shapes: { unite: true, tolerance: 0.1, simplify: 0.3 } })
    expect(back.amendments).toMatchObject([{ kind: 'retouch', at: { x: 1, y: 2 }, to: null }])
  })
})

describe('hostile and broken files', () => {
  const bomb = '<!DOCTYPE svg [<!ENTITY a "aaaaaaaaaa"><!ENTITY b "&a;&a;&a;&a;&a;&a;">]>' + svg('<text>&b;</text>')

  it.each([
    ['an entity bomb', bomb, /entities/],
    ['text that is no SVG', 'hello there', /not well-formed/],
    ['nothing', '', /empty/],
    ['an HTML page', '<html></html>', /begins with <html>/],
    ['an unclosed element', '<svg xmlns="http://www.w3.org/2000/svg"><g>', /not well-formed/],
    ['deep nesting', svg('<g>'.repeat(300) + '</g>'.repeat(300)), /nested/],
    ['nesting one level too deep', svg('<g>'.repeat(256) + '</g>'.repeat(256)), /nested more than 256/],
    ['very many elements', svg('<g/>'.repeat(200_000)), /more than 200,000 elements/],
    ['a text that is too long', `${svg('')}${' '.repeat(32_000_000)}`, /larger than 32 MB/],
    ['a broken path', svg('<path d="M0 0L5 q" stroke="black"/>'), /path could not be read/],
    ['a huge coordinate', svg('<path d="M0 0L1e300 5" stroke="black"/>'), /cannot be used/],
  ])('%s is refused with a sentence', (_name, text, message) => {
    expect(() => parseSvg(text)).toThrow(InputError)
    expect(() => parseSvg(text)).toThrow(message)
  })

  it('scripts, handlers, foreign content and outside pictures are left out and named', () => {
    const { drawing, warnings } = parseSvg(
      svg(
        '<script>alert(1)</script><path onclick="alert(1)" d="M0 0L9 9" stroke="black" fill="none"/><foreignObject><p xmlns="http://www.w3.org/1999/xhtml">x</p></foreignObject><image href="file:///etc/passwd"/><use href="#x"/>',
      ),
    )
    expect(lines(drawing)).toHaveLength(1)
    expect(warnings.sort()).toEqual([
      'A picture was left out: bring it in as a sketch',
      'A reused element was left out: what it names is not in the file',
      'A script was left out',
      'An event handler was left out',
      'Foreign content was left out',
    ])
    expect(JSON.stringify(drawing)).not.toContain('alert')
    expect(writeSvg(drawing, { content: 'lines' })).not.toContain('alert')
  })

  it('a name cannot break out of its attribute', () => {
    const d = newDrawing('"><script>alert(1)</script>', { layers: [newLinesLayer('"onload="x', [randomLine(1)])] })
    const text = writeSvg(d, { content: 'lines' })
    expect(text).not.toContain('<script')
    expect(parseSvg(text).drawing.name).toBe(d.name)
  })
})

describe('transforms', () => {
  it('multiply from left to right', () => {
    const m = matrixOf('translate(10,0) rotate(90) scale(2)')
    expect([m[0] * 1 + m[4], m[1] * 1 + m[5]].map((v) => Math.round(v * 1e9) / 1e9)).toEqual([10, 2])
  })

  it('know their scale', () => {
    expect(scaleOf(matrixOf('rotate(33) scale(3)'))).toMatchObject({ even: true })
    expect(scaleOf(matrixOf('scale(-3 3)')).scale).toBeCloseTo(3)
    expect(scaleOf(matrixOf('scale(1 2)')).even).toBe(false)
    expect(scaleOf(matrixOf('skewX(20)')).even).toBe(false)
  })
})

describe('the schema', () => {
  it('takes what the application makes', () => {
    expect(checkDrawing(JSON.parse(JSON.stringify(sample())))).toBeTruthy()
  })

  const spoilt: [string, (d: Drawing) => void][] = [
    ['a NaN width', (d) => (lines(d)[0]!.weight.size = Number.NaN)],
    ['an infinite coordinate', (d) => (lines(d)[0]!.path.nodes[0]!.at.x = Infinity)],
    ['a text for a number', (d) => ((lines(d)[0]!.weight as { size: unknown }).size = '5')],
    ['a line without nodes', (d) => (lines(d)[0]!.path.nodes = [])],
    ['a layer of an unknown kind', (d) => ((d.layers[1] as { kind: string }).kind = 'magic')],
    ['a colour that is none', (d) => (d.inks[0]!.colour = 'javascript:1')],
    ['a page without width', (d) => (d.page.width = 0)],
    ['a name that is too long', (d) => (d.name = 'x'.repeat(200))],
    ['an image that is no hash', (d) => ((d.layers[0]!.items[0] as { image: string }).image = '../../etc/passwd')],
  ]

  it.each(spoilt)('refuses %s', (_name, spoil) => {
    const d = structuredClone(sample())
    spoil(d)
    expect(() => checkDrawing(d)).toThrow()
  })
})

it('a line that is hidden or locked alone, and has a name, comes back so; others do not show it', () => {
  const line = {
    ...plainLine({ x: 3, y: 8 }, { x: 97, y: 20 }, 9),
    id: 'a',
    name: 'Ear',
    hidden: true,
    locked: true,
  } as const
  const svg = writeSvg(newDrawing('Test', { layers: [newLinesLayer('Ink', [line])] }), { content: 'lines' })
  expect(parseSvg(svg).drawing.layers[0]!.items[0]).toMatchObject({ name: 'Ear', hidden: true, locked: true })
  expect(new Resvg(svg).render().pixels.some((v, i) => i % 4 === 3 && v > 0)).toBe(false)
})
