import { readFileSync } from 'node:fs'
import { describe, expect, it, vi } from 'vitest'
import type { Drawing } from '#core/model/model'
import type { Vec } from '#core/geometry/point'
import type { Cubic } from '#core/geometry/cubic'
import { straight } from '#core/geometry/cubic'
import { areaOfCubics } from '#core/geometry/area'
import { evenWeight, newDrawing, newLine, newLinesLayer } from '#core/model/create'
import { ArrangementFault } from '#core/arrangement/check-arrangement'
import type { Loop } from '#core/arrangement/loop'
import { resolveLoops } from '#core/arrangement/resolve'
import { asFarAsPossible } from '#core/arrangement/as-far-as-possible'
import { openInk } from '#core/ink/open-ink'
import { findingsOf } from '#core/proof/findings-of'
import { makeEdit } from '#core/document/edits'
import { atOnce } from '#core/turns'
import { seeded } from './support/random-lines'
import { polyline } from './support/paths'

/** Where the arrangement has its fault: loops with a curve that begins within so many px of a place contradict themselves. */
let fault: ((loops: readonly Loop[], groups: number) => boolean) | null = null
const ways: unknown[] = []
let again = 0
vi.mock('../../core/arrangement/arrange', async (original) => {
  const real = await original<typeof import('#core/arrangement/arrange')>()
  return {
    ...real,
    arrange: (...[groups, tolerance, way]: Parameters<typeof real.arrange>) => {
      if (way) again++
      if (fault?.(groups.flat(), groups.length)) {
        ways.push(way)
        throw new ArrangementFault('a fault was planted')
      }
      return real.arrange(groups, tolerance, way)
    },
  }
})
const shapesOf = (drawing: Drawing) => atOnce(openInk(drawing).shapes())
const begins =
  (at: Vec, near: number) =>
  (loops: readonly Loop[]): boolean =>
    loops.flat().some(({ curve }) => Math.hypot(curve.p0.x - at.x, curve.p0.y - at.y) < near)

describe('loops that contradict themselves', () => {
  it('do not, where arcs meet half way between grid points: their ends may be rounded to neighbours', () => {
    const step = 2 ** -13
    for (let seed = 1; seed <= 400; seed++) {
      const r = seeded(seed)
      for (let i = 0; i < 8; i++) r()
      const place = (): Vec => ({ x: Math.round(r() * 2 ** 16) * step, y: (Math.round(r() * 2 ** 16) + 0.5) * step })
      const corners = Array.from({ length: 5 }, place)
      // Each side is an eighth to seven eighths of a longer straight line, as a cell sees it.
      const loop: Loop = corners.map((a, i) => {
        const b = corners[(i + 1) % corners.length]!
        const t = (1 + Math.floor(r() * 7)) / 8
        return { curve: straight(a, { x: a.x + (b.x - a.x) / t, y: a.y + (b.y - a.y) / t }), t0: 0, t1: t }
      })
      const sides: Cubic[] = corners.map((a, i) => straight(a, corners[(i + 1) % corners.length]!))
      const areas = [loop, sides.map((curve) => ({ curve, t0: 0, t1: 1 }))].map((l) =>
        resolveLoops([l], 0.05).reduce((sum, c) => sum + areaOfCubics(c), 0),
      )
      expect(areas[0], `seed ${seed}`).toBeCloseTo(areas[1]!, 3)
    }
    expect(again).toBe(0)
  })

  it('a drawing with such loops has its shapes, however it is moved and turned', () => {
    const text = readFileSync('tests/unit/fixtures/contradiction.json', 'utf8')
    for (let i = 0; i < 12; i++) {
      const [c, s] = [Math.cos(0.37 * i), Math.sin(0.37 * i)]
      const turned = JSON.parse(text, (_, v: Vec | null) =>
        v && Object.keys(v).join() === 'x,y' ? { x: c * v.x - s * v.y + 7 * i, y: s * v.x + c * v.y + 3 * i } : v,
      ) as Drawing
      const { shapes, failed } = shapesOf(turned)
      expect([failed.length, new Set(shapes.map((shape) => shape.ink)).size]).toEqual([0, 2])
    }
    expect(again).toBe(0)
  })

  it('are arranged again, on other grids, then moved by less than a tenth of the tolerance', () => {
    const triangle = (x: number, y: number): Loop => {
      const corners = [
        { x, y },
        { x: x + 20, y: y + 2 },
        { x: x + 18, y: y + 21 },
      ]
      return corners.map((p, k) => ({ curve: straight(p, corners[(k + 1) % 3]!), t0: 0, t1: 1 }))
    }
    const loops = [triangle(10, 10), triangle(16, 13)]
    ways.length = 0
    // Only at this very place.
    fault = begins({ x: 10, y: 10 }, 1e-9)
    const [contour] = resolveLoops(loops, 0.05)
    fault = null
    expect(ways).toMatchObject([undefined, {}, { coarser: 1 }, { coarser: 2 }] as never)
    const corner = contour!.map((q) => Math.hypot(q.p0.x - 10, q.p0.y - 10)).sort((a, b) => a - b)[0]!
    expect(corner).toBeGreaterThan(0)
    expect(corner).toBeLessThan(0.005)
  })
})

describe('a fault that nothing mends', () => {
  const lines = Array.from({ length: 12 }, (_, i) =>
    newLine(polyline(20 + 25 * i, 40, 60 + 25 * i, 210), { id: `line-${i}`, weight: evenWeight(5 + i) }),
  )
  const across = newLine(polyline(10, 120, 380, 131), { id: 'across', weight: evenWeight(6) })
  const drawing = newDrawing('Faulty', { layers: [newLinesLayer('Lines', [...lines, across])] })
  const areaOf = (d: Drawing): number =>
    shapesOf({ ...d, settings: { ...d.settings, shapes: { ...d.settings.shapes, simplify: 0 } } })
      .shapes.flatMap((s) => s.contours)
      .reduce(
        (n, c) => n + areaOfCubics(c.nodes.map((a, i) => straight(a.at, c.nodes[(i + 1) % c.nodes.length]!.at))),
        0,
      )

  it('in a cell leaves one line out, by its name, and all others are as they would be without it', () => {
    // The end of one line, where others are united with it: alone it is in order.
    const near = begins({ x: 20 + 25 * 4, y: 40 }, 12)
    fault = (loops) => loops.length > 1 && near(loops)
    const { failed } = shapesOf(drawing)
    const area = areaOf(drawing)
    const told = findingsOf(drawing).filter((f) => f.kind === 'failed')
    fault = null
    expect(told.map((f) => f.items)).toEqual([['line-4']])
    expect(failed.map((f) => f.id)).toEqual(['line-4'])
    expect(failed[0]!.message).toMatch(/left out\. .+\.$/)
    const without = { ...drawing, layers: [newLinesLayer('Lines', [...lines.filter((_, i) => i !== 4), across])] }
    expect(area).toBeCloseTo(areaOf(without), 6)
    expect(areaOf(drawing) - area).toBeGreaterThan(500)
  })

  it('or a line that lies too far from all others takes none of them along', () => {
    const far = newLine(polyline(9e8, 0, 9e8 + 50, 10), { id: 'far', weight: evenWeight(6) })
    const d = { ...drawing, layers: [newLinesLayer('Lines', [far, ...lines, across])] }
    expect(shapesOf(d).failed.map((f) => f.id)).toEqual(['far'])
    expect(areaOf(d)).toBeCloseTo(areaOf(drawing), 3)
  })

  it('is over once the line is elsewhere, in the same session', () => {
    const session = openInk(drawing)
    fault = (loops) => loops.length > 1 && begins({ x: 20 + 25 * 4, y: 40 }, 12)(loops)
    expect(atOnce(session.shapes()).failed).toHaveLength(1)
    const moved = { ...lines[4]!, path: polyline(320, 20, 340, 240) }
    session.apply(makeEdit(drawing, 'Move', (d) => void (d.layers[0]!.items[4] = moved))!.edit.patches)
    const after = atOnce(session.shapes())
    fault = null
    expect(after.failed).toEqual([])
    expect(after.shapes).toEqual(shapesOf(session.drawing).shapes)
  })

  it('of an end, or of what covers a line, leaves the line as it was drawn, told', () => {
    const wall = newLine(polyline(200, 20, 200, 220), { id: 'wall', weight: evenWeight(6) })
    const end = newLine(polyline(60, 120, 200, 121), { id: 'end', weight: evenWeight(16) })
    const d = newDrawing('End', {
      layers: [newLinesLayer('Lines', [wall, end])],
      settings: { ...drawing.settings, tuck: true },
    })
    const [tucked, plain] = [areaOf(d), areaOf({ ...d, settings: { ...d.settings, tuck: false } })]
    // Only where the end is held against what it meets, not where the two are united.
    fault = (loops, groups) => groups > 1 && begins({ x: 60, y: 120 }, 12)(loops)
    const [{ failed }, area] = [shapesOf(d), areaOf(d)]
    fault = null
    expect(failed.map((f) => f.id)).toContain('end')
    expect(area).toBeCloseTo(plain, 6)
    expect(plain - tucked).toBeGreaterThan(1)
  })
})

it('the fewest things are left out with which work cannot be done', () => {
  const bad = new Set([3, 7])
  const { result, left } = asFarAsPossible([0, 1, 2, 3, 4, 5, 6, 7, 8], (some) => {
    if (some.some((n) => bad.has(n))) throw new ArrangementFault('bad')
    return [...some]
  })
  expect([result, left]).toEqual([
    [0, 1, 2, 4, 5, 6, 8],
    [3, 7],
  ])
})
