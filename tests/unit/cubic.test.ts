import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { boxOfCubic } from '#core/geometry/bounds'
import type { Cubic } from '#core/geometry/cubic'
import {
  cubic,
  derivativeAt,
  flatten,
  isStraight,
  nearest,
  pointAt,
  split,
  straight,
  subcurve,
  tangentAt,
} from '#core/geometry/cubic'
import { distance } from '#core/geometry/point'

const coordinate = fc.double({ min: -500, max: 500, noNaN: true })
const point = fc.record({ x: coordinate, y: coordinate })
const anyCubic = fc.tuple(point, point, point, point).map(([a, b, c, d]) => cubic(a, b, c, d))
const parameter = fc.double({ min: 0, max: 1, noNaN: true })

/** Distance from a point to a polyline. */
function toPolyline(p: { x: number; y: number }, line: { x: number; y: number }[]): number {
  let best = Infinity
  for (let i = 1; i < line.length; i++) {
    const [a, b] = [line[i - 1]!, line[i]!]
    const d = { x: b.x - a.x, y: b.y - a.y }
    const u = Math.min(1, Math.max(0, ((p.x - a.x) * d.x + (p.y - a.y) * d.y) / (d.x * d.x + d.y * d.y || 1)))
    best = Math.min(best, Math.hypot(p.x - a.x - d.x * u, p.y - a.y - d.y * u))
  }
  return best
}

describe('cubics', () => {
  it('split keeps every point of the curve', () => {
    fc.assert(
      fc.property(anyCubic, parameter, parameter, (c, t, u) => {
        const [a, b] = split(c, t)
        expect(distance(pointAt(a, u), pointAt(c, u * t))).toBeLessThan(1e-9 * 1000)
        expect(distance(pointAt(b, u), pointAt(c, t + u * (1 - t)))).toBeLessThan(1e-9 * 1000)
      }),
      { seed: 1 },
    )
  })

  it('a subcurve runs along the curve, also backwards', () => {
    fc.assert(
      fc.property(anyCubic, parameter, parameter, parameter, (c, t0, t1, u) => {
        const part = subcurve(c, t0, t1)
        expect(distance(pointAt(part, u), pointAt(c, t0 + (t1 - t0) * u))).toBeLessThan(1e-6)
      }),
      { seed: 2 },
    )
  })

  it('the whole subcurve is the very same curve', () => {
    const c = cubic({ x: 0, y: 0 }, { x: 1, y: 2 }, { x: 3, y: 4 }, { x: 5, y: 0 })
    expect(subcurve(c, 0, 1)).toBe(c)
  })

  it('flattening stays within its tolerance', () => {
    fc.assert(
      fc.property(anyCubic, fc.constantFrom(0.5, 0.05), (c, tolerance) => {
        const line = flatten(c, tolerance)
        for (let i = 0; i <= 40; i++)
          expect(toPolyline(pointAt(c, i / 40), line)).toBeLessThanOrEqual(tolerance * 1.0001)
      }),
      { seed: 3, numRuns: 60 },
    )
  })

  it('finds the nearest point at least as well as a dense search', () => {
    fc.assert(
      fc.property(anyCubic, point, (c, p) => {
        let best = Infinity
        for (let i = 0; i <= 400; i++) best = Math.min(best, distance(pointAt(c, i / 400), p))
        expect(nearest(c, p, 64).distance).toBeLessThanOrEqual(best + 0.5)
      }),
      { seed: 4, numRuns: 60 },
    )
  })

  it('bounds hold the curve and touch it', () => {
    fc.assert(
      fc.property(anyCubic, (c) => {
        const box = boxOfCubic(c)
        let minX = Infinity
        for (let i = 0; i <= 200; i++) {
          const p = pointAt(c, i / 200)
          expect(p.x).toBeGreaterThanOrEqual(box.minX - 1e-9)
          expect(p.x).toBeLessThanOrEqual(box.maxX + 1e-9)
          expect(p.y).toBeGreaterThanOrEqual(box.minY - 1e-9)
          expect(p.y).toBeLessThanOrEqual(box.maxY + 1e-9)
          minX = Math.min(minX, p.x)
        }
        expect(minX - box.minX).toBeLessThan(1)
      }),
      { seed: 5, numRuns: 60 },
    )
  })

  it('the derivative agrees with differences', () => {
    fc.assert(
      fc.property(anyCubic, fc.double({ min: 0.01, max: 0.99, noNaN: true }), (c, t) => {
        const e = 1e-5
        const [a, b] = [pointAt(c, t - e), pointAt(c, t + e)]
        const d = derivativeAt(c, t)
        expect(d.x).toBeCloseTo((b.x - a.x) / (2 * e), 2)
        expect(d.y).toBeCloseTo((b.y - a.y) / (2 * e), 2)
      }),
      { seed: 6, numRuns: 60 },
    )
  })

  it('has a tangent where a handle is drawn in', () => {
    const c: Cubic = cubic({ x: 0, y: 0 }, { x: 0, y: 0 }, { x: 10, y: 10 }, { x: 20, y: 0 })
    const t = tangentAt(c, 0)!
    expect(t.x).toBeCloseTo(Math.SQRT1_2)
    expect(t.y).toBeCloseTo(Math.SQRT1_2)
  })

  it('has no tangent when it is one point', () => {
    const p = { x: 3, y: 4 }
    expect(tangentAt(cubic(p, p, p, p), 0.5)).toBeNull()
  })

  it('tells straight from curved', () => {
    expect(isStraight(straight({ x: 0, y: 0 }, { x: 9, y: 3 }), 1e-9)).toBe(true)
    expect(isStraight(cubic({ x: 0, y: 0 }, { x: 3, y: 1 }, { x: 6, y: 0 }, { x: 9, y: 0 }), 0.01)).toBe(false)
    // Collinear, but doubling back.
    expect(isStraight(cubic({ x: 0, y: 0 }, { x: 20, y: 0 }, { x: -9, y: 0 }, { x: 9, y: 0 }), 0.01)).toBe(false)
  })
})
