import { describe, expect, it } from 'vitest'
import type { PenTrace } from '#core/model/model'
import type { CubicFit } from '#core/fit/fit-cubic'
import { fitCubic } from '#core/fit/fit-cubic'
import { fitCurve } from '#core/fit/fit-curve'
import { fitTrace } from '#core/fit/fit-trace'
import { MeasuredCurve } from '#core/fit/measured-curve'
import type { CurveSource } from '#core/fit/source'
import { CubicChain } from '#core/fit/source'
import { ArcLength } from '#core/geometry/arc-length'
import { cubic, nearest, split } from '#core/geometry/cubic'
import { cubicsOfPath } from '#core/geometry/path'
import type { Vec } from '#core/geometry/point'
import { distance } from '#core/geometry/point'
import { InputError } from '#core/errors'
import { seeded } from './support/random-lines'

/** A curve given by position and derivative over `range`. */
const curveOf = (range: number, at: (u: number) => [number, number, number, number]): CurveSource => ({
  parts: 1,
  sample(_part, t, out) {
    const [x, y, dx, dy] = at(t * range)
    out.set([x, y, dx * range, dy * range, Infinity])
  },
})

const circle = (radius: number, turn: number): CurveSource =>
  curveOf(turn, (u) => [radius * Math.cos(u), radius * Math.sin(u), -radius * Math.sin(u), radius * Math.cos(u)])

/** A spiral that tightens: no cubic is exact. */
const spiral = curveOf(12, (u) => {
  const r = 100 * Math.exp(-0.3 * u)
  const [c, s] = [Math.cos(u), Math.sin(u)]
  return [r * c, r * s, r * (-0.3 * c - s), r * (-0.3 * s + c)]
})

/** A wave that grows, with inflections and bends of many radii. */
const wave = curveOf(10, (u) => [40 * u, 6 * u * Math.sin(u), 40, 6 * Math.sin(u) + 6 * u * Math.cos(u)])

const at = (source: CurveSource, u: number): { x: number; y: number } => {
  const out = new Float64Array(5)
  const part = Math.min(source.parts - 1, Math.floor(u))
  source.sample(part, u - part, out)
  return { x: out[0]!, y: out[1]! }
}

function finelyMeasured(source: CurveSource): MeasuredCurve {
  const curve = new MeasuredCurve().load(source, 0)
  for (let i = 0; i < 4; i++) curve.refine(0, curve.last)
  return curve
}

/** A stretch of a source of one part as a source of its own. */
const stretchOf = (source: CurveSource, from: number, to: number): CurveSource => ({
  parts: 1,
  sample(_part, t, out) {
    source.sample(0, from + (to - from) * t, out)
    out[2]! *= to - from
    out[3]! *= to - from
  },
})

/** One cubic over a stretch of a source: what was fitted, how far off it is, and that as a multiple of the tolerance. */
function fitOne(source: CurveSource, from: number, to: number, tolerance = 1) {
  const fit: CubicFit = { points: new Float64Array(8), deviation: 0, gap: 0, chord: 0 }
  const curve = finelyMeasured(stretchOf(source, from, to))
  const excess = fitCubic(curve, 0, curve.last, tolerance, fit)
  const p = fit.points
  return {
    excess,
    deviation: fit.deviation,
    cubic: cubic({ x: p[0]!, y: p[1]! }, { x: p[2]!, y: p[3]! }, { x: p[4]!, y: p[5]! }, { x: p[6]!, y: p[7]! }),
  }
}

describe('one cubic', () => {
  it('reproduces a cubic exactly', () => {
    const c = cubic({ x: 0, y: 0 }, { x: 40, y: 90 }, { x: 130, y: 70 }, { x: 160, y: -10 })
    const fit = fitOne(new CubicChain([c]), 0, 1)
    expect(fit.deviation).toBeLessThan(1e-6)
    expect(distance(fit.cubic.p1, c.p1)).toBeLessThan(1e-5)
  })

  it('keeps an S', () => {
    const c = cubic({ x: 0, y: 0 }, { x: 80, y: -90 }, { x: 70, y: 120 }, { x: 160, y: 10 })
    expect(fitOne(new CubicChain([c]), 0, 1).deviation).toBeLessThan(1e-6)
  })

  it.each([
    ['a spiral', spiral, [6, 8, 10]],
    ['a wave', wave, [14, 18]],
  ])('on %s the error falls about 64 times when the parts double', (_name, source, counts) => {
    const worst = (parts: number): number => {
      let w = 0
      for (let i = 0; i < parts; i++) w = Math.max(w, fitOne(source, i / parts, (i + 1) / parts).deviation)
      return w
    }
    for (const n of counts) {
      const ratio = worst(n) / worst(2 * n)
      expect(ratio).toBeGreaterThan(45)
      expect(ratio).toBeLessThan(90)
    }
  })

  it('measures what it says', () => {
    const fit = fitOne(circle(100, 2), 0, 1)
    let worst = 0
    for (let u = 0; u <= 1; u += 0.005) worst = Math.max(worst, nearest(fit.cubic, at(circle(100, 2), u), 64).distance)
    expect(fit.deviation).toBeGreaterThan(worst * 0.9)
    expect(fit.deviation).toBeLessThan(worst * 1.1 + 1e-9)
  })

  it('must be finer where there is less room', () => {
    const narrow: CurveSource = { parts: 1, sample: (p, t, out) => (wave.sample(p, t, out), (out[4] = 0.5)) }
    const [free, tight] = [fitOne(wave, 0.5, 0.7, 1), fitOne(narrow, 0.5, 0.7, 1)]
    expect(tight.deviation).toBeCloseTo(free.deviation, 9)
    expect(tight.excess / free.excess).toBeCloseTo(10, 6)
  })

  it('has the area and the first moment of what it stands for', () => {
    const fit = fitOne(wave, 0.2, 0.35)
    const { p0, p3 } = fit.cubic
    const exact = momentsOf((t, out) => wave.sample(0, 0.2 + 0.15 * t, out), 0.15, p0, p3)
    const found = momentsOf((t, out) => new CubicChain([fit.cubic]).sample(0, t, out), 1, p0, p3)
    expect(found[0]! / exact[0]!).toBeCloseTo(1, 8)
    expect(found[1]! / exact[1]!).toBeCloseTo(1, 8)
  })
})

/** Integrals of y dx and x y dx by many small steps, in the frame of the chord from p0 to p3. */
function momentsOf(sample: (t: number, out: Float64Array) => void, rate: number, p0: Vec, p3: Vec): [number, number] {
  const out = new Float64Array(5)
  const l = distance(p0, p3)
  const [c, s] = [(p3.x - p0.x) / l, (p3.y - p0.y) / l]
  let [area, moment] = [0, 0]
  const n = 20000
  for (let i = 0; i < n; i++) {
    sample((i + 0.5) / n, out)
    const x = (out[0]! - p0.x) * c + (out[1]! - p0.y) * s
    const y = (out[1]! - p0.y) * c - (out[0]! - p0.x) * s
    const dx = ((out[2]! * c + out[3]! * s) * rate) / n
    area += y * dx
    moment += x * y * dx
  }
  return [area, moment]
}

describe('many cubics', () => {
  it.each([0.5, 0.05, 0.005])('stay within %d px, meet, and keep the ends', (tolerance) => {
    const fits = fitCurve(spiral, tolerance)
    for (let u = 0; u <= 1; u += 0.002) {
      const p = at(spiral, u)
      expect(Math.min(...fits.map((f) => nearest(f.cubic, p, 32).distance))).toBeLessThanOrEqual(tolerance * 1.05)
    }
    fits.slice(1).forEach((f, i) => expect(distance(f.cubic.p0, fits[i]!.cubic.p3)).toBeLessThan(1e-9))
    expect(distance(fits[0]!.cubic.p0, at(spiral, 0))).toBeLessThan(1e-9)
    expect(distance(fits.at(-1)!.cubic.p3, at(spiral, 1))).toBeLessThan(1e-9)
  })

  it('a thousandth of the tolerance takes about three times the cubics', () => {
    const count = (tolerance: number): number => fitCurve(spiral, tolerance).length
    expect(count(0.0005) / count(0.5)).toBeLessThan(4)
  })

  it.each([
    ['the spiral', spiral],
    ['the wave', wave],
    ['two turns of a circle', circle(80, 4 * Math.PI)],
  ])('on %s are within 15 %% of the fewest that a search over all cuts finds', (_name, source) => {
    for (const tolerance of [0.5, 0.05, 0.005]) {
      expect(fitCurve(source, tolerance).length).toBeLessThanOrEqual(Math.ceil(fewest(source, tolerance, 128) * 1.15))
    }
  })

  it('a chain of split cubics becomes one again', () => {
    const c = cubic({ x: 0, y: 0 }, { x: 40, y: 90 }, { x: 130, y: 70 }, { x: 160, y: -10 })
    const [a, b] = split(c, 0.37)
    const [b1, b2] = split(b, 0.5)
    expect(fitCurve(new CubicChain([a, b1, b2]), 0.001)).toHaveLength(1)
  })

  it('comes to an end on a curve that nothing fits, its ends where they are', () => {
    const noise: CurveSource = {
      parts: 1,
      sample: (_part, t, out) => {
        const next = seeded(1 + Math.floor(t * 1e9))
        for (let i = 0; i < 8; i++) next()
        out.set([t * 100 + next(), 50 * next(), next() - 0.5, next() - 0.5, Infinity])
      },
    }
    const fits = fitCurve(noise, 0.001)
    expect(fits.length).toBeLessThanOrEqual(4098)
    expect([fits[0]!.from, fits.at(-1)!.to]).toEqual([0, 1])
  })
})

/** The fewest cubics within the tolerance whose ends lie on `places` even cuts, by dynamic programming. */
function fewest(source: CurveSource, tolerance: number, places: number): number {
  const curve = finelyMeasured(source)
  const fit: CubicFit = { points: new Float64Array(8), deviation: 0, gap: 0, chord: 0 }
  const best = [0]
  const station = Array.from({ length: places + 1 }, (_, i) => curve.stationUpTo(i / places))
  expect(curve.at(station[places / 2 + 1]!)).toBe(0.5 + 1 / places)
  for (let j = 1; j <= places; j++) {
    best[j] = Infinity
    for (let i = j - 1; i >= 0; i--) {
      if (best[i]! + 1 < best[j]! && fitCubic(curve, station[i]!, station[j]!, tolerance, fit) <= 1)
        best[j] = best[i]! + 1
    }
  }
  return best[places]!
}

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
  const wave = Array.from({ length: 220 }, (_, i): [number, number] => [
    i * 2 + (r() - 0.5),
    100 + 50 * Math.sin(i / 28) + (r() - 0.5),
  ])

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
    const zigzag = [
      ...Array.from({ length: 60 }, (_, i): [number, number] => [i * 2, i]),
      ...Array.from({ length: 60 }, (_, i): [number, number] => [118 - i * 2, 60 + i]),
    ]
    const { nodes } = fitTrace(trace(zigzag), { steadiness: 0.3, tolerance: 0.7 }).path
    const corner = nodes.slice(1, -1).find((n) => distance(n.at, { x: 118, y: 60 }) < 4)
    expect(corner?.joint).toBe('corner')
  })

  it('carry pressure in few stops, and none from a mouse', () => {
    const swelling = trace(wave, (i) => 0.2 + 0.7 * Math.sin((Math.PI * i) / 219))
    const { stops } = fitTrace(swelling, { steadiness: 0.4, tolerance: 0.7 })
    expect(stops.length).toBeGreaterThan(2)
    expect(stops.length).toBeLessThanOrEqual(8)
    expect(fitTrace({ ...swelling, device: 'mouse' }, { steadiness: 0.4, tolerance: 0.7 }).stops).toEqual([
      { at: 0, left: 1, right: 1 },
    ])
  })

  it('of one place give one node', () => {
    expect(fitTrace(trace([[5, 5]]), { steadiness: 0.4, tolerance: 0.7 }).path.nodes).toHaveLength(1)
    expect(
      fitTrace(
        trace([
          [5, 5],
          [5, 5],
          [5, 5],
        ]),
        { steadiness: 0.4, tolerance: 0.7 },
      ).path.nodes,
    ).toHaveLength(1)
  })

  it('that are empty or not numbers are refused by name', () => {
    expect(() => fitTrace(trace([]), { steadiness: 0, tolerance: 1 })).toThrow(InputError)
    expect(() =>
      fitTrace(
        trace([
          [0, 0],
          [Number.NaN, 1],
        ]),
        { steadiness: 0, tolerance: 1 },
      ),
    ).toThrow(/Sample 1/)
  })
})
