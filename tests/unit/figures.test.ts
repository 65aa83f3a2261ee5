import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { boxOfCubics } from '#core/geometry/bounds'
import { pointAt } from '#core/geometry/cubic'
import type { FigureKind, FigureShape } from '#core/editing/figures'
import { figurePath } from '#core/editing/figures'
import { cubicsOfPath } from '#core/geometry/path'
import { distance } from '#core/geometry/point'

const shape = (kind: FigureKind, over: Partial<FigureShape> = {}): FigureShape => ({
  kind,
  sides: 5,
  depth: 0.5,
  turns: 3,
  ...over,
})
const a = { x: 10, y: 20 }
const b = { x: 110, y: 80 }

describe('figures', () => {
  it.each(['ellipse', 'rectangle'] as const)('an upright %s fills its box, whichever corners are given', (kind) => {
    const coordinate = fc.double({ min: -300, max: 300, noNaN: true })
    fc.assert(
      fc.property(coordinate, coordinate, coordinate, coordinate, (x0, y0, x1, y1) => {
        const box = boxOfCubics(cubicsOfPath(figurePath(shape(kind), { x: x0, y: y0 }, { x: x1, y: y1 })))
        const exact = [Math.min(x0, x1), Math.min(y0, y1), Math.max(x0, x1), Math.max(y0, y1)]
        ;[box.minX, box.minY, box.maxX, box.maxY].forEach((v, i) => expect(v).toBeCloseTo(exact[i]!, 6))
      }),
      { seed: 1 },
    )
  })

  it('an ellipse is round to a part in three thousand', () => {
    for (const c of cubicsOfPath(figurePath(shape('ellipse'), a, b))) {
      for (const t of [0.1, 0.3, 0.5, 0.7, 0.9]) {
        const p = pointAt(c, t)
        expect(Math.abs(Math.hypot((p.x - 60) / 50, (p.y - 50) / 30) - 1)).toBeLessThan(1 / 3000)
      }
    }
  })

  it('a polygon has its sides, a star twice as many corners, every second drawn in', () => {
    expect(figurePath(shape('polygon', { sides: 7 }), a, b).nodes).toHaveLength(7)
    const star = figurePath(shape('star', { sides: 6, depth: 0.4 }), { x: 0, y: 0 }, { x: 100, y: 100 }).nodes
    expect(star).toHaveLength(12)
    star.forEach((n, i) => expect(distance(n.at, { x: 50, y: 50 })).toBeCloseTo(i % 2 ? 20 : 50, 9))
  })

  it('a spiral winds evenly out from the middle to the right of its box, in few nodes', () => {
    const path = figurePath(shape('spiral', { turns: 4 }), { x: 0, y: 0 }, { x: 200, y: 200 })
    expect(path.closed).toBe(false)
    expect(path.nodes.length).toBeLessThan(40)
    expect(distance(path.nodes[0]!.at, { x: 100, y: 100 })).toBeLessThan(1e-6)
    expect(distance(path.nodes.at(-1)!.at, { x: 200, y: 100 })).toBeLessThan(1e-6)
    for (const c of cubicsOfPath(path)) {
      const p = pointAt(c, 0.5)
      const [radius, angle] = [Math.hypot(p.x - 100, p.y - 100), Math.atan2(p.y - 100, p.x - 100)]
      // Radius 25 a turn: what is left of a whole turn must be the angle.
      expect(Math.abs(((radius / 25 - angle / (2 * Math.PI) + 8.5) % 1) - 0.5)).toBeLessThan(0.01)
    }
  })

  it('an arc leads from where the hand began to where it is, level at first and upright at last', () => {
    const { nodes, closed } = figurePath(shape('arc'), a, b)
    expect(closed).toBe(false)
    expect(nodes.map((n) => n.at)).toEqual([a, b])
    expect(nodes[0]!.out!.y).toBe(a.y)
    expect(nodes[1]!.in!.x).toBe(b.x)
  })

  it.each(['ellipse', 'rectangle', 'polygon', 'star', 'spiral', 'arc'] as const)(
    'a %s without size or of one dimension stays finite',
    (kind) => {
      for (const to of [a, { x: 50, y: a.y }]) {
        for (const n of figurePath(shape(kind), a, to).nodes)
          for (const p of [n.at, n.in, n.out]) if (p) expect(Number.isFinite(p.x) && Number.isFinite(p.y)).toBe(true)
      }
    },
  )
})
