import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { newLine } from '#core/model/create'
import { closedLine, joinedLines, reversedLine, splitLine } from '#core/editing/edit-line'
import { extendedPath, tuckedPath } from '#core/geometry/ends'
import type { Line } from '#core/model/model'
import type { Path } from '#core/geometry/path'
import { areaOfCubics } from '#core/geometry/area'
import { arcOfPath } from '#core/geometry/known'
import { aligning, spacing, withNodesMapped } from '#core/geometry/node-sets'
import { cubicsOfPath } from '#core/geometry/path'
import { LineWidth } from '#core/weight/half-widths'
import { straightPath } from './support/desk'

const swelling: Line['weight'] = {
  size: 8,
  stops: [
    { at: 0, left: 0.5, right: 0.6 },
    { at: 0.4, left: 1.2, right: 0.8 },
    { at: 1, left: 0.4, right: 1 },
  ],
  start: { length: 20, unit: '%', tip: 0.2, ease: 'straight' },
  end: { length: 12, unit: 'px', tip: 0, ease: 'round' },
  nib: null,
  pinned: false,
}
const bent: Path = {
  closed: false,
  nodes: [
    { at: { x: 0, y: 0 }, in: null, out: { x: 40, y: -50 }, joint: 'corner' },
    { at: { x: 100, y: 0 }, in: { x: 70, y: -30 }, out: { x: 130, y: 30 }, joint: 'smooth' },
    { at: { x: 160, y: 90 }, in: { x: 170, y: 60 }, out: null, joint: 'corner' },
  ],
}
const line = (): Line => newLine(bent, { id: 'bent', weight: swelling })

const widths = (l: Line): LineWidth => new LineWidth(l.weight, l.finish.align, arcOfPath(l.path).total, l.path.closed)

describe('a line cut in two', () => {
  it('keeps its path, and its width but for what the profile bends near the cut', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.02, max: 0.98, noNaN: true }), (at) => {
        const whole = line()
        const parts = splitLine(whole, at)
        expect(parts).toHaveLength(2)
        const total = arcOfPath(whole.path).total
        let offset = 0
        for (const part of parts) {
          const arc = arcOfPath(part.path)
          for (const u of [0, 0.3, 0.7, 1]) {
            const p = arc.point(u * arc.total)
            const q = arcOfPath(whole.path).point(offset + u * arc.total)
            expect(Math.hypot(p.x - q.x, p.y - q.y)).toBeLessThan(1e-6)
            // The first and last px of a round taper are steep: there no share of the width is asked for.
            const [a, b] = [widths(part).at(u * arc.total), widths(whole).at(offset + u * arc.total)]
            if (offset + u * arc.total < total - 0.01) expect(Math.abs(a.left - b.left)).toBeLessThan(0.2)
          }
          offset += arc.total
        }
        expect(offset).toBeCloseTo(total, 6)
        expect(parts[0]!.id).toBe('bent')
        expect(parts[1]!.id).not.toBe('bent')
      }),
      { seed: 21, numRuns: 60 },
    )
  })

  it('joined again is the line that it was', () => {
    const [a, b] = splitLine(line(), 0.35)
    const again = joinedLines(a!, b!)
    expect(arcOfPath(again.path).total).toBeCloseTo(arcOfPath(bent).total, 6)
    expect(again.path.nodes.map((n) => n.joint)).toEqual(['corner', 'smooth', 'smooth', 'corner'])
    for (const s of [20, 60, 120, 180]) expect(widths(again).at(s).right).toBeCloseTo(widths(line()).at(s).right, 0)
    expect(again.weight.start!.length).toBeCloseTo(0.2 * arcOfPath(bent).total, 4)
  })

  it('that is closed opens there and is as long', () => {
    const corner = (x: number, y: number): Path['nodes'][number] => ({
      at: { x, y },
      in: null,
      out: null,
      joint: 'corner',
    })
    const square = newLine({ nodes: [corner(0, 0), corner(100, 0), corner(100, 100), corner(0, 100)], closed: true })
    const [open, ...others] = splitLine(square, 0.125)
    expect(others).toEqual([])
    expect(open!.path.closed).toBe(false)
    expect(open!.path.nodes[0]!.at.x).toBeCloseTo(50, 6)
    expect(arcOfPath(open!.path).total).toBeCloseTo(400, 6)
  })
})

describe('lines turned round, joined and closed', () => {
  it('turned round are the same ink', () => {
    const back = reversedLine(line())
    const total = arcOfPath(bent).total
    for (const s of [0, 10, 80, total - 6]) {
      expect(widths(back).at(total - s).left).toBeCloseTo(widths(line()).at(s).right, 9)
    }
    expect(reversedLine(back).path).toEqual(bent)
    expect(reversedLine({ ...line(), outside: 'left' }).outside).toBe('right')
  })

  it('apart are joined by a straight segment; the size of the second is kept as a share of the first', () => {
    const a = newLine(straightPath({ x: 0, y: 0 }, { x: 40, y: 0 }), {
      weight: { ...swelling, start: null, end: null, stops: [{ at: 0, left: 1, right: 1 }], size: 4 },
    })
    const b = newLine(straightPath({ x: 60, y: 0 }, { x: 100, y: 0 }), { weight: { ...a.weight, size: 8 } })
    const one = joinedLines(a, b)
    expect(arcOfPath(one.path).total).toBeCloseTo(100, 9)
    expect(one.path.nodes).toHaveLength(4)
    expect([widths(one).at(20).left, widths(one).at(80).left]).toEqual([2, 4])
  })

  it('closed with touching ends have one node there, and a straight segment where they do not touch', () => {
    const loop: Path = {
      closed: false,
      nodes: [...bent.nodes.slice(0, 2), { ...bent.nodes[2]!, at: { x: 0.2, y: 0.1 } }],
    }
    expect(closedLine(newLine(loop)).path).toMatchObject({ closed: true, nodes: [{}, {}] })
    const gap = closedLine(line()).path
    expect(gap.closed).toBe(true)
    expect(gap.nodes).toHaveLength(3)
    expect(Math.abs(areaOfCubics(cubicsOfPath(gap)))).toBeGreaterThan(0)
  })
})

describe('ends', () => {
  const tip = (path: Path | null): number[] =>
    [path!.nodes.at(-1)!.at.x, path!.nodes.at(-1)!.at.y].map((v) => Math.round(v * 1e6) / 1e6 + 0)
  const wall = straightPath({ x: 200, y: -100 }, { x: 200, y: 300 })

  it('go straight on until they meet a line', () => {
    const flat = straightPath({ x: 0, y: 0 }, { x: 100, y: 0 })
    expect(tip(extendedPath(flat, 'last', [wall]))).toEqual([200, 0])
    expect(extendedPath(flat, 'first', [wall])).toBeNull()
    const curved: Path = {
      closed: false,
      nodes: [flat.nodes[0]!, { at: { x: 100, y: 50 }, in: { x: 60, y: 50 }, out: null, joint: 'corner' }],
    }
    const longer = extendedPath(curved, 'last', [wall])!
    expect(longer.nodes).toHaveLength(3)
    expect(longer.nodes[1]!.joint).toBe('smooth')
    expect(tip(longer)).toEqual([200, 50])
  })

  it('are tucked under a line: shortened, lengthened or moved onto its middle', () => {
    const to = (x: number, y = 0): Path => straightPath({ x: 0, y: 0 }, { x, y })
    expect(tuckedPath(to(208), 'last', [wall], 12)!.nodes.at(-1)!.at.x).toBeCloseTo(200, 9)
    expect(tuckedPath(to(194), 'last', [wall], 12)!.nodes.at(-1)!.at.x).toBeCloseTo(200, 9)
    expect(tip(tuckedPath(straightPath({ x: 194, y: -50 }, { x: 194, y: 50 }), 'last', [wall], 12))).toEqual([200, 50])
    expect(tuckedPath(to(120), 'last', [wall], 12)).toBeNull()
    expect(tuckedPath(to(194), 'last', [], 12)).toBeNull()
  })
})

describe('sets of nodes', () => {
  it('move with their handles and leave the others alone', () => {
    const moved = withNodesMapped(bent, new Set([1]), (p) => ({ x: p.x + 5, y: p.y }))
    expect(moved.nodes[0]).toBe(bent.nodes[0])
    expect(moved.nodes[1]).toMatchObject({ at: { x: 105, y: 0 }, in: { x: 75, y: -30 }, out: { x: 135, y: 30 } })
  })

  it('are aligned and spaced', () => {
    const points = [
      { x: 0, y: 5 },
      { x: 40, y: 9 },
      { x: 100, y: 1 },
    ]
    expect(aligning(points, 'right').map((d, i) => points[i]!.x + d.x)).toEqual([100, 100, 100])
    expect(aligning(points, 'middle').map((d, i) => points[i]!.y + d.y)).toEqual([5, 5, 5])
    expect(spacing(points, 'x').map((d, i) => points[i]!.x + d.x)).toEqual([0, 50, 100])
    expect(spacing(points.slice(1), 'x')).toEqual([
      { x: 0, y: 0 },
      { x: 0, y: 0 },
    ])
  })
})
