import { describe, expect, it } from 'vitest'
import { areaOfCubics } from '#core/geometry/area'
import { outlineOf } from '#core/outline/expand'
import { LONGEST, oddLine, resultOf } from './odd-input'

const BATCH = 500

/** Tests that odd lines give a closed outline of finite points and positive area, or a typed error, and never hang. */
export function fuzzLines(from: number, to: number): void {
  describe('odd lines give an outline or a typed error, and never hang', () => {
    for (let first = from; first <= to; first += BATCH) {
      it(`${first} to ${first + BATCH - 1}`, { timeout: 600_000 }, () => {
        let results = 0
        for (let seed = first; seed < first + BATCH; seed++) {
          const start = performance.now()
          const contours = resultOf(() => outlineOf(oddLine(seed), [0.05, 0.5, 0.005][seed % 3]!))
          expect(performance.now() - start, `line ${seed}`).toBeLessThan(LONGEST)
          if (!contours) continue
          results++
          let broken = 0
          for (const c of contours) {
            c.forEach((s, i) => {
              if (![s.p0, s.p1, s.p2, s.p3].every((p) => Number.isFinite(p.x) && Number.isFinite(p.y))) broken++
              const next = c[(i + 1) % c.length]!.p0
              if (next.x !== s.p3.x || next.y !== s.p3.y) broken++
            })
          }
          expect(broken, `line ${seed}`).toBe(0)
          expect(
            contours.reduce((a, c) => a + areaOfCubics(c), 0),
            `line ${seed}`,
          ).toBeGreaterThanOrEqual(0)
        }
        expect(results).toBeGreaterThan(BATCH / 3)
      })
    }
  })
}
