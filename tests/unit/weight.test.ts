import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { evenWeight } from '#core/model/create'
import type { WidthStop } from '#core/model/model'
import { Profile } from '#core/weight/profile'
import { SHELF, flipEnds, flipSides, follows, withProfile } from '#core/weight/shelf'
import { HEAVIEST, heavier, lighter } from '#core/weight/size'
import { addStop, addStopBeside, growStops, removeStops, slideStop, widenStop, widenStops } from '#core/weight/stops'

const share = fc.double({ min: 0, max: 1, noNaN: true })
const factor = fc.double({ min: 0, max: 3, noNaN: true })
const stop: fc.Arbitrary<WidthStop> = fc.record({ at: share, left: factor, right: factor })
const stops = fc.uniqueArray(stop, { minLength: 2, maxLength: 7, comparator: (a, b) => Math.abs(a.at - b.at) < 0.01 })

describe('profiles', () => {
  it('never leave the range of the two stops around a place', () => {
    fc.assert(
      fc.property(stops, share, (all, u) => {
        const sorted = [...all].sort((a, b) => a.at - b.at)
        const i = sorted.findIndex((s) => s.at > u)
        const [a, b] =
          i < 0 ? [sorted.at(-1)!, sorted.at(-1)!] : i === 0 ? [sorted[0]!, sorted[0]!] : [sorted[i - 1]!, sorted[i]!]
        const { value } = new Profile(all, false).sampleLeft(u)
        expect(value).toBeGreaterThanOrEqual(Math.min(a.left, b.left) - 1e-9)
        expect(value).toBeLessThanOrEqual(Math.max(a.left, b.left) + 1e-9)
      }),
      { seed: 2, numRuns: 300 },
    )
  })

  it('have no seam on a closed line', () => {
    fc.assert(
      fc.property(stops, (all) => {
        const profile = new Profile(all, true)
        const [a, b] = [profile.sampleLeft(0), profile.sampleLeft(1)]
        expect(a.value).toBeCloseTo(b.value, 9)
        expect(a.slope).toBeCloseTo(b.slope, 6)
      }),
      { seed: 3 },
    )
  })

  it('of a closed line do not care where it begins', () => {
    const kinked = fc.uniqueArray(fc.record({ at: share, left: factor, right: factor, sharp: fc.boolean() }), {
      minLength: 2,
      maxLength: 6,
      comparator: (a, b) => Math.abs(a.at - b.at) < 0.01,
    })
    fc.assert(
      fc.property(kinked, share, share, (all, by, u) => {
        const turned = all.map((s) => ({ ...s, at: (s.at + by) % 1 }))
        // Beside a stop the two may fall on different sides of it.
        fc.pre(all.every((s) => Math.abs(s.at - u) > 1e-6 && s.at % 1 !== 0))
        const [a, b] = [new Profile(all, true).sampleLeft(u), new Profile(turned, true).sampleLeft((u + by) % 1)]
        expect(a.value).toBeCloseTo(b.value, 6)
      }),
      { seed: 4, numRuns: 500 },
    )
  })

  it('break at a sharp stop and nowhere else', () => {
    const sharp = new Profile(
      [
        { at: 0, left: 0, right: 0 },
        { at: 0.5, left: 1, right: 1, sharp: true },
        { at: 1, left: 0.5, right: 0 },
      ],
      false,
    )
    expect(sharp.sampleLeft(0.5, true).slope).toBeGreaterThan(0)
    expect(sharp.sampleLeft(0.5).slope).toBeLessThan(0)
    const smooth = new Profile(
      [
        { at: 0, left: 0, right: 0 },
        { at: 0.5, left: 1, right: 1 },
        { at: 1, left: 0.5, right: 0 },
      ],
      false,
    )
    expect(smooth.sampleLeft(0.5, true).slope).toBeCloseTo(smooth.sampleLeft(0.5).slope, 9)
  })

  it('give the slope of what they draw', () => {
    fc.assert(
      fc.property(stops, fc.double({ min: 0.02, max: 0.98, noNaN: true }), (all, u) => {
        const profile = new Profile(all, false)
        const e = 1e-6
        if (all.some((s) => Math.abs(s.at - u) < 2 * e)) return
        const slope = (profile.sampleLeft(u + e).value - profile.sampleLeft(u - e).value) / (2 * e)
        expect(profile.sampleLeft(u).slope).toBeCloseTo(slope, 2)
      }),
      { seed: 4 },
    )
  })
})

describe('changing stops', () => {
  it('adding one keeps the width where it is added', () => {
    fc.assert(
      fc.property(stops, share, (all, at) => {
        const weight = { ...evenWeight(8), stops: [...all].sort((a, b) => a.at - b.at) }
        const before = new Profile(weight.stops, false)
        const added = addStop(weight, at, false)
        expect(added.weight.stops[added.index]!.left).toBeCloseTo(
          before.sampleLeft(added.weight.stops[added.index]!.at).value,
          9,
        )
        expect(added.weight.stops.map((s) => s.at)).toEqual(
          [...added.weight.stops.map((s) => s.at)].sort((a, b) => a - b),
        )
      }),
      { seed: 5 },
    )
  })

  it('what is widened stays where it is: the ends of an even line keep their width', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.01, max: 0.99, noNaN: true }), (at) => {
        const added = addStop(evenWeight(8), at, false)
        const swollen = new Profile(widenStop(added.weight, added.index, 'both', 4).stops, false)
        expect([0, at, 1].map((u) => swollen.sampleLeft(u).value)).toEqual([1, 4, 1])
      }),
      { seed: 7 },
    )
  })

  it('a closed line needs no stops at its seam', () => {
    const added = addStop(evenWeight(8), 0.5, true)
    expect(added.weight.stops.map((s) => s.at)).toEqual([0, 0.5])
  })

  it('one beside another lands in the gap after it, or before it where it is the last', () => {
    const weight = { ...evenWeight(8), stops: [0, 0.4, 1].map((at) => ({ at, left: 1, right: 1 })) }
    expect(addStopBeside(weight, 1, false)).toMatchObject({ index: 2, weight: { stops: [{}, {}, { at: 0.7 }, {}] } })
    expect(addStopBeside(weight, 2, false)).toMatchObject({ index: 2, weight: { stops: [{}, {}, { at: 0.7 }, {}] } })
    expect(addStopBeside(evenWeight(8), 0, false)).toMatchObject({
      index: 1,
      weight: { stops: [{ at: 0 }, { at: 0.5 }, { at: 1 }] },
    })
  })

  it('sliding never passes a neighbour', () => {
    const weight = { ...evenWeight(8), stops: [0, 0.4, 0.8].map((at) => ({ at, left: 1, right: 1 })) }
    expect(slideStop(weight, 1, 5).stops[1]!.at).toBeLessThan(0.8)
    expect(slideStop(weight, 1, -5).stops[1]!.at).toBeGreaterThan(0)
    expect(slideStop(weight, 2, 5).stops[2]!.at).toBe(1)
  })

  it('widening takes one side or both, never below nothing', () => {
    const weight = evenWeight(8)
    expect(widenStop(weight, 0, 'left', 2).stops[0]).toMatchObject({ left: 2, right: 1 })
    expect(widenStop(weight, 0, 'right', 2).stops[0]).toMatchObject({ left: 1, right: 2 })
    expect(widenStop(weight, 0, 'both', -3).stops[0]).toMatchObject({ left: 0, right: 0 })
  })

  it('several are widened by one of them in proportion, and each by a step on its own', () => {
    const weight = {
      ...evenWeight(8),
      stops: [
        [0, 1, 2],
        [0.5, 0.5, 1],
        [1, 3, 3],
      ].map(([at, left, right]) => ({ at: at!, left: left!, right: right! })),
    }
    const sides = (w: typeof weight): number[][] => w.stops.map((s) => [s.left, s.right])
    expect(sides(widenStops(weight, new Set([0, 1]), 0, 'both', 1.5, 1.5))).toEqual([
      [1.5, 1.5],
      [0.75, 1.5],
      [3, 3],
    ])
    expect(sides(widenStops(weight, new Set([1, 2]), null, 'left', 9, 2))).toEqual([
      [1, 2],
      [1, 1],
      [6, 3],
    ])
    expect(sides(growStops(weight, new Set([0, 1]), 'both', -0.75))).toEqual([
      [0.25, 1.25],
      [0, 0.25],
      [3, 3],
    ])
    expect(sides(growStops(weight, new Set([2]), 'right', 0.5))).toEqual([
      [1, 2],
      [0.5, 1],
      [3, 3.5],
    ])
    expect(growStops(weight, new Set([2]), 'right', 0.5).pinned).toBe(true)
  })

  it('the last stop stays, evened', () => {
    expect(removeStops({ ...evenWeight(8), stops: [{ at: 0.4, left: 0, right: 3 }] }, new Set([0])).stops).toEqual([
      { at: 0, left: 1, right: 1 },
    ])
  })
})

describe('the shelf', () => {
  it('puts a profile on and keeps the size', () => {
    for (const profile of SHELF) {
      const weight = withProfile(evenWeight(7), profile)
      expect(weight.size).toBe(7)
      expect(follows(weight, profile)).toBe(true)
      expect(SHELF.filter((p) => follows(weight, p))).toHaveLength(1)
    }
  })

  it('flipping twice is nothing', () => {
    for (const profile of SHELF) {
      const weight = withProfile(evenWeight(7), profile)
      const twice = flipEnds(flipEnds(weight))
      twice.stops.forEach((s, i) => expect(s.at).toBeCloseTo(weight.stops[i]!.at, 12))
      expect(flipSides(flipSides(weight))).toEqual(weight)
    }
  })

  it('flipping the ends mirrors the course', () => {
    const weight = withProfile(
      evenWeight(7),
      SHELF.find((p) => p.id === 'end')!,
    )
    const [a, b] = [new Profile(weight.stops, false), new Profile(flipEnds(weight).stops, false)]
    for (let u = 0; u <= 1; u += 0.1) expect(b.sampleLeft(1 - u).value).toBeCloseTo(a.sampleLeft(u).value, 9)
  })
})

describe('lighter and heavier', () => {
  it('go by about a tenth, stay readable, and never the wrong way', () => {
    expect([heavier(6), lighter(6.6), heavier(0.5), lighter(0.5)]).toEqual([6.6, 6, 0.55, 0.455])
    for (const size of [0, 0.001, 0.004, 1, 1.04, 3.3, 999, HEAVIEST]) {
      expect(heavier(size)).toBeGreaterThanOrEqual(size)
      expect(lighter(size)).toBeLessThanOrEqual(size)
      expect(heavier(size)).toBeLessThanOrEqual(HEAVIEST)
    }
  })
})
