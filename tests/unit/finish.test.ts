import { describe, expect, it } from 'vitest'
import { newLine } from '#core/model/create'
import { expandLine } from '#core/outline/expand'
import { dashFrom, dashText } from '#core/weight/dash'
import { roughWeight } from '#core/weight/rough'
import { around } from '../../demo/kit/spline'
import { plainLine } from './support/desk'

describe('a pattern of dashes in words', () => {
  it('is lengths, or multiples of the size', () => {
    expect(dashFrom(' 12, 6 ', 5)).toEqual([12, 6])
    expect(dashFrom('2x .5x 3', 8)).toEqual([16, 4, 3])
    expect(dashFrom('', 5)).toEqual([])
    expect(dashFrom(dashText([1.25, 3]), 5)).toEqual([1.25, 3])
  })

  it.each(['a', '5 -3', '1e9', 'NaN', '0 0', '<b>'])('refuses %s with what to do', (text) => {
    expect(() => dashFrom(text, 5)).toThrow(/Write numbers|above 0/)
  })

  it('refuses more lengths than a line takes', () => {
    expect(() => dashFrom('1 '.repeat(65), 5)).toThrow('at most 64')
  })
})

describe('rough edges', () => {
  const smooth = plainLine({ x: 0, y: 0 }, { x: 200, y: 0 }, 10)
  const rough = (seed: number, amount = 2, grain = 8) => ({
    ...smooth,
    finish: { ...smooth.finish, rough: { amount, grain, seed } },
  })

  it('swing by no more than the amount, each in its own way, and the same every time', () => {
    const { stops } = roughWeight(rough(1), 200)
    expect(stops.length).toBeGreaterThan(40)
    const off = stops.flatMap((s) => [s.left, s.right]).map((f) => Math.abs(f * 5 - 5))
    expect(Math.max(...off)).toBeLessThanOrEqual(2)
    expect(Math.max(...off)).toBeGreaterThan(1)
    expect(stops.some((s) => Math.abs(s.left - s.right) > 0.1)).toBe(true)
    expect(roughWeight(rough(1), 200).stops).toEqual(stops)
    expect(roughWeight(rough(2), 200).stops).not.toEqual(stops)
  })

  it('show in the outline, stay in the ink of thin places, and are nothing at no amount', () => {
    const ys = expandLine(rough(3), { tolerance: 0.05 }).flatMap((c) => c.nodes.map((n) => Math.abs(n.at.y)))
    expect(Math.max(...ys)).toBeGreaterThan(5.5)
    expect(Math.max(...ys)).toBeLessThan(7.1)
    expect(roughWeight({ ...rough(1, 50) }, 200).stops.every((s) => s.left > 0 && s.right > 0)).toBe(true)
    expect(roughWeight(rough(1, 0), 200)).toBe(smooth.weight)
  })

  it('meet themselves on a closed line, and are held to a sane number of stops', () => {
    const ring = newLine(around([0, 50], [50, 0], [100, 50], [50, 100]), {
      finish: { ...smooth.finish, rough: { amount: 1, grain: 6, seed: 4 } },
    })
    const { stops } = roughWeight(ring, 314)
    expect(stops.at(-1)!.at).toBeLessThan(1)
    expect(expandLine(ring, { tolerance: 0.05 })).toHaveLength(2)
    expect(roughWeight(rough(1, 1, 0.1), 20000).stops.length).toBeLessThanOrEqual(2002)
  })
})
