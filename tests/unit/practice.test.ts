import { readFileSync } from 'node:fs'
import fitCurveOfPoints from 'fit-curve'
import { describe, expect, it } from 'vitest'
import type { PenTrace, TraceSample } from '#core/model/model'
import { fitTrace } from '#core/fit/fit-trace'
import { LiveFit } from '#core/fit/live-fit'
import { parseInkml } from '#core/formats/inkml/parse-inkml'
import { ArcLength } from '#core/geometry/arc-length'
import type { Cubic } from '#core/geometry/cubic'
import { cubic } from '#core/geometry/cubic'
import { cubicsOfPath } from '#core/geometry/path'
import type { Vec } from '#core/geometry/point'
import { practiceTraces } from '../../demo/practice'

const shipped = practiceTraces().map(({ name, samples }) => ({
  name,
  made: samples,
  samples: parseInkml(readFileSync(`public/practice/${name}.inkml`, 'utf8'))[0]!,
}))

const traceOf = (samples: TraceSample[]): PenTrace => ({ samples, device: 'practice', steadiness: 0, response: 1 })

/** The farthest that a sample lies from a chain, px. */
function deviation(cubics: readonly Cubic[], samples: readonly Vec[]): number {
  const arc = new ArcLength(cubics)
  return Math.max(...samples.map((p) => arc.nearest(p).distance))
}

/** The fewest segments that fit-curve needs to come as near, by its tolerance. */
function rivalNodes(samples: readonly TraceSample[], near: number): number {
  let [low, high, fewest] = [0.02, 400, Infinity]
  for (let i = 0; i < 24; i++) {
    const error = Math.sqrt(low * high)
    const chain = fitCurveOfPoints(
      samples.map((s) => [s.x, s.y]),
      error,
    ).map((c) => cubic(...(c.map(([x, y]) => ({ x: x!, y: y! })) as [Vec, Vec, Vec, Vec])))
    if (deviation(chain, samples) <= near) {
      fewest = Math.min(fewest, chain.length + 1)
      low = error
    } else high = error
  }
  return fewest
}

describe('the practice traces', () => {
  it('ship as their generator makes them', () => {
    for (const { samples, made } of shipped) expect(samples).toEqual(made)
  })

  it('have the pressure, time and tilt of a pen', () => {
    for (const { samples } of shipped) {
      const pressures = samples.map((s) => s.pressure)
      expect(Math.max(...pressures) - Math.min(...pressures)).toBeGreaterThan(0.3)
      expect(samples.every((s, i) => i === 0 || s.t > samples[i - 1]!.t)).toBe(true)
      expect(samples[0]!.tiltX).toBeDefined()
    }
  })

  it('become at most 60 % of the nodes that fit-curve needs to come as near', () => {
    let [ours, theirs] = [0, 0]
    for (const { samples } of shipped) {
      const { path } = fitTrace(traceOf(samples), { steadiness: 0, tolerance: 0.7 })
      ours += path.nodes.length
      theirs += rivalNodes(samples, deviation(cubicsOfPath(path), samples))
    }
    expect(ours).toBeLessThanOrEqual(0.6 * theirs)
  })
})

describe('a trace fitted while it is drawn', () => {
  const options = { steadiness: 0.4, tolerance: 0.7, grain: 1 }

  it('is what it will be, as long as it is short', () => {
    const { samples } = shipped.find((t) => t.name === 'horn')!
    const live = new LiveFit(options)
    for (let n = 2; n < samples.length; n += 5) live.path(samples.slice(0, n))
    expect(live.path(samples)).toEqual(fitTrace(traceOf(samples), options).path)
  })

  it('stays within the tolerance of what it will be when it is long, at both ends exactly', () => {
    const { samples } = shipped.find((t) => t.name === 'snail-shell')!
    for (const steadiness of [0, 0.4, 1]) {
      const live = new LiveFit({ ...options, steadiness })
      for (let n = 2; n < samples.length; n += 3) live.path(samples.slice(0, n))
      const path = live.path(samples)
      const final = fitTrace(traceOf(samples), { ...options, steadiness }).path
      const arc = new ArcLength(cubicsOfPath(final))
      const seen = new ArcLength(cubicsOfPath(path))
      for (let i = 0; i <= 200; i++)
        expect(arc.nearest(seen.point((seen.total * i) / 200)).distance).toBeLessThan(2 * options.tolerance)
      expect(path.nodes[0]!.at).toEqual(final.nodes[0]!.at)
      expect(path.nodes.at(-1)!.at).toEqual(final.nodes.at(-1)!.at)
      expect(path.nodes.length).toBeLessThan(2.2 * final.nodes.length)
    }
  })
})
