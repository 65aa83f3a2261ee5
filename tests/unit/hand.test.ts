import { describe, expect, it } from 'vitest'
import { newLine } from '#core/model/create'
import type { Line, PenTrace } from '#core/model/model'
import { fitByTrace } from '#core/fit/fit-trace'
import { pressureStops } from '#core/fit/pressure-stops'
import { pressureWidths, responseTo } from '#core/fit/pressure-widths'
import { redrawn, wasEdited } from '#core/fit/redraw-trace'
import { distance } from '#core/geometry/point'
import { NIBS, pointOf, ratioOf } from '#core/weight/nibs'

const wave = (over: Partial<PenTrace> = {}, pressure = (u: number) => u, step = (_u: number) => 8): PenTrace => {
  let t = 0
  return {
    samples: Array.from({ length: 160 }, (_, i) => ({
      x: i * 2 + Math.sin(i * 1.9) * 0.6,
      y: 80 + 40 * Math.sin(i / 24) + Math.cos(i * 2.3) * 0.6,
      t: (t += step(i / 159)),
      pressure: pressure(i / 159),
    })),
    device: 'pen',
    steadiness: 0.3,
    response: 1,
    ...over,
  }
}

const lineOf = (trace: PenTrace): Line => {
  const { path, stops } = fitByTrace(trace)
  return newLine(path, { trace, weight: { ...newLine(path).weight, stops } })
}

describe('pressure', () => {
  it('counts from the least to the most, by the exponent', () => {
    const curve = { response: 2, least: 0.2, most: 0.7 }
    expect(responseTo(0.1, curve)).toBe(0)
    expect(responseTo(0.45, curve)).toBeCloseTo(0.25, 9)
    expect(responseTo(0.9, curve)).toBe(1)
    expect(responseTo(0.5, { response: 1, least: 0.5, most: 0.5 })).toBe(1)
  })

  it('thins the line by the variation, and by no more', () => {
    const widths = pressureWidths(wave({ variation: 0.5 }))!
    expect(widths[0]!.w).toBeCloseTo(0.5, 1)
    expect(widths.at(-1)!.w).toBeCloseTo(1, 1)
    expect(pressureWidths(wave({ variation: 0 }))!.every((p) => p.w === 1)).toBe(true)
    expect(ratioOf(0.6)).toBeCloseTo(2.5, 9)
  })

  it('is stood in for by speed where there is none: the slower, the wider', () => {
    const slowing = wave(
      { device: 'mouse', fromSpeed: true, variation: 0.6 },
      () => 0.5,
      (u) => 2 + 30 * u,
    )
    const widths = pressureWidths(slowing)!
    expect(widths.at(-8)!.w).toBeGreaterThan(widths[8]!.w + 0.15)
    expect(pressureWidths({ ...slowing, fromSpeed: false })).toBeNull()
    expect(pressureStops({ ...slowing, fromSpeed: false })).toEqual([{ at: 0, left: 1, right: 1 }])
  })

  it('varies a little at random where that is wanted, the same each time, never below nothing', () => {
    const uneven = wave({ device: 'mouse', unevenness: 0.3 })
    const widths = pressureWidths(uneven)!
    expect(widths).toEqual(pressureWidths(uneven))
    const all = widths.map((p) => p.w)
    expect(Math.max(...all)).toBeGreaterThan(1.05)
    expect(Math.max(...all)).toBeLessThanOrEqual(1.3)
    expect(Math.min(...all)).toBeGreaterThanOrEqual(0.7)
    expect(pressureWidths(wave({ device: 'mouse', unevenness: 1 }))!.every((p) => p.w >= 0)).toBe(true)
  })
})

describe('a line drawn anew from its trace', () => {
  it('keeps its ends at any steadiness, and gets fewer nodes the steadier it is', () => {
    const line = lineOf(wave())
    const nodes = [0, 0.5, 1].map((steadiness) => {
      const path = redrawn(line, wave(), { steadiness }).path
      for (const [a, b] of [
        [path.nodes[0]!, line.path.nodes[0]!],
        [path.nodes.at(-1)!, line.path.nodes.at(-1)!],
      ] as const)
        expect(distance(a.at, b.at)).toBeLessThan(1e-9)
      return path.nodes.length
    })
    expect(nodes[2]).toBeLessThan(nodes[0]!)
  })

  it('changes only what the setting is for, and remembers it', () => {
    const line = lineOf(wave())
    const firm = redrawn(line, wave(), { response: 3 })
    expect(firm.path).toBe(line.path)
    expect(firm.weight.stops).not.toEqual(line.weight.stops)
    expect(firm.trace!.response).toBe(3)
    const steady = redrawn(line, wave(), { steadiness: 1 })
    expect(steady.weight).toBe(line.weight)
    expect(redrawn(steady, steady.trace as PenTrace, { steadiness: 0.3 }).path).toEqual(line.path)
  })

  it('is known to have been edited by hand', () => {
    const line = lineOf(wave())
    expect(wasEdited(line, wave())).toBe(false)
    const nodes = line.path.nodes.map((n, i) => (i === 1 ? { ...n, at: { x: n.at.x + 1, y: n.at.y } } : n))
    expect(wasEdited({ ...line, path: { ...line.path, nodes } }, wave())).toBe(true)
  })

  it('drawn from nearer has finer detail', () => {
    const ripple = (zoom: number): PenTrace => ({
      ...wave({ zoom, steadiness: 0.2 }),
      samples: Array.from({ length: 240 }, (_, i) => ({ x: i / 4, y: 3 * Math.sin(i / 12), t: i * 8, pressure: 0.5 })),
    })
    const [far, near] = [fitByTrace(ripple(1)).path, fitByTrace(ripple(8)).path]
    expect(near.nodes.length).toBeGreaterThan(far.nodes.length)
  })
})

describe('squaring up', () => {
  const walk = (points: [number, number][], tremble = 0.8): PenTrace['samples'] => {
    const samples: PenTrace['samples'] = []
    points.slice(1).forEach(([x, y], k) => {
      const [px, py] = points[k]!
      const n = Math.ceil(Math.hypot(x - px, y - py) / 2)
      for (let i = k ? 1 : 0; i <= n; i++)
        samples.push({
          x: px + ((x - px) * i) / n + tremble * Math.sin(samples.length * 2.1),
          y: py + ((y - py) * i) / n + tremble * Math.cos(samples.length * 1.7),
          t: samples.length * 8,
          pressure: 0.5,
        })
    })
    return samples
  }

  it('makes a drawn polygon straight between true corners', () => {
    const drawn: [number, number][] = [
      [0, 0],
      [120, 4],
      [124, 90],
      [30, 140],
    ]
    const { path } = fitByTrace({ ...wave({ squared: true }), samples: walk(drawn) })
    expect(path.nodes).toHaveLength(4)
    expect(path.nodes.every((n) => n.joint === 'corner' && !n.in && !n.out)).toBe(true)
    path.nodes.forEach((n, i) => expect(distance(n.at, { x: drawn[i]![0], y: drawn[i]![1] })).toBeLessThan(4))
    const first = walk(drawn)[0]!
    expect(distance(path.nodes[0]!.at, first)).toBeLessThan(1e-9)
  })

  it('leaves what is round as it is', () => {
    const round = Array.from({ length: 120 }, (_, i) => ({
      x: 100 + 60 * Math.cos(i / 30),
      y: 100 + 60 * Math.sin(i / 30),
      t: i * 8,
      pressure: 0.5,
    }))
    const { path } = fitByTrace({ ...wave({ squared: true }), samples: round })
    expect(path.nodes.some((n) => n.out)).toBe(true)
    expect(path.nodes.slice(1, -1).every((n) => n.joint === 'smooth')).toBe(true)
  })
})

describe('nibs', () => {
  it('go from fine to bold, and only one that is not round turns the pen', () => {
    const sizes = NIBS.filter((n) => n.roundness === 1).map((n) => n.size)
    expect(sizes).toEqual([...sizes].sort((a, b) => a - b))
    expect(pointOf(NIBS[0]!)).toBeNull()
    expect(pointOf(NIBS.find((n) => n.id === 'broad')!)).toEqual({ width: 1, height: 0.25, angle: -40 })
  })
})
