import { describe, expect, it } from 'vitest'
import { Profile } from '#core/weight/profile'
import { scaledStretch } from '#core/weight/stretch'
import { acrossAt } from '~/instruments/across'
import { Caliper } from '~/instruments/caliper'
import { drag, plainLine, TestWorktop } from './support/desk'

const weight = {
  ...{ size: 10, start: null, end: null, nib: null, pinned: false },
  stops: [
    { at: 0, left: 0.5, right: 1 },
    { at: 0.3, left: 1, right: 0.8 },
    { at: 0.8, left: 0.6, right: 1.4 },
  ],
}

describe('a stretch of a line', () => {
  it('is as many times as wide within, and as it was beyond its soft ends, at all places', () => {
    for (const [closed, from, to] of [
      [false, 0.4, 0.6],
      [false, 0.2, 0.9],
      [true, 0.35, 0.5],
      [true, 0.9, 1.05],
    ] as const) {
      const made = scaledStretch(weight, { from, to }, 1.7, 0.05, closed)
      const [was, is] = [new Profile(weight.stops, closed), new Profile(made.stops, closed)]
      const ratio = (u: number): number => is.sampleLeft(u % 1).value / was.sampleLeft(u % 1).value
      for (const s of [0.05, 0.5, 0.95])
        expect(ratio(from + (to - from) * s), `${from}-${to} at ${s}`).toBeCloseTo(1.7, 1)
      for (const u of [from - 0.08, to + 0.08])
        if (u > 0 && u < 1) expect(ratio(u), `${from}-${to} beyond, ${u}`).toBeCloseTo(1, 1)
    }
  })

  it('is marked by a drag along the line, weighed by a drag across and by keys, one step each', () => {
    const worktop = new TestWorktop([plainLine({ x: 0, y: 0 }, { x: 200, y: 0 }, 10)])
    worktop.chosen = [worktop.lines[0]!.id]
    worktop.wants.swellReach = 0.05
    const caliper = new Caliper(worktop)
    drag(caliper, [60, 2, 90, 3, 120, 4])
    expect(worktop.marked).toMatchObject({ from: 0.3, to: 0.6 })
    expect(worktop.labels).toEqual([])
    drag(caliper, [80, -5, 80, -9, 80, -12])
    const half = (x: number): number => acrossAt(worktop.lines[0]!, x / 200).right
    expect([30, 70, 110, 160].map(half).map(Math.round)).toEqual([5, 12, 12, 5])
    expect(worktop.labels).toEqual(['Weigh a stretch'])
    expect(caliper.key('[')).toBe(true)
    expect(half(90)).toBeCloseTo(12 / 1.04, 6)
    caliper.key('Escape')
    expect(worktop.marked).toBeNull()
    expect(caliper.key('[')).toBe(false)
  })

  it('and stops in a box are chosen', () => {
    const line = { ...plainLine({ x: 0, y: 0 }, { x: 200, y: 0 }, 10), weight }
    const worktop = new TestWorktop([line])
    worktop.chosen = [line.id]
    drag(new Caliper(worktop), [40, -40, 60, 20, 180, 30])
    expect(worktop.chosenStops.map((s) => s.index)).toEqual([1, 2])
    expect(worktop.chosen).toEqual([line.id])
    drag(new Caliper(worktop), [40, 60, 40, 60])
    expect(worktop.chosen).toEqual([])
  })
})
