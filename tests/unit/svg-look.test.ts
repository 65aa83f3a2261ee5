import { describe, expect, it } from 'vitest'
import { parseSvg } from '#core/formats/svg/parse-svg'
import { beforeAndAfter, differenceOf, pixelsOf } from './support/before-and-after'

const svg = (inner: string, root = 'viewBox="0 0 100 100"'): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" ${root}>${inner}</svg>`
const star = 'M50 5L78 92L4 38H96L22 92Z'

/** What comes in looks as it did, and nothing needs to be told of it. */
const SAME: [string, string, string?][] = [
  [
    'reuse with a place and a transform',
    '<defs><path id="leaf" d="M0 0C10 -20 30 -20 40 0Z"/></defs><use href="#leaf" x="10" y="50" fill="#a33"/><use xlink:href="#leaf" transform="translate(90 90) rotate(180)" fill="#3a3"/>',
  ],
  [
    'what is reused takes its style where it has none of its own',
    '<g id="pair"><circle cx="20" cy="20" r="8"/><circle cx="40" cy="20" r="8" fill="#00f"/></g><use href="#pair" y="40" fill="#f00" stroke="#0a0" stroke-width="3"/>',
  ],
  [
    'reuse of what reuses, defined later',
    '<use href="#b" x="20"/><g id="a"><rect width="10" height="10" fill="#963"/></g><g id="b"><use href="#a" y="30"/><use href="#a" y="60"/></g>',
  ],
  [
    'a symbol with its view box, cut off by it',
    '<symbol id="s" viewBox="0 0 10 10"><circle cx="5" cy="5" r="7" fill="#357"/></symbol><use href="#s" x="10" y="10" width="60" height="30"/>',
  ],
  [
    'a symbol that is stretched',
    '<symbol id="s" viewBox="0 0 10 10" preserveAspectRatio="none"><circle cx="5" cy="5" r="4" fill="#357"/></symbol><use href="#s" x="10" y="10" width="70" height="30"/>',
  ],
  [
    'nested drawings, sliced and aligned',
    '<svg x="10" y="10" width="60" height="30" viewBox="0 0 20 20" preserveAspectRatio="xMinYMax slice"><rect width="20" height="20" fill="#ccc"/><circle cx="10" cy="10" r="9" fill="#a0a"/></svg>',
  ],
  ['even-odd fills', `<path fill-rule="evenodd" d="${star}" fill="#06c"/>`],
  [
    'even-odd fills of contours within each other, whichever way they run',
    '<g style="fill-rule:evenodd"><path d="M5 5H95V95H5ZM20 20H80V80H20ZM40 40V60H60V40Z"/></g>',
  ],
  ['non-zero fills', `<path d="${star}" fill="#06c"/>`],
  [
    'style sheets: elements, classes, ids, descendants, the style attribute',
    '<style>#c { fill: #00f } g .d { fill: #aa0 } .b { fill: #0a0 } rect { fill: #f00 } .e, .f { fill: #0aa; stroke: #000; stroke-width: 4px }</style><rect width="20" height="20" fill="#123"/><rect class="b" x="25" width="20" height="20"/><rect id="c" class="b" x="50" width="20" height="20"/><g><rect id="x" class="b d" y="30" width="20" height="20"/><rect class="d" x="30" y="30" width="20" height="20" style="fill:#f0f"/></g><circle class="f" cx="60" cy="60" r="12"/>',
  ],
  [
    'currentColor, through groups',
    '<g color="#b40"><path d="M10 10H90V40H10Z" fill="currentColor"/><g color="#04b"><path d="M10 60H90" stroke="currentColor" stroke-width="8"/></g></g>',
  ],
  [
    'colours in all words',
    '<rect width="20" height="20" fill="darkorchid"/><rect x="25" width="20" height="20" fill="rgb(10 200 30)"/><rect x="50" width="20" height="20" fill="hsl(200, 80%, 40%)"/><rect x="75" width="20" height="20" fill="#f80"/>',
  ],
  [
    'units',
    '<rect x="5mm" y="1cm" width="0.5in" height="12pt" fill="#444"/><circle cx="50%" cy="75%" r="10%" fill="#a22"/>',
  ],
  ['a size in mm', '<rect x="10" y="10" width="30" height="20"/>', 'width="80mm" height="50mm" viewBox="0 0 80 50"'],
  [
    'a view box in a page of other proportions',
    '<circle cx="50" cy="50" r="45" fill="#282"/>',
    'width="200" height="100" viewBox="0 0 100 100"',
  ],
  ['a view box that begins elsewhere', '<circle cx="0" cy="0" r="45" fill="#282"/>', 'viewBox="-50 -50 100 100"'],
  [
    'see-through colour on one plain colour',
    '<rect width="100" height="100" fill="#fc0"/><circle cx="50" cy="50" r="30" fill="#00f" fill-opacity="0.5"/><path d="M10 90H90" stroke="#000" stroke-width="6" opacity="0.4"/>',
  ],
  [
    'dashes, caps, joins and miter limits',
    '<g fill="none" stroke="#222" stroke-width="6"><path d="M10 10H90" stroke-dasharray="12 6" stroke-linecap="round"/><path d="M10 60L50 30L90 60" stroke-miterlimit="1.2"/><path d="M10 90L50 70L90 90" stroke-linejoin="round" stroke-linecap="square"/></g>',
  ],
  [
    'stroke before fill',
    '<circle cx="50" cy="50" r="30" fill="#fc0" stroke="#000" stroke-width="16" paint-order="stroke"/>',
  ],
  [
    'strokes of uneven scale',
    '<g transform="scale(3 0.8) rotate(20)"><circle cx="20" cy="40" r="10" fill="none" stroke="#444" stroke-width="4"/></g>',
  ],
  [
    'what is hidden, and seen again within',
    '<g visibility="hidden"><rect width="40" height="40"/><rect x="50" width="40" height="40" visibility="visible" fill="#080"/></g><g display="none"><rect y="50" width="40" height="40" display="inline"/></g>',
  ],
  [
    'the first of several that is for us',
    '<switch><rect systemLanguage="de" width="40" height="40" fill="#f00"/><rect systemLanguage="en" width="60" height="60" fill="#080"/><rect width="90" height="90"/></switch>',
  ],
  [
    'clips on fills, of circles and of even-odd paths',
    `<clipPath id="c"><circle cx="50" cy="50" r="30"/></clipPath><clipPath id="e"><path clip-rule="evenodd" d="${star}"/></clipPath><rect width="60" height="100" fill="#c33" clip-path="url(#c)"/><rect x="60" width="40" height="100" fill="#33c" clip-path="url(#e)"/>`,
  ],
  [
    'clips as large as what they clip, on groups, and within each other',
    '<clipPath id="b" clipPathUnits="objectBoundingBox"><rect width="0.5" height="1"/></clipPath><clipPath id="i"><rect x="20" y="20" width="60" height="60"/></clipPath><clipPath id="o" clip-path="url(#i)"><circle cx="50" cy="50" r="36"/></clipPath><rect x="2" y="2" width="16" height="90" fill="#090" clip-path="url(#b)"/><g clip-path="url(#o)"><rect width="100" height="100" fill="#fa0"/><circle cx="70" cy="70" r="30"/></g>',
  ],
  [
    'clips that reuse',
    '<defs><circle id="k" cx="10" cy="10" r="10"/></defs><clipPath id="c"><use href="#k" x="30" y="30"/></clipPath><rect width="100" height="100" fill="#639" clip-path="url(#c)"/>',
  ],
]

describe('an SVG as people have it looks the same once it has come in', () => {
  it.each(SAME)('%s', (_, inner, root) => {
    const { difference, warnings } = beforeAndAfter(svg(inner, root))
    expect(warnings).toEqual([])
    expect(difference).toBeLessThan(0.0012)
  })

  it('or it is told what differs, and where', () => {
    const gradient =
      '<linearGradient id="g"><stop offset="0" stop-color="#f00"/><stop offset="1" stop-color="#00f"/></linearGradient>'
    const told = (inner: string) => parseSvg(svg(inner)).notes
    const [mean] = told(`<defs>${gradient}</defs><rect x="10" y="20" width="30" height="40" fill="url(#g)"/>`)
    expect(mean).toEqual({
      text: 'A gradient was given its mean colour',
      count: 1,
      places: [{ minX: 10, minY: 20, maxX: 40, maxY: 60 }],
    })
    expect(
      parseSvg(svg(`<defs>${gradient}</defs><rect width="30" height="40" fill="url(#g)"/>`)).drawing.inks.map(
        (i) => i.colour,
      ),
    ).toEqual(['#800080'])
    expect(
      told('<text x="20" y="30">Peas</text><text x="20" y="60">Beans</text><path d="M0 0H9V9Z"/>')[0],
    ).toMatchObject({ count: 2, text: expect.stringContaining('Lettering') as string })
    expect(told('<path d="M0 0H9V9Z" mask="url(#m)"/>')[0]!.text).toContain('A mask was left out')
    expect(told('<g filter="url(#f)"><path d="M0 0H9V9Z"/></g>')[0]!.text).toContain('A filter was left out')
    expect(told('<path d="M0 0H9V9Z" fill="#f00" opacity="0.5"/>')[0]!.text).toContain('see-through')
    expect(
      told(
        '<clipPath id="c"><rect width="30" height="100"/></clipPath><path d="M10 10H90" stroke="#000" stroke-width="6" clip-path="url(#c)"/>',
      )[0]!.text,
    ).toContain('became a shape')
    expect(
      parseSvg(
        svg(
          '<pattern id="p" width="4" height="4"><rect width="4" height="4" fill="#0f0"/></pattern><rect width="50" height="50" fill="url(#p)"/>',
        ),
      ).drawing.inks[0]!.colour,
    ).toBe('#00ff00')
  })

  it('what reuses itself, or very much, is refused and costs nothing else', () => {
    const round = parseSvg(
      svg('<g id="a"><use href="#b"/><rect width="9" height="9"/></g><g id="b"><use href="#a"/></g>'),
    )
    expect(round.warnings.join()).toContain('reuses itself')
    expect(round.drawing.layers.some((l) => l.items.length)).toBe(true)
    // Ten times ten times ten ...
    const bomb = Array.from(
      { length: 12 },
      (_, i) => `<g id="n${i + 1}">${`<use href="#n${i}"/>`.repeat(10)}</g>`,
    ).join('')
    const huge = parseSvg(
      svg(`<defs><g id="n0"><path d="M0 0"/></g>${bomb}</defs><rect width="9" height="9"/><use href="#n12"/>`),
    )
    expect(huge.warnings.join()).toContain('it comes to thousands of millions of elements')
    expect(huge.drawing.layers.reduce((n, l) => n + l.items.length, 0)).toBe(1)
  }, 60_000)

  it('what is important wins over the style attribute; a stroke that does not grow has its own width', () => {
    const inks = parseSvg(
      svg('<style>.d { fill: #aa0 !important }</style><rect class="d" width="9" height="9" style="fill:#f0f"/>'),
    ).drawing.inks
    expect(inks.map((i) => i.colour)).toEqual(['#aaaa00'])
    const { layers } = parseSvg(
      svg(
        '<g transform="scale(4)"><path d="M4 4L20 20" stroke="#000" stroke-width="2" vector-effect="non-scaling-stroke"/></g>',
      ),
    ).drawing
    expect(layers[0]!.items[0]).toMatchObject({ weight: { size: 2 } })
  })

  it('groups become layers by their names', () => {
    const { drawing } = parseSvg(
      svg(
        '<g id="Leaf"><path d="M0 0L50 50" stroke="#000"/><g id="vein"><path d="M0 50L50 0" stroke="#000"/></g></g><g><title>Root</title><rect x="60" y="60" width="20" height="20"/></g><rect x="90" y="90" width="5" height="5"/>',
      ),
    )
    expect(drawing.layers.map((l) => [l.name, l.kind, l.items.length])).toEqual([
      ['Leaf', 'lines', 2],
      ['Root', 'shapes', 1],
      ['Shapes', 'shapes', 1],
    ])
  })

  it('the judge sees what is moved, recoloured or missing', () => {
    const a = pixelsOf(svg('<rect width="50" height="50" fill="#a00"/>'))
    for (const other of [
      '<rect x="1" width="50" height="50" fill="#a00"/>',
      '<rect width="50" height="50" fill="#a40"/>',
      '',
    ])
      expect(differenceOf(a, pixelsOf(svg(other)))).toBeGreaterThan(0.004)
  })
})
