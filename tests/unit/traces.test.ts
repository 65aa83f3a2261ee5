import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { keptApart, mappedTrace, partOfTrace, reversedTrace, wholeTrace } from '#core/model/line-trace'
import type { KeptTrace, PenTrace, TraceSample } from '#core/model/model'
import type { Vec } from '#core/geometry/point'
import { withTracesApart, withWholeTraces } from '#core/document/traces-apart'
import { newDrawing, newLine, newLinesLayer } from '#core/model/create'
import { polyline } from './support/paths'

const coordinate = fc.double({ min: -900, max: 900, noNaN: true })
const stroke = fc.array(
  fc.record({ x: coordinate, y: coordinate, pressure: fc.double({ min: 0, max: 1, noNaN: true }) }),
  { minLength: 2, maxLength: 30 },
)
const traceOf = (samples: readonly Omit<TraceSample, 't'>[]): PenTrace => ({
  samples: samples.map((s, i) => ({ ...s, t: i * 8 })),
  device: 'pen',
  steadiness: 0.4,
  response: 1,
})

const turned = (p: Vec): Vec => ({ x: 40 - 1.5 * p.y, y: 1.5 * p.x - 7 })
const moves: ((t: PenTrace | KeptTrace) => PenTrace | KeptTrace)[] = [
  (t) => mappedTrace(t, (p) => ({ x: p.x + 12.5, y: p.y - 3 })),
  (t) => mappedTrace(t, turned),
  reversedTrace,
]

const close = (a: readonly TraceSample[], b: readonly TraceSample[]): void => {
  expect(a).toHaveLength(b.length)
  a.forEach((s, i) => {
    for (const k of ['x', 'y', 't', 'pressure'] as const) expect(Math.abs(s[k] - b[i]![k])).toBeLessThan(1e-7)
  })
}

describe('a pen trace that is kept apart', () => {
  it('is, with its samples, what the trace is when the same is done to its samples, and its samples are one and the same', () => {
    fc.assert(
      fc.property(stroke, fc.array(fc.nat(moves.length - 1), { maxLength: 6 }), (points, order) => {
        const { trace, samples } = keptApart(traceOf(points))
        const kept = order.reduce<PenTrace | KeptTrace>((t, i) => moves[i]!(t), trace) as KeptTrace
        const drawn = order.reduce<PenTrace | KeptTrace>((t, i) => moves[i]!(t), traceOf(points)) as PenTrace
        expect(kept.of).toBe(trace.of)
        close(wholeTrace(kept, samples).samples, drawn.samples)
      }),
      { seed: 13, numRuns: 200 },
    )
  })

  it('is cut where the line is, from either end', () => {
    const points = Array.from({ length: 101 }, (_, i) => ({ x: i, y: 0, pressure: i / 100 }))
    const { trace, samples } = keptApart(traceOf(points))
    const part = partOfTrace(reversedTrace(partOfTrace(trace, 0.2, 0.8)!), 0, 0.5) as KeptTrace
    const { samples: cut } = wholeTrace(part, samples)
    expect([cut[0]!.x, cut.at(-1)!.x]).toEqual([80, 50])
    expect(cut[0]!.t).toBe(0)
  })

  it('leaves a drawing for the book and comes back from it', () => {
    const line = newLine(polyline(0, 0), {
      trace: traceOf([
        { x: 5, y: 6, pressure: 0.5 },
        { x: 9, y: 6, pressure: 0.6 },
      ]),
    })
    const book = new Map<string, TraceSample[]>()
    const apart = withTracesApart(
      newDrawing('Test', { layers: [newLinesLayer('Lines', [line, { ...line, id: 'same' }])] }),
      (hash, samples) => void book.set(hash, samples),
    )
    expect(JSON.stringify(apart)).not.toContain('samples')
    expect(book.size).toBe(1)
    expect(withTracesApart(apart, () => expect.unreachable())).toBe(apart)
    expect(withWholeTraces(apart, (hash) => book.get(hash)).layers[0]!.items[0]).toEqual(line)
    expect(withWholeTraces(apart, () => undefined).layers[0]!.items[0]).toMatchObject({ trace: null, path: line.path })
  })
})
