import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { Path } from '#core/geometry/path'
import { ArcLength } from '#core/geometry/arc-length'
import { areaOfCubics } from '#core/geometry/area'
import { cubic, flatten, pointAt, straight } from '#core/geometry/cubic'
import { cubicsOfPath, mapPath, pathData, pathOfCubics, reversePath, short } from '#core/geometry/path'
import { distance } from '#core/geometry/point'
import { IDENTITY } from '#core/geometry/matrix'
import { pathsOfData } from '#core/formats/svg/paths'
import { NearIndex, deviationBetween } from '#core/shapes/deviation'
import { randomLine } from './support/random-lines'

const anyPath = fc.integer({ min: 1, max: 5000 }).map((seed) => randomLine(seed).path)

/** Handles at open ends carry no curve, so path data cannot hold them. */
const withoutSpare = (p: Path): Path => {
  const nodes = p.nodes.map((n) => ({ ...n }))
  if (!p.closed) {
    nodes[0]!.in = null
    nodes[nodes.length - 1]!.out = null
  }
  return { ...p, nodes }
}

describe('paths', () => {
  it('reversed, run through the same points from the other end', () => {
    fc.assert(
      fc.property(anyPath, fc.double({ min: 0, max: 1, noNaN: true }), (path, u) => {
        const there = new ArcLength(cubicsOfPath(path))
        const back = new ArcLength(cubicsOfPath(reversePath(path)))
        expect(back.total).toBeCloseTo(there.total, 6)
        if (!path.closed)
          expect(distance(back.point((1 - u) * back.total), there.point(u * there.total))).toBeLessThan(1e-4)
        expect(reversePath(reversePath(path))).toEqual(path)
      }),
      { seed: 1 },
    )
  })

  it('through their own cubics are the same curve', () => {
    fc.assert(
      fc.property(anyPath, (path) => {
        const cubics = cubicsOfPath(path)
        const again = cubicsOfPath(pathOfCubics(cubics, path.closed))
        expect(again).toHaveLength(cubics.length)
        cubics.forEach((c, i) => {
          for (const t of [0, 0.3, 1]) expect(distance(pointAt(again[i]!, t), pointAt(c, t))).toBeLessThan(1e-6)
        })
      }),
      { seed: 2 },
    )
  })

  it('a closed path has a segment back to its start, an open one has not', () => {
    const nodes = [0, 10, 20].map((x) => ({ at: { x, y: x % 20 }, in: null, out: null, joint: 'corner' as const }))
    expect(cubicsOfPath({ nodes, closed: true })).toHaveLength(3)
    expect(cubicsOfPath({ nodes, closed: false })).toHaveLength(2)
    expect(cubicsOfPath({ nodes: nodes.slice(0, 1), closed: true })).toHaveLength(0)
    expect(cubicsOfPath({ nodes: [], closed: false })).toHaveLength(0)
  })

  it('straight cubics lose their handles, smooth joints are told from corners', () => {
    const bend = cubic({ x: 10, y: 0 }, { x: 20, y: 0 }, { x: 30, y: 10 }, { x: 30, y: 20 })
    const { nodes } = pathOfCubics(
      [straight({ x: 0, y: 0 }, { x: 10, y: 0 }), bend, straight({ x: 30, y: 20 }, { x: 0, y: 20 })],
      false,
    )
    expect(nodes.map((n) => n.joint)).toEqual(['corner', 'smooth', 'corner', 'corner'])
    expect(nodes[1]).toMatchObject({ in: null, out: { x: 20, y: 0 } })
  })

  it('mapped, move nodes and handles alike', () => {
    fc.assert(
      fc.property(anyPath, (path) => {
        const moved = mapPath(path, (p) => ({ x: p.x * 2 + 1, y: p.y * 2 - 3 }))
        cubicsOfPath(moved).forEach((c, i) => {
          const was = pointAt(cubicsOfPath(path)[i]!, 0.4)
          expect(distance(pointAt(c, 0.4), { x: was.x * 2 + 1, y: was.y * 2 - 3 })).toBeLessThan(1e-9 * 1000)
        })
      }),
      { seed: 3, numRuns: 40 },
    )
  })
})

describe('path data', () => {
  it('written in full and read again is the same path', () => {
    fc.assert(
      fc.property(anyPath, (path) => {
        const [again] = pathsOfData(pathData(path), IDENTITY)
        const joints = (p: Path): Path => ({ ...p, nodes: p.nodes.map((n) => ({ ...n, joint: 'corner' })) })
        expect(joints(again!)).toEqual(joints(withoutSpare(path)))
      }),
      { seed: 4 },
    )
  })

  it('with few decimals stays within half a unit of the last of them', () => {
    fc.assert(
      fc.property(anyPath, (path) => {
        const [again] = pathsOfData(pathData(path, 2), IDENTITY)
        again!.nodes.forEach((n, i) => {
          expect(Math.abs(n.at.x - path.nodes[i]!.at.x)).toBeLessThanOrEqual(0.0051)
          expect(Math.abs(n.at.y - path.nodes[i]!.at.y)).toBeLessThanOrEqual(0.0051)
        })
      }),
      { seed: 5, numRuns: 40 },
    )
  })

  it('numbers are short and plain', () => {
    expect([short(1.5, 3), short(-0.0001, 2), short(100, 2), short(0.12345, 3), short(1e-9, 4)]).toEqual([
      '1.5',
      '0',
      '100',
      '0.123',
      '0',
    ])
  })
})

describe('distances between curves', () => {
  it('a curve and itself are no distance apart, however it is cut', () => {
    fc.assert(
      fc.property(anyPath, (path) => {
        const cubics = cubicsOfPath(path)
        expect(deviationBetween(cubics, [...cubics].reverse(), 0.5)).toBeLessThan(0.02)
      }),
      { seed: 6, numRuns: 30 },
    )
  })

  it('both ways count: a part of a curve is far from the whole', () => {
    const whole = [straight({ x: 0, y: 0 }, { x: 10, y: 0 }), straight({ x: 10, y: 0 }, { x: 13, y: 0 })]
    expect(deviationBetween(whole.slice(0, 1), whole, 1)).toBeCloseTo(3, 1)
    expect(deviationBetween(whole, whole.slice(0, 1), 1)).toBeCloseTo(3, 1)
  })

  it('the index finds what a search through everything finds', () => {
    fc.assert(
      fc.property(anyPath, fc.integer({ min: 0, max: 160 }), fc.integer({ min: 0, max: 160 }), (path, x, y) => {
        const cubics = cubicsOfPath(path)
        const points = cubics.flatMap((c) => flatten(c, 0.001))
        const least = Math.min(...points.map((p) => Math.hypot(p.x - x, p.y - y)))
        const found = new NearIndex(cubics, 0.001).distance(x, y, 1000)
        expect(found).toBeLessThanOrEqual(least + 1e-6)
        expect(found).toBeGreaterThan(least - 4)
      }),
      { seed: 7, numRuns: 40 },
    )
  })

  it('a closed outline encloses the same area from either end', () => {
    fc.assert(
      fc.property(anyPath, (path) => {
        const closed = { ...path, closed: true }
        expect(areaOfCubics(cubicsOfPath(reversePath(closed)))).toBeCloseTo(-areaOfCubics(cubicsOfPath(closed)), 6)
      }),
      { seed: 8, numRuns: 40 },
    )
  })
})
