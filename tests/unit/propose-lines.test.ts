import sharp from 'sharp'
import { describe, expect, it } from 'vitest'
import { defaultPage } from '#core/drawing/create'
import type { Path, Vec } from '#core/drawing/model'
import { ArcLength } from '#core/geometry/arc-length'
import { cubicsOfPath } from '#core/geometry/path'
import type { GreyImage } from '#core/sketch/grey-image'
import { proposeLines } from '#core/sketch/propose-lines'
import { pencilSketch } from '../../demo/kit/pencil'
import { SCENARIO } from '../../demo/scenario'
import { seeded } from './support/random-lines'

async function imageOf(png: Buffer): Promise<GreyImage> {
  const { data, info } = await sharp(png).greyscale().raw().toBuffer({ resolveWithObject: true })
  return { width: info.width, height: info.height, grey: new Uint8Array(data) }
}

/** Places along paths, `step` px apart. */
const placesOn = (paths: readonly Path[], step: number, map: (p: Vec) => Vec = (p) => p): Vec[] =>
  paths.map((p) => new ArcLength(cubicsOfPath(p))).flatMap((a) => Array.from({ length: Math.max(1, Math.floor(a.total / step)) }, (_, i) => map(a.point((i + 0.5) * step))))

/** How far each place is from the nearest of others, px, by cells. */
function distances(from: readonly Vec[], to: readonly Vec[]): number[] {
  const cells = new Map<string, Vec[]>()
  const cell = (p: Vec, i = 0, k = 0): string => `${Math.floor(p.x / 16) + i} ${Math.floor(p.y / 16) + k}`
  for (const p of to) cells.set(cell(p), [...(cells.get(cell(p)) ?? []), p])
  return from.map((p) => Math.min(16, ...[-1, 0, 1].flatMap((i) => [-1, 0, 1].flatMap((k) => cells.get(cell(p, i, k)) ?? [])).map((q) => Math.hypot(q.x - p.x, q.y - p.y))))
}
const share = (all: readonly number[], most: number): number => all.filter((d) => d <= most).length / all.length
const median = (all: readonly number[]): number => all.toSorted((a, b) => a - b)[all.length >> 1]!

describe('lines proposed from a sketch', () => {
  const page = defaultPage()
  // The scan has two px for each px of the page, and lies a little askew.
  const [c, s] = [Math.cos(0.0035), Math.sin(0.0035)]
  const [mx, my] = [page.width / 2, page.height / 2]
  const scanned = ({ x, y }: Vec): Vec => ({ x: 2 * (mx + (x - mx) * c - (y - my) * s), y: 2 * (my + (x - mx) * s + (y - my) * c) })

  it.each(SCENARIO.map((make) => make()).map((d, i) => [d.name, d, i] as const))('of %s lie on the lines that were drawn', { timeout: 120_000 }, async (_, inked, i) => {
    const lines = inked.layers.flatMap((l) => l.lines)
    const found = proposeLines(await imageOf(await pencilSketch(lines, page, 41 + i))).filter((p) => p.confidence > 0.3)
    const paths = found.map((p) => p.path)
    const truth = lines.map((l) => l.path)
    const missed = distances(placesOn(truth, 2, scanned), placesOn(paths, 1))
    const wrong = distances(placesOn(paths, 4), placesOn(truth, 0.5, scanned))
    // Within 2 px of the page.
    expect(share(missed, 4)).toBeGreaterThan(0.94)
    expect(share(wrong, 4)).toBeGreaterThan(0.94)
    expect(median(wrong) / 2).toBeLessThan(0.7)
    expect(paths.reduce((n, p) => n + p.nodes.length, 0)).toBeLessThan(1.3 * truth.reduce((n, p) => n + p.nodes.length, 0))
  })

  const drawn = async (body: string, width = 600, height = 400): Promise<GreyImage> => imageOf(await sharp(Buffer.from(`<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}"><rect width="100%" height="100%" fill="#e8e4da"/><g fill="none" stroke="#555" stroke-width="2.4">${body}</g></svg>`)).png().toBuffer())

  it('close what is closed, go straight on through a crossing, and bridge a gap', async () => {
    const found = proposeLines(await drawn('<circle cx="150" cy="200" r="80"/><path d="M300 200H400M406 200H560M430 80V330"/>')).filter((p) => p.confidence > 0.3)
    expect(found.filter((p) => p.path.closed)).toHaveLength(1)
    const open = found.filter((p) => !p.path.closed).map(({ path: { nodes } }) => [nodes[0]!.at, nodes.at(-1)!.at].map((p) => [Math.round(p.x / 10), Math.round(p.y / 10)]))
    expect(open).toHaveLength(2)
    const across = open.find(([a, b]) => Math.abs(a![1]! - b![1]!) < 2)!
    expect(Math.abs(across[0]![0]! - across[1]![0]!)).toBeGreaterThan(24)
  })

  it('lie within a third of a px of a clean line, also under a shadow', async () => {
    const line = '<path d="M40 320C160 40 420 40 560 300"/>'
    const shadow = '<defs><linearGradient id="g"><stop stop-color="#000" stop-opacity="0"/><stop offset="1" stop-color="#000" stop-opacity="0.55"/></linearGradient></defs><rect width="600" height="400" fill="url(#g)" stroke="none"/>'
    const truth: Path = { closed: false, nodes: [{ at: { x: 40, y: 320 }, in: null, out: { x: 160, y: 40 }, joint: 'corner' }, { at: { x: 560, y: 300 }, in: { x: 420, y: 40 }, out: null, joint: 'corner' }] }
    for (const body of [line, line + shadow]) {
      const [best] = proposeLines(await drawn(body))
      const off = distances(placesOn([best!.path], 3), placesOn([truth], 0.25))
      expect(median(off)).toBeLessThan(0.34)
      expect(new ArcLength(cubicsOfPath(best!.path)).total).toBeGreaterThan(0.95 * new ArcLength(cubicsOfPath(truth)).total)
    }
  })

  it('are none on paper, in the dark and in one pixel; noise gives next to none; what is impossible is refused', () => {
    const flat = (width: number, height: number, value: number): GreyImage => ({ width, height, grey: new Uint8Array(width * height).fill(value) })
    for (const image of [flat(300, 200, 255), flat(300, 200, 0), flat(1, 1, 90), flat(7, 900, 200)]) expect(proposeLines(image)).toEqual([])
    const r = seeded(3)
    const noise = { width: 300, height: 200, grey: Uint8Array.from({ length: 60_000 }, () => 215 + Math.floor(r() * 40)) }
    expect(proposeLines(noise).filter((p) => p.confidence > 0.3)).toEqual([])
    expect(() => proposeLines({ width: 3, height: 3, grey: new Uint8Array(8) })).toThrow(/9 pixels/)
    expect(() => proposeLines({ width: -1, height: 3, grey: new Uint8Array(0) })).toThrow(/width/i)
    expect(() => proposeLines(flat(20, 20, 255), { merge: Number.NaN })).toThrow(/merge/)
  })
})
