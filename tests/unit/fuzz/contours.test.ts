import { describe, expect, it } from 'vitest'
import { areaOfCubics } from '#core/geometry/area'
import { cubicsOfPath } from '#core/geometry/path'
import { unionShapes } from '#core/shapes/combine'
import { simplifyContours } from '#core/shapes/simplify'
import { LONGEST, oddPath, resultOf } from '../support/odd-input'
import { seeded } from '../support/random-lines'

describe('odd contours give a union and a simplification or a typed error, and never hang', () => {
  for (let first = 1; first <= 4000; first += 500) {
    it(`${first} to ${first + 499}`, { timeout: 600_000 }, () => {
      for (let seed = first; seed < first + 500; seed++) {
        const r = seeded(seed)
        for (let i = 0; i < 8; i++) r()
        const shapes = Array.from({ length: 1 + Math.floor(r() * 3) }, (_, i) => ({
          id: String(i),
          ink: 'black',
          from: [],
          contours: [oddPath(r)],
        }))
        const start = performance.now()
        const union = resultOf(() => unionShapes(shapes, { tolerance: 0.05 }))
        if (union) {
          // Far-flung contours are decided on a coarse grid: what is small against their extent may be off.
          const extent = shapes
            .flatMap((s) => s.contours)
            .flatMap((c) => c.nodes)
            .reduce(
              (m, n) =>
                Math.max(
                  m,
                  Math.abs(n.at.x),
                  Math.abs(n.at.y),
                  Math.abs(n.in?.x ?? 0),
                  Math.abs(n.out?.x ?? 0),
                  Math.abs(n.in?.y ?? 0),
                  Math.abs(n.out?.y ?? 0),
                ),
              1,
            )
          expect(
            union.reduce((a, c) => a + areaOfCubics(cubicsOfPath(c)), 0),
            `set ${seed}`,
          ).toBeGreaterThanOrEqual(-1e-9 * extent ** 2)
          const { contours, deviation } = simplifyContours(union, { tolerance: 0.3 })
          expect(contours).toHaveLength(union.length)
          expect(deviation).toBeLessThanOrEqual(0.3)
        }
        expect(performance.now() - start, `set ${seed}`).toBeLessThan(LONGEST)
      }
    })
  }
})
