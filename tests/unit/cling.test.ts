import sharp from 'sharp'
import { describe, expect, it } from 'vitest'
import { defaultPage } from '#core/model/create'
import type { Path } from '#core/geometry/path'
import type { PenTrace } from '#core/model/model'
import type { Vec } from '#core/geometry/point'
import { fitTrace, optionsOf } from '#core/fit/fit-trace'
import { pathsOfData } from '#core/formats/svg/paths'
import { ArcLength } from '#core/geometry/arc-length'
import { bowedPath } from '#core/geometry/bow'
import { IDENTITY } from '#core/geometry/matrix'
import { cubicsOfPath } from '#core/geometry/path'
import { wayAlongPencil } from '#core/sketch/along-pencil'
import { bentAlong } from '#core/sketch/bent-bow'
import { findCrests } from '#core/sketch/crests'
import type { GreyImage } from '#core/sketch/grey-image'
import { distancesToCrests, distanceToPencil } from '#core/sketch/pencil-distance'
import { PencilMap } from '#core/sketch/pencil-map'
import { settled } from '#core/sketch/settle'
import { straysOf } from '#core/sketch/strays'
import { atOnce } from '#core/turns'
import { pencilSketch } from '../../demo/kit/pencil'
import { SCENARIO } from '../../demo/scenario'
import { seeded } from './support/random-lines'
import { polyline } from './support/paths'
import { someOf } from './support/thorough'

async function imageOf(png: Buffer): Promise<GreyImage> {
  const { data, info } = await sharp(png).greyscale().raw().toBuffer({ resolveWithObject: true })
  return { width: info.width, height: info.height, grey: new Uint8Array(data) }
}

const page = defaultPage()
/** The scan has two px for each px of the page, and lies a little askew. */
const [c, s] = [Math.cos(0.0035), Math.sin(0.0035)]
const [mx, my] = [page.width / 2, page.height / 2]
const askew = ({ x, y }: Vec): Vec => ({ x: mx + (x - mx) * c - (y - my) * s, y: my + (x - mx) * s + (y - my) * c })
const onPage = { x: 0, y: 0, width: page.width, height: page.height, angle: 0 }

/** Plain lines on paper of 800 x 600 px, as the page has them. */
async function drawnMap(body: string): Promise<PencilMap> {
  const image = await imageOf(
    await sharp(
      Buffer.from(
        `<svg xmlns="http://www.w3.org/2000/svg" width="800" height="600"><rect width="100%" height="100%" fill="#e8e4da"/><g fill="none" stroke="#555" stroke-width="3">${body}</g></svg>`,
      ),
    )
      .png()
      .toBuffer(),
  )
  return new PencilMap(atOnce(findCrests(image, 'middle')), { x: 0, y: 0, width: 800, height: 600, angle: 0 })
}
const places = (path: Path): Vec[] => {
  const arc = new ArcLength(cubicsOfPath(path))
  return Array.from({ length: 50 }, (_, i) => arc.point(((i + 0.5) / 50) * arc.total))
}

describe('Cling', () => {
  const r = seeded(77)
  /** A hand that follows a way and trembles: 5 px off on the mean square, now here, now there within some 25 px. */
  function trembling(points: readonly Vec[]): PenTrace {
    const keeps = Math.exp(-3 / 25)
    const [far, off] = [5 * Math.sqrt(1 - keeps * keeps), { x: 0, y: 0 }]
    const normal = (): number => Math.sqrt(-2 * Math.log(1 - r())) * Math.cos(2 * Math.PI * r())
    const samples = points.map((p, i) => {
      off.x = keeps * off.x + far * normal()
      off.y = keeps * off.y + far * normal()
      return { x: p.x + off.x, y: p.y + off.y, t: i * 8, pressure: 0.5 }
    })
    return {
      samples,
      device: 'mouse',
      steadiness: 0.4,
      response: 1,
      variation: 0.6,
      fromSpeed: false,
      unevenness: 0,
    } as PenTrace
  }
  const mean = (all: readonly number[]): number => all.reduce((a, b) => a + b, 0) / all.length

  it.each(
    someOf(
      SCENARIO.map((make, i) => [make().name, make(), i] as const),
      4,
    ),
  )(
    'draws what a trembling hand lays over the sketch of %s three times nearer to its lines',
    { timeout: 60_000 },
    async (_, inked, i) => {
      const lines = inked.layers.flatMap((l) => l.lines)
      const crests = atOnce(findCrests(await imageOf(await pencilSketch(lines, page, 41 + i)), 'middle'))
      const pencil = new PencilMap(crests, onPage)
      const [without, within]: [number[], number[]] = [[], []]
      for (const line of lines) {
        const arc = new ArcLength(
          cubicsOfPath(line.path).map((k) => ({ p0: askew(k.p0), p1: askew(k.p1), p2: askew(k.p2), p3: askew(k.p3) })),
        )
        if (arc.total < 60) continue
        const trace = trembling(
          Array.from({ length: Math.ceil(arc.total / 3) + 1 }, (_, n) => arc.point(Math.min(arc.total, n * 3))),
        )
        const { path } = fitTrace(trace, optionsOf(trace))
        const after = settled(path, pencil, { reach: 14, strength: 1 })
        for (const [p, out] of [
          [path, without],
          [after, within],
        ] as const) {
          const laid = new ArcLength(cubicsOfPath(p))
          for (let d = 0; d <= laid.total; d += 2) out.push(arc.nearest(laid.point(d)).distance)
        }
      }
      expect(mean(within)).toBeLessThan(mean(without) / 3)
    },
  )

  const straight = (a: Vec, b: Vec): Path => ({
    nodes: [a, b].map((at) => ({ at, in: null, out: null, joint: 'corner' as const })),
    closed: false,
  })
  const ends = ({ nodes }: Path): number[] => [nodes[0]!.at, nodes.at(-1)!.at].flatMap((p) => [p.x, p.y])

  it('moves nothing over white paper, at strength 0, or out of reach', async () => {
    const path = straight({ x: 100, y: 100 }, { x: 700, y: 130 })
    expect(settled(path, await drawnMap(''), { reach: 14, strength: 1 })).toBe(path)
    const pencil = await drawnMap('<path d="M100 140L700 170"/>')
    expect(settled(path, pencil, { reach: 14, strength: 1 })).toBe(path)
    expect(settled(path, pencil, { reach: 60, strength: 0 })).toBe(path)
  })

  it('draws by its strength, takes an end and a corner along, and holds on over a gap', async () => {
    const pencil = await drawnMap('<path d="M100 200H380M410 200H600V480"/>')
    const hand: Path = polyline(100, 208, 593, 206, 594, 480)
    const on = settled(hand, pencil, { reach: 14, strength: 1 })
    for (const p of places(on)) expect(Math.min(Math.abs(p.y - 200), Math.abs(p.x - 600))).toBeLessThan(1)
    expect(on.nodes.filter((n) => Math.hypot(n.at.x - 600, n.at.y - 200) < 2)).toHaveLength(1)
    const half = settled(straight({ x: 120, y: 208 }, { x: 360, y: 208 }), pencil, { reach: 14, strength: 0.5 })
    for (const y of [ends(half)[1]!, ends(half)[3]!]) expect(y).toBeCloseTo(204, 0)
  })

  it('keeps to one line where another runs beside it, and lets go where the hand leaves', async () => {
    const pencil = await drawnMap('<path d="M100 200H700M100 222H700"/>')
    // Nearer to the lower one for a moment only.
    const hand: Path = polyline(100, 203, 390, 205, 400, 213, 410, 205, 700, 203)
    for (const p of places(settled(hand, pencil, { reach: 14, strength: 1 })))
      expect(Math.abs(p.y - 200)).toBeLessThan(2)
    const away = settled(straight({ x: 100, y: 196 }, { x: 700, y: 60 }), pencil, { reach: 14, strength: 1 })
    expect(Math.abs(ends(away)[3]! - 60)).toBeLessThan(0.6)
    expect(Math.abs(places(away)[25]!.y - 128)).toBeLessThan(1)
  })

  it('is not led astray by lines that it crosses', async () => {
    const pencil = await drawnMap(
      Array.from({ length: 12 }, (_, i) => `<path d="M${120 + i * 50} 100L${160 + i * 50} 400"/>`).join(''),
    )
    const across = straight({ x: 100, y: 240 }, { x: 700, y: 250 })
    for (const p of places(settled(across, pencil, { reach: 14, strength: 1 })))
      expect(Math.abs(p.y - 240 - (p.x - 100) / 60)).toBeLessThan(1)
  })

  it('draws a point to the crest beneath it, and to nothing on white paper', async () => {
    const pencil = await drawnMap('<path d="M100 200H700"/>')
    const p = pencil.crestNear({ x: 300, y: 207 }, 12)!
    expect(Math.abs(p.y - 200)).toBeLessThan(1)
    expect(Math.abs(p.x - 300)).toBeLessThan(1)
    expect(pencil.crestNear({ x: 300, y: 300 }, 12)).toBeNull()
  })
})

describe('a bow laid from end to end of a pencil curve', () => {
  const curved = (d: string): Promise<PencilMap> => drawnMap(`<path d="${d}"/>`)

  it('bends itself to it: one bow for a bow, a few for an S', async () => {
    for (const [d, a, b, most] of [
      ['M100 300Q400 60 700 300', { x: 100, y: 300 }, { x: 700, y: 300 }, 1],
      ['M100 300C200 100 300 100 400 300S600 500 700 300', { x: 101, y: 299 }, { x: 699, y: 301 }, 4],
    ] as const) {
      const pencil = await curved(d)
      const way = wayAlongPencil(a, b, pencil)!
      const { points, pulls } = bentAlong(way, 'rod')!
      expect(pulls.length).toBeLessThanOrEqual(most)
      const bow = bowedPath(
        points,
        pulls,
        points.map((_, i) => i > 0 && i < points.length - 1),
        'rod',
      )
      const truth = new ArcLength(cubicsOfPath(pathsOfData(d, IDENTITY)[0]!))
      for (const p of places(bow)) expect(truth.nearest(p).distance).toBeLessThan(12)
      // What is left settles.
      for (const p of places(settled(bow, pencil, { reach: 14, strength: 1 })))
        expect(truth.nearest(p).distance).toBeLessThan(1.6)
    }
  })

  it('stays straight where no pencil leads from end to end', async () => {
    const pencil = await curved('M100 300Q400 60 700 300')
    expect(wayAlongPencil({ x: 100, y: 300 }, { x: 400, y: 500 }, pencil)).toBeNull()
    expect(wayAlongPencil({ x: 100, y: 450 }, { x: 700, y: 450 }, pencil)).toBeNull()
  })
})

describe('what lies off the pencil', () => {
  it('is told with how far it lies, as brute force has it', async () => {
    const pencil = await drawnMap('<path d="M40 150L760 150"/><circle cx="400" cy="420" r="120"/>')
    const distances = distancesToCrests(pencil.crests)
    const truth = (p: Vec): number =>
      Math.min(p.x < 40 || p.x > 760 ? Infinity : Math.abs(p.y - 150), Math.abs(Math.hypot(p.x - 400, p.y - 420) - 120))
    const r = seeded(8)
    for (let i = 0; i < 400; i++) {
      const p = { x: 60 + 680 * r(), y: 60 + 480 * r() }
      expect(Math.abs(distanceToPencil(distances, pencil, p)! - truth(p))).toBeLessThan(1.2)
    }
    expect(distanceToPencil(distances, pencil, { x: -4, y: 10 })).toBeNull()
    const [line] = pathsOfData('M100 150L300 150L400 160L500 150L700 150', IDENTITY)
    const { strays, off, length } = straysOf(line!, pencil, distances, 2)
    expect(strays).toHaveLength(1)
    expect(Math.abs(strays[0]!.far - 10)).toBeLessThan(1.2)
    // From 2 px off on the one side to 2 px off on the other: four fifths of both slopes.
    expect(off / length).toBeCloseTo((0.8 * 2 * Math.hypot(100, 10)) / (400 + 2 * Math.hypot(100, 10)), 1)
  })
})
