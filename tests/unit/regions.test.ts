import { readdirSync, readFileSync } from 'node:fs'
import { Resvg } from '@resvg/resvg-js'
import { describe, expect, it } from 'vitest'
import { evenWeight, newDrawing, newLine, newLinesLayer } from '#core/model/create'
import type { Drawing, Line } from '#core/model/model'
import type { Path } from '#core/geometry/path'
import type { Vec } from '#core/geometry/point'
import { parseSvg } from '#core/formats/svg/parse-svg'
import { writeSvg } from '#core/formats/svg/write-svg'
import { areaOfCubics } from '#core/geometry/area'
import { arcOfPath } from '#core/geometry/known'
import { cubicsOfPath } from '#core/geometry/path'
import { openInk } from '#core/ink/open-ink'
import { regionAt } from '#core/ink/region-at'
import { shapesOf } from '#core/ink/shapes-of'
import { findingsOf } from '#core/proof/findings-of'
import { atOnce } from '#core/turns'
import { documentOf, SCENARIO } from '../../demo/scenario'
import { seeded } from './support/random-lines'
import { few, someOf } from './support/thorough'

const areaOf = (contours: readonly Path[]): number =>
  contours.reduce((n, c) => n + areaOfCubics(cubicsOfPath({ ...c, closed: true })), 0)
const lengthOf = (contours: readonly Path[]): number =>
  contours.reduce((n, c) => n + arcOfPath({ ...c, closed: true }).total, 0)

/** The second opinion: the ink as a renderer paints it, and a flood over what it leaves; shares no code with what it judges. */
class Flood {
  private readonly ink: Uint8Array
  private readonly width: number
  private readonly height: number
  /** Of each pixel the number of the flood that reached it, and what each flood came to. */
  private readonly flooded: Int32Array
  private readonly stack: Int32Array
  private readonly areas = new Map<number, number | null>()

  constructor(
    { drawing }: { drawing: Drawing },
    private readonly zoom: number,
  ) {
    const image = new Resvg(writeSvg(drawing, { content: 'outlines', shapes: shapesOf(drawing).shapes }), {
      fitTo: { mode: 'width', value: drawing.page.width * zoom },
    }).render()
    this.width = image.width
    this.height = image.height
    const { pixels } = image
    this.ink = new Uint8Array(image.width * image.height).map((_, i) => pixels[4 * i + 3]!)
    this.flooded = new Int32Array(this.ink.length)
    this.stack = new Int32Array(this.ink.length)
  }

  /** Coverage 0..255 of the pixel about a point. */
  at({ x, y }: Vec): number {
    return this.ink[Math.floor(y * this.zoom) * this.width + Math.floor(x * this.zoom)]!
  }

  /** Area, px of the page squared, of the paper about a point; null where it reaches the border of the page. */
  from({ x, y }: Vec): number | null {
    const first = Math.floor(y * this.zoom) * this.width + Math.floor(x * this.zoom)
    const known = this.areas.get(this.flooded[first]!)
    if (known !== undefined) return known
    const own = this.areas.size + 1
    let [area, top, open] = [0, 0, false]
    const push = (i: number): void => {
      if (this.flooded[i] || this.ink[i]! > 127) return
      this.flooded[i] = own
      this.stack[top++] = i
    }
    push(first)
    while (top) {
      const i = this.stack[--top]!
      area += 1 - this.ink[i]! / 255
      const [px, py] = [i % this.width, Math.floor(i / this.width)]
      if (px === 0 || py === 0 || px === this.width - 1 || py === this.height - 1) open = true
      if (px > 0) push(i - 1)
      if (px < this.width - 1) push(i + 1)
      if (py > 0) push(i - this.width)
      if (py < this.height - 1) push(i + this.width)
    }
    const told = open ? null : area / this.zoom ** 2
    this.areas.set(own, told)
    return told
  }
}

/** Judges regions about random places of the page against the flood; answers how many places were told of. */
function judge(drawing: Drawing, zoom: number, count: number, seed: number): { regions: number; open: number } {
  const exact = { ...drawing, settings: { ...drawing.settings, shapes: { ...drawing.settings.shapes, simplify: 0 } } }
  const flood = new Flood({ drawing: exact }, zoom)
  const session = openInk(exact)
  const { index } = atOnce(session.paper(0))
  const r = seeded(seed)
  let [regions, open] = [0, 0]
  for (let i = 0; i < count; i++) {
    const at = { x: r() * exact.page.width, y: r() * exact.page.height }
    if (flood.at(at) > 0) continue
    const area = flood.from(at)
    const face = index.at(at)
    if (area === null) {
      open++
      expect(face, `open ground at ${at.x} ${at.y}`).toBeNull()
      continue
    }
    regions++
    expect(face, `a region at ${at.x} ${at.y}`).not.toBeNull()
    const contours = regionAt(exact, at, { gap: 0 })!
    // Within a ring of one pixel.
    expect(Math.abs(areaOf(contours) - area)).toBeLessThan(lengthOf(contours) / zoom)
  }
  return { regions, open }
}

describe('a line of one point among others', () => {
  it('is an ordinary guest of every stage: shapes, regions, bridges, Proof, pieces', () => {
    const node = (x: number, y: number) => ({ at: { x, y }, in: null, out: null, joint: 'corner' as const })
    const dot = newLine({ nodes: [node(150, 120)], closed: false }, { id: 'dot' })
    const gate = newLine(
      { nodes: [node(100, 100), node(220, 110), node(210, 200), node(104, 190), node(99, 102)], closed: false },
      { id: 'gate' },
    )
    const d = newDrawing('Dot', {
      layers: [
        newLinesLayer('Lines', [
          dot,
          gate,
          newLine({ nodes: [node(300, 90), node(300, 90)], closed: false }, { id: 'still' }),
        ]),
      ],
    })
    const session = openInk(d)
    expect(atOnce(session.shapes()).shapes.flatMap((s) => s.contours).length).toBeGreaterThan(2)
    expect(regionAt(d, { x: 190, y: 150 }, { gap: 8 })).not.toBeNull()
    expect(atOnce(session.paper(8)).bridges.length).toBeLessThan(3)
    expect(() => [
      findingsOf(d),
      atOnce(session.piecesAt({ x: 150, y: 120 })),
      atOnce(session.joints()),
      atOnce(session.litter([], { most: 4, least: 1 })),
      atOnce(session.beyond(new Set(['gate']), 6)),
    ]).not.toThrow()
  })
})

describe('regions against a flood over the ink as a renderer paints it', () => {
  it.each(someOf(SCENARIO, 3).map((s) => [s().name, s()] as const))('of %s', { timeout: 120_000 }, (_, scene) => {
    const told = judge({ ...documentOf(scene, null), fills: [] }, 4, 60, 7)
    expect(told.regions).toBeGreaterThan(10)
    expect(told.open).toBeGreaterThan(5)
  })

  it('of icons', { timeout: 120_000 }, () => {
    const folder = 'node_modules/lucide-static/icons'
    const files = readdirSync(folder).filter((f) => f.endsWith('.svg'))
    let [regions, open] = [0, 0]
    for (let i = 0; i < files.length; i += few(46, 23)) {
      const { drawing } = parseSvg(readFileSync(`${folder}/${files[i]}`, 'utf8'), { name: files[i]! })
      const told = judge(drawing, 24, 12, i)
      regions += told.regions
      open += told.open
    }
    expect(regions).toBeGreaterThan(60)
    expect(open).toBeGreaterThan(50)
  })
})

describe('gaps', () => {
  /** A closed figure of one line with a gap of `gap` px between its ink's ends. */
  function figure(kind: number, gap: number, size: number, seed: number): { drawing: Drawing; at: Vec } {
    const r = seeded(seed)
    const c = { x: 300 + r() * 40, y: 240 + r() * 40 }
    const [rx, ry, n] = [70 + r() * 60, 60 + r() * 50, 3 + Math.floor(r() * 5)]
    const turn = r() * 6
    const at = (a: number): Vec => ({ x: c.x + rx * Math.cos(a + turn), y: c.y + ry * Math.sin(a + turn) })
    let path: Path
    if (kind === 0) {
      // An ellipse in eight arcs.
      const k = (4 / 3) * Math.tan(Math.PI / 16)
      const d = (a: number): Vec => ({ x: -rx * Math.sin(a + turn) * k, y: ry * Math.cos(a + turn) * k })
      path = {
        closed: true,
        nodes: Array.from({ length: 8 }, (_, i) => {
          const a = (i * Math.PI) / 4
          const [p, t] = [at(a), d(a)]
          return {
            at: p,
            in: { x: p.x - t.x, y: p.y - t.y },
            out: { x: p.x + t.x, y: p.y + t.y },
            joint: 'smooth' as const,
          }
        }),
      }
    } else
      path = {
        closed: true,
        nodes: Array.from({ length: n }, (_, i) => ({
          at: at((i * 2 * Math.PI) / n),
          in: null,
          out: null,
          joint: 'corner' as const,
        })),
      }
    // Snipped open at a place that is no corner; with butt ends the ink ends where the snip does.
    const { total } = arcOfPath(path)
    const from = 0.5 / path.nodes.length + r() * 0.02
    const base = newLine(path, { id: 'figure', weight: evenWeight(size) })
    const line: Line = {
      ...base,
      finish: { ...base.finish, startCap: 'butt', endCap: 'butt' },
      snips: [{ from, to: from + gap / total }],
    }
    return { drawing: newDrawing('Gap', { layers: [newLinesLayer('Ink', [line])] }), at: c }
  }

  it('within the reach are closed, and those beyond it stay open', () => {
    let [closed, open] = [0, 0]
    for (let i = 0; i < 60; i++) {
      const gap = 1 + (i % 12)
      const { drawing, at } = figure(i % 2, gap, 2 + (i % 5) * 2, i + 1)
      const under = regionAt(drawing, at, { gap: gap * 1.1 + 0.2 })
      if (under) closed++
      if (!regionAt(drawing, at, { gap: gap * 0.9 - 0.2 })) open++
      // What is closed is as large as the whole figure's inside, but for the gap.
      const whole = regionAt(
        { ...drawing, layers: [newLinesLayer('Ink', [{ ...(drawing.layers[0]!.items[0] as Line), snips: [] }])] },
        at,
        { gap: 0 },
      )!
      if (under) expect(Math.abs(areaOf(under) - areaOf(whole))).toBeLessThan(gap * 8 + 4)
    }
    expect({ closed, open }).toEqual({ closed: 60, open: 60 })
  })
})
