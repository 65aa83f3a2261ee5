import { describe, expect, it } from 'vitest'
import { areaOfCubics } from '#core/geometry/area'
import type { Cubic } from '#core/geometry/cubic'
import { straight } from '#core/geometry/cubic'
import { deviationBetween } from '#core/shapes/deviation'
import { crossesItself } from '#core/arrangement/resolve'
import { LocalSimplifier } from '#core/shapes/simplify-locally'

const TOLERANCE = 1

/** A band 300 px long between two wavy edges, as one contour. The upper edge lies at `y` and swings by `swing` px. */
function band(y: number, height: number, swing: number, phase: number): Cubic[] {
  const edge = (at: number, sign: number): { x: number; y: number }[] =>
    Array.from({ length: 61 }, (_, i) => ({ x: 5 * i, y: at + sign * swing * Math.sin(i * 0.9 + phase) }))
  const points = [...edge(y, 1), ...edge(y + height, 1).reverse()]
  return points.map((p, i) => straight(p, points[(i + 1) % points.length]!))
}

describe('contours simplified chain by chain', () => {
  // Two bands with a gap far below the tolerance: drawn anew, either edge could come to lie on the other side.
  const upper = band(100, 40, 0.6, 0)
  const close = band(140.08, 40, 0.6, 0)
  const away = band(190, 40, 0.6, 0)

  it('never come to cross each other, and are drawn anew where there is room', () => {
    for (const lower of [close, away]) {
      const { contours, deviation, nodesBefore, nodesAfter } = new LocalSimplifier(TOLERANCE).of([upper, lower])
      expect(crossesItself(contours, TOLERANCE / 4)).toBe(false)
      expect(nodesAfter).toBeLessThan(lower === away ? nodesBefore / 4 : nodesBefore)
      expect(deviation).toBeLessThanOrEqual(TOLERANCE)
      for (const [i, c] of contours.entries()) {
        expect(deviationBetween([upper, lower][i]!, c, TOLERANCE)).toBeLessThanOrEqual(deviation + 1e-3)
        expect(areaOfCubics(c)).toBeGreaterThan(0)
      }
    }
  })

  it('look again at a chain when what lies near it changes, and only then', () => {
    const simplifier = new LocalSimplifier(TOLERANCE)
    const seen = [away, close, away].map((lower) => simplifier.of([upper, lower]))
    for (const [i, lower] of [away, close, away].entries())
      expect(seen[i]).toEqual(new LocalSimplifier(TOLERANCE).of([upper, lower]))
    expect(seen[1]!.nodesAfter).toBeGreaterThan(seen[0]!.nodesAfter)
    const far = band(400, 40, 0.6, 1)
    const more = simplifier.of([upper, away, far])
    expect(more.contours[0]).toBe(simplifier.of([upper, away]).contours[0])
  })
})
