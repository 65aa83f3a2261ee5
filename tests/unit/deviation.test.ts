import fc from 'fast-check'
import { expect, it } from 'vitest'
import type { Cubic } from '#core/geometry/cubic'
import { cubic, pointAt } from '#core/geometry/cubic'
import { deviationBetween } from '#core/shapes/deviation'

const at = (points: readonly [number, number][]): Cubic =>
  cubic(...(points.map(([x, y]) => ({ x, y })) as [Cubic['p0'], Cubic['p0'], Cubic['p0'], Cubic['p0']]))

/** Largest distance of many points on each from the many points on the other: no index, no flattening, no share of the code. */
function bruteForce(a: readonly Cubic[], b: readonly Cubic[]): number {
  const dense = (all: readonly Cubic[]) =>
    all.flatMap((c) => Array.from({ length: 801 }, (_, i) => pointAt(c, i / 800)))
  const [p, q] = [dense(a), dense(b)]
  const farthest = (from: typeof p, to: typeof p): number =>
    Math.max(
      ...from.filter((_, i) => i % 8 === 0).map((x) => Math.min(...to.map((y) => Math.hypot(x.x - y.x, x.y - y.y)))),
    )
  return Math.max(farthest(p, q), farthest(q, p))
}

it('curves that share their ends and part in between are as far apart as they are', () => {
  const flat = at([
    [0, 0],
    [30, 0],
    [60, 0],
    [90, 0],
  ])
  const bow = at([
    [0, 0],
    [30, 8],
    [60, 8],
    [90, 0],
  ])
  expect(deviationBetween([flat], [bow], 1)).toBeCloseTo(6, 2)
  expect(deviationBetween([bow], [flat], 1)).toBeCloseTo(6, 2)
})

it('agrees with brute force', () => {
  const number = fc.integer({ min: -4, max: 4 })
  fc.assert(
    fc.property(fc.array(number, { minLength: 8, maxLength: 8 }), (d) => {
      const base: [number, number][] = [
        [0, 0],
        [20, 15],
        [45, -12],
        [70, 4],
      ]
      const a = at(base)
      const b = at(base.map(([x, y], i) => [x + d[2 * i]!, y + d[2 * i + 1]!]))
      const [measured, true_] = [deviationBetween([a], [b], 2), bruteForce([a], [b])]
      expect(Math.abs(measured - true_)).toBeLessThan(0.02 + 0.03 * true_)
    }),
    { seed: 21, numRuns: 25 },
  )
})
