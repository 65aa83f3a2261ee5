import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { ArcLength } from '#core/geometry/arc-length'
import { pointAt } from '#core/geometry/cubic'
import { cubicsOfPath } from '#core/geometry/path'
import { distance } from '#core/geometry/point'
import { arc } from '#core/outline/arc'
import { areaOfCubics } from '#core/geometry/area'
import { randomLine } from './support/random-lines'

const seeds = fc.integer({ min: 1, max: 5000 })

describe('arc length', () => {
  it('agrees with the sum of many short chords', () => {
    fc.assert(
      fc.property(seeds, (seed) => {
        const cubics = cubicsOfPath(randomLine(seed).path)
        let sum = 0
        for (const c of cubics)
          for (let i = 1; i <= 4000; i++) sum += distance(pointAt(c, (i - 1) / 4000), pointAt(c, i / 4000))
        const { total } = new ArcLength(cubics)
        expect(Math.abs(total - sum)).toBeLessThan(1e-3 + sum * 1e-4)
      }),
      { seed: 1, numRuns: 20 },
    )
  })

  it('locating a length and measuring it again is the same', () => {
    fc.assert(
      fc.property(seeds, fc.double({ min: 0, max: 1, noNaN: true }), (seed, u) => {
        const arcLength = new ArcLength(cubicsOfPath(randomLine(seed).path))
        const { segment, t } = arcLength.locate(u * arcLength.total)
        expect(arcLength.at(segment, t)).toBeCloseTo(u * arcLength.total, 5)
      }),
      { seed: 2 },
    )
  })

  it('the nearest place to a point on the path is that point', () => {
    fc.assert(
      fc.property(seeds, fc.double({ min: 0, max: 1, noNaN: true }), (seed, u) => {
        const arcLength = new ArcLength(cubicsOfPath(randomLine(seed).path))
        expect(arcLength.nearest(arcLength.point(u * arcLength.total)).distance).toBeLessThan(0.05)
      }),
      { seed: 3 },
    )
  })

  it('a circle of arcs has its length and area', () => {
    const circle = arc({ x: 40, y: -7 }, { x: 30, y: 0 }, 2 * Math.PI, 0.001)
    expect(new ArcLength(circle).total).toBeCloseTo(2 * Math.PI * 30, 2)
    expect(areaOfCubics(circle)).toBeCloseTo(Math.PI * 900, 0)
  })

  it('fewer arcs serve a coarser tolerance, each within it', () => {
    const count = (tolerance: number): number => arc({ x: 0, y: 0 }, { x: 100, y: 0 }, 2 * Math.PI, tolerance).length
    expect(count(1)).toBe(4)
    expect(count(1e-4)).toBeGreaterThan(count(0.01))
    for (const tolerance of [0.05, 0.001]) {
      for (const c of arc({ x: 0, y: 0 }, { x: 100, y: 0 }, 2 * Math.PI, tolerance)) {
        for (let i = 0; i <= 20; i++)
          expect(Math.abs(Math.hypot(pointAt(c, i / 20).x, pointAt(c, i / 20).y) - 100)).toBeLessThanOrEqual(
            tolerance * 1.05,
          )
      }
    }
  })
})
