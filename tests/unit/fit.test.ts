import { describe, expect, it } from 'vitest'
import type { PenTrace } from '#core/drawing/model'
import { fitCubic } from '#core/fit/fit-cubic'
import { fitCurve, fitLongest } from '#core/fit/fit-curve'
import { fitTrace } from '#core/fit/fit-trace'
import { evaluate, interpolate, realRoots } from '#core/fit/roots'
import type { CurveSource } from '#core/fit/source'
import { CubicChain } from '#core/fit/source'
import { ArcLength } from '#core/geometry/arc-length'
import { cubic, nearest, split } from '#core/geometry/cubic'
import { cubicsOfPath } from '#core/geometry/path'
import { distance } from '#core/geometry/point'
import { InputError } from '#core/errors'
import { seeded } from './support/random-lines'

const circle = (radius: number): CurveSource => ({
  sample: (u) => ({
    at: { x: radius * Math.cos(u), y: radius * Math.sin(u) },
    derivative: { x: -radius * Math.sin(u), y: radius * Math.cos(u) },
  }),
})

/** A spiral that tightens: no cubic is exact. */
const spiral: CurveSource = {
  sample: (u) => {
    const r = 100 * Math.exp(-0.3 * u)
    const [c, s] = [Math.cos(u), Math.sin(u)]
    return { at: { x: r * c, y: r * s }, derivative: { x: r * (-0.3 * c - s), y: r * (-0.3 * s + c) } }
  },
}

describe('one cubic', () => {
  it('reproduces a cubic exactly', () => {
    const c = cubic({ x: 0, y: 0 }, { x: 40, y: 90 }, { x: 130, y: 70 }, { x: 160, y: -10 })
    const fit = fitCubic(new CubicChain([c]), 0, 1)!
    expect(fit.deviation).toBeLessThan(1e-9)
    expect(distance(fit.cubic.p1, c.p1)).toBeLessThan(1e-6)
  })

  it('keeps an S', () => {
    const c = cubic({ x: 0, y: 0 }, { x: 80, y: -90 }, { x: 70, y: 120 }, { x: 160, y: 10 })
    expect(fitCubic(new CubicChain([c]), 0, 1)!.deviation).toBeLessThan(1e-7)
  })

  it('error falls about 64 times when the parts double', () => {
    const worst = (parts: number): number => {
      let w = 0
      for (let i = 0; i < parts; i++) w = Math.max(w, fitCubic(spiral, (2 * i) / parts, (2 * (i + 1)) / parts)!.deviation)
      return w
    }
    for (const n of [2, 4]) {
      const ratio = worst(n) / worst(2 * n)
      expect(ratio).toBeGreaterThan(40)
      expect(ratio).toBeLessThan(100)
    }
  })

  it('measures what it says', () => {
    const fit = fitCubic(circle(100), 0, 2)!
    let worst = 0
    for (let u = 0; u <= 2; u += 0.01) worst = Math.max(worst, nearest(fit.cubic, circle(100).sample(u).at, 64).distance)
    expect(fit.deviation).toBeGreaterThan(worst * 0.8)
    expect(fit.deviation).toBeLessThan(worst * 1.2 + 1e-9)
  })
})

describe('many cubics', () => {
  it.each([0.5, 0.05, 0.005])('stay within %d px, meet, and keep the ends', (tolerance) => {
    const fits = fitCurve(spiral, 0, 12, tolerance)
    for (let u = 0; u <= 12; u += 0.02) {
      const p = spiral.sample(u).at
      expect(Math.min(...fits.map((f) => nearest(f.cubic, p, 32).distance))).toBeLessThanOrEqual(tolerance * 1.05)
    }
    fits.slice(1).forEach((f, i) => expect(distance(f.cubic.p0, fits[i]!.cubic.p3)).toBeLessThan(1e-9))
    expect(distance(fits[0]!.cubic.p0, spiral.sample(0).at)).toBeLessThan(1e-9)
    expect(distance(fits.at(-1)!.cubic.p3, spiral.sample(12).at)).toBeLessThan(1e-9)
  })

  it('a thousandth of the tolerance takes about three times the cubics', () => {
    const count = (tolerance: number): number => fitLongest(spiral, 0, 12, tolerance).length
    expect(count(0.0005) / count(0.5)).toBeLessThan(5)
  })

  it('a chain of split cubics becomes one again', () => {
    const c = cubic({ x: 0, y: 0 }, { x: 40, y: 90 }, { x: 130, y: 70 }, { x: 160, y: -10 })
    const [a, b] = split(c, 0.37)
    const [b1, b2] = split(b, 0.5)
    expect(fitLongest(new CubicChain([a, b1, b2]), 0, 3, 0.001)).toHaveLength(1)
  })

  it('comes to an end on a curve that nothing fits, its ends where they are', () => {
    const noise: CurveSource = {
      sample: (u) => {
        const next = seeded(1 + Math.floor(u * 1e9))
        for (let i = 0; i < 8; i++) next()
        return { at: { x: u * 100 + next(), y: 50 * next() }, derivative: { x: next() - 0.5, y: next() - 0.5 } }
      },
    }
    const fits = fitLongest(noise, 0, 1, 0.001)
    expect(fits.length).toBeLessThanOrEqual(4097)
    expect([fits[0]!.from, fits.at(-1)!.to]).toEqual([0, 1])
  })
})

describe('roots', () => {
  it('finds the roots of a quartic', () => {
    // (x - 0.1)(x - 0.5)(x - 1.2)(x + 3)
    const poly = interpolate([0, 1, 2, 3, 4], [0, 1, 2, 3, 4].map((x) => (x - 0.1) * (x - 0.5) * (x - 1.2) * (x + 3)))
    const roots = realRoots(poly, 0, 2)
    expect(roots.map((r) => Math.round(r * 1e6) / 1e6)).toEqual([0.1, 0.5, 1.2])
    expect(evaluate(poly, 0.7)).toBeCloseTo(0.6 * 0.2 * -0.5 * 3.7, 9)
  })

  it('finds none where there is none', () => {
    expect(realRoots([1, 0, 1], -5, 5)).toEqual([])
  })
})

function trace(points: [number, number][], pressure = (_i: number) => 0.5): PenTrace {
  return {
    samples: points.map(([x, y], i) => ({ x, y, t: i * 8, pressure: pressure(i) })),
    device: 'pen',
    steadiness: 0.4,
    response: 1,
  }
}

describe('traces', () => {
  const r = seeded(5)
  const wave = Array.from({ length: 220 }, (_, i): [number, number] => [i * 2 + (r() - 0.5), 100 + 50 * Math.sin(i / 28) + (r() - 0.5)])

  it('become few nodes near the hand', () => {
    const { path } = fitTrace(trace(wave), { steadiness: 0.4, tolerance: 0.7 })
    expect(path.nodes.length).toBeLessThanOrEqual(8)
    const arc = new ArcLength(cubicsOfPath(path))
    for (const [x, y] of wave) expect(arc.nearest({ x, y }).distance).toBeLessThan(3.2)
  })

  it('keep their ends at any steadiness', () => {
    for (const steadiness of [0, 0.3, 1]) {
      const { nodes } = fitTrace(trace(wave), { steadiness, tolerance: 0.7 }).path
      expect(distance(nodes[0]!.at, { x: wave[0]![0], y: wave[0]![1] })).toBeLessThan(1e-6)
      expect(distance(nodes.at(-1)!.at, { x: wave.at(-1)![0], y: wave.at(-1)![1] })).toBeLessThan(1e-6)
    }
  })

  it('keep a sharp turn as a corner', () => {
    const zigzag = [...Array.from({ length: 60 }, (_, i): [number, number] => [i * 2, i]), ...Array.from({ length: 60 }, (_, i): [number, number] => [118 - i * 2, 60 + i])]
    const { nodes } = fitTrace(trace(zigzag), { steadiness: 0.3, tolerance: 0.7 }).path
    const corner = nodes.slice(1, -1).find((n) => distance(n.at, { x: 118, y: 60 }) < 4)
    expect(corner?.joint).toBe('corner')
  })

  it('carry pressure in few stops, and none from a mouse', () => {
    const swelling = trace(wave, (i) => 0.2 + 0.7 * Math.sin((Math.PI * i) / 219))
    const { stops } = fitTrace(swelling, { steadiness: 0.4, tolerance: 0.7 })
    expect(stops.length).toBeGreaterThan(2)
    expect(stops.length).toBeLessThanOrEqual(8)
    expect(fitTrace({ ...swelling, device: 'mouse' }, { steadiness: 0.4, tolerance: 0.7 }).stops).toEqual([{ at: 0, left: 1, right: 1 }])
  })

  it('of one place give one node', () => {
    expect(fitTrace(trace([[5, 5]]), { steadiness: 0.4, tolerance: 0.7 }).path.nodes).toHaveLength(1)
    expect(fitTrace(trace([[5, 5], [5, 5], [5, 5]]), { steadiness: 0.4, tolerance: 0.7 }).path.nodes).toHaveLength(1)
  })

  it('that are empty or not numbers are refused by name', () => {
    expect(() => fitTrace(trace([]), { steadiness: 0, tolerance: 1 })).toThrow(InputError)
    expect(() => fitTrace(trace([[0, 0], [Number.NaN, 1]]), { steadiness: 0, tolerance: 1 })).toThrow(/Sample 1/)
  })
})
