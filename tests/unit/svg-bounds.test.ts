import { describe, expect, it } from 'vitest'
import { countCrossings } from '#core/geometry/count-crossings'
import { parseSvg } from '#core/formats/svg/parse-svg'

const svg = (body: string): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" viewBox="0 0 300 200">${body}</svg>`
const range = <T>(n: number, of: (i: number) => T): T[] => Array.from({ length: n }, (_, i) => of(i))

/** What reading comes to: a sentence, or the notes. */
function read(body: string): { said: string; items: number } {
  let said: string
  let items = 0
  try {
    const { drawing, warnings } = parseSvg(svg(body))
    items = drawing.layers.reduce((n, l) => n + l.items.length, 0)
    said = warnings.join('; ')
  } catch (e) {
    said = (e as Error).message
  }
  return { said, items }
}

// Each took 10 s to minutes before what it asks for was counted; none may come near that again.
describe('an SVG that asks for very much is answered soon', { timeout: 30_000 }, () => {
  it('reuse of what reuses, doubling each time', () => {
    const { said } = read(
      `<defs><path id="a0" d="M1 1h9v3z"/>${range(23, (i) => `<g id="a${i + 1}"><use href="#a${i}"/><use href="#a${i}" x="1"/></g>`).join('')}</defs><use href="#a23"/>`,
    )
    expect(said).toMatch(/it comes to \d+,\d+,\d+ elements/)
    // As much as people make stays.
    expect(
      read(
        `<defs><path id="leaf" d="M1 1h9v3z"/></defs>${range(400, (i) => `<use href="#leaf" x="${i % 20}" y="${i >> 4}"/>`).join('')}`,
      ),
    ).toMatchObject({ items: 400, said: '' })
  })

  it('a hundred thousand style rules', () => {
    const paths = range(300, (i) => `<path class="c${i}" d="M${i} 1h9v3z"/>`).join('')
    const rules = range(100_000, (i) => `.c${i}{fill:#${(i % 0xfff).toString(16).padStart(3, '0')}}`).join('')
    const named = read(`<style>${rules}</style>${paths}`)
    expect(named).toMatchObject({ items: 300, said: '' })
    const all = read(
      `<style>${range(100_000, (i) => `path:nth-child(${i % 7}n+1){fill:#123}`).join('')}</style>${paths}`,
    )
    expect(all.said).toMatch(/\d+ style rules were left out/)
    // Rules are still found by tag, class, id and by what stands about an element.
    const { drawing } = parseSvg(
      svg(
        `<style>g > .leaf.big{fill:#010203} #stem{fill:#040506} rect{fill:#070809} .leaf:not(.big){fill:#0a0b0c}</style><g><path class="leaf big" d="M0 0h9v9z"/></g><path class="leaf" d="M20 0h9v9z"/><path id="stem" d="M40 0h9v9z"/><rect x="60" width="5" height="5"/>`,
      ),
    )
    expect(drawing.inks.map((i) => i.colour)).toEqual(['#010203', '#0a0b0c', '#040506', '#070809'])
  })

  it('an even-odd path that crosses itself at every turn', () => {
    let seed = 7
    const next = (): number => ((seed = (seed * 48271) % 2147483647) % 3000) / 10
    const { said } = read(
      `<path fill-rule="evenodd" d="M${range(1500, () => `${next()} ${next()}`).join('L')}z"/><path d="M1 1h9v3z"/>`,
    )
    expect(said).toContain('it crosses itself more than 20,000 times')
    const square = [
      [0, 0],
      [9, 0],
      [9, 9],
      [0, 9],
    ].map(([x, y]) => ({ x: x!, y: y! }))
    expect(countCrossings([square, square.map(({ x, y }) => ({ x: x + 4, y: y + 5 }))], 99)).toBe(2)
    expect(countCrossings([square.map(({ x, y }) => ({ x: x + y - 3.25, y: y - x })), square], 1)).toBe(1)
  })

  it('paints that refer to paints, and one that is never closed', () => {
    const { items } = read(
      `<path d="M1 1h9v3z" fill="url(#a"/><path d="M1 9h9v3z" fill="${'url(#a) '.repeat(20_000)}red"/><path d="M1 19h9v3z" fill="url(#a) red"/>`,
    )
    expect(items).toBe(2)
  })

  it('clips of clips, in a chain and in a ring', () => {
    const chain = read(
      `<defs>${range(300, (i) => `<clipPath id="c${i}" clip-path="url(#c${i + 1})"><circle cx="${90 + i / 10}" cy="90" r="80"/></clipPath>`).join('')}</defs><path clip-path="url(#c0)" d="M1 1h200v90h-9z"/>`,
    )
    expect(chain.said).toContain('Clips within more than 16 others were left out')
    expect(chain.items).toBe(1)
    const ring = read(
      '<defs><clipPath id="a" clip-path="url(#b)"><circle cx="90" cy="90" r="80"/></clipPath><clipPath id="b" clip-path="url(#a)"><circle cx="99" cy="90" r="80"/></clipPath></defs><path clip-path="url(#a)" d="M1 1h200v90h-9z"/>',
    )
    expect([ring.said, ring.items]).toEqual(['A clip that clips itself was left out', 1])
  })
})
