import { readdirSync, readFileSync } from 'node:fs'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { PenTrace } from '#core/model/model'
import { APART, fewStops } from '#core/fit/few-stops'
import { pressureDeviation, pressureStops, quickStops, WIDTH_TOLERANCES } from '#core/fit/pressure-stops'
import { gathered, pressureWidths } from '#core/fit/pressure-widths'
import { parseInkml } from '#core/formats/inkml/parse-inkml'
import { Profile } from '#core/weight/profile'

const shipped = readdirSync('public/practice').filter((f) => f.endsWith('.inkml'))
const traceOf = (file: string): PenTrace => ({
  samples: parseInkml(readFileSync(`public/practice/${file}`, 'utf8'))[0]!,
  device: 'practice',
  steadiness: 0.4,
  response: 1,
  variation: 0.6,
})

describe('the pressure of a shipped trace', () => {
  it.each(shipped)('%s becomes 8 stops at most, within tolerance', (file) => {
    const trace = traceOf(file)
    const stops = pressureStops(trace)
    expect(stops.length).toBeGreaterThan(1)
    expect(stops.length).toBeLessThanOrEqual(8)
    // Measured here by another way than the fitter's own.
    const profile = new Profile(stops, false)
    const off = Math.max(
      ...gathered(pressureWidths(trace)!, APART).map((p) => Math.abs(profile.sampleLeft(p.s).value - p.w)),
    )
    expect(off).toBeLessThanOrEqual(WIDTH_TOLERANCES.at(-1)!)
    expect(pressureDeviation(trace, stops)).toBeCloseTo(off, 9)
  })

  it('keeps to a tolerance of its own, with more stops the closer it is, and fewer than while it is drawn', () => {
    const trace = traceOf('radish-leaf.inkml')
    const counts = [0.03, 0.06, 0.12, 0.3].map((widthTolerance) => {
      const stops = pressureStops({ ...trace, widthTolerance })
      expect(pressureDeviation(trace, stops)).toBeLessThanOrEqual(widthTolerance)
      return stops.length
    })
    expect([...counts].sort((a, b) => b - a)).toEqual(counts)
    expect(counts[0]).toBeGreaterThan(counts[3]!)
    expect(counts[1]).toBeLessThan(quickStops(trace).length)
  })
})

describe('few stops', () => {
  it('lie in order within the line, and their profile within tolerance of any smooth course', () => {
    const wave = fc.record({
      turns: fc.double({ min: 0, max: 4, noNaN: true }),
      depth: fc.double({ min: 0, max: 0.5, noNaN: true }),
      phase: fc.double({ min: 0, max: 6, noNaN: true }),
    })
    fc.assert(
      fc.property(wave, fc.double({ min: 0.03, max: 0.2, noNaN: true }), ({ turns, depth, phase }, tolerance) => {
        const course = Array.from({ length: 90 }, (_, i) => ({
          s: i / 89,
          w: 0.5 + depth * Math.sin(phase + (i / 89) * turns * Math.PI * 2),
        }))
        const stops = fewStops(course, tolerance)
        const profile = new Profile(stops, false)
        for (const p of course)
          expect(Math.abs(profile.sampleLeft(p.s).value - p.w)).toBeLessThanOrEqual(tolerance + 1e-9)
        expect(stops.every((s, i) => s.left === s.right && s.left >= 0 && (i === 0 || s.at > stops[i - 1]!.at))).toBe(
          true,
        )
        expect([stops[0]!.at, stops.at(-1)!.at]).toEqual([0, 1])
      }),
      { numRuns: 30, seed: 2 },
    )
  })
})
