import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { areaOfCubics } from '#core/geometry/area'
import type { Cubic } from '#core/geometry/cubic'
import { outlineOf } from '#core/outline/expand'
import { latticeOf } from '#core/shapes/lattice'
import { LatticeUnion } from '#core/shapes/lattice-union'
import { whole } from '#core/arrangement/loop'
import { resolveLoops } from '#core/arrangement/resolve'
import { atOnce } from '#core/turns'
import { evenWeight, newLine } from '#core/model/create'
import type { Line } from '#core/model/model'
import { inkyLine, seeded } from './support/random-lines'
import { polyline } from './support/paths'

const TOLERANCE = 0.05

const fresh = (contours: readonly Cubic[][], size: number): Cubic[][] =>
  atOnce(new LatticeUnion(latticeOf(size), TOLERANCE).of(contours))
const areaOf = (contours: readonly (readonly Cubic[])[]): number => contours.reduce((a, c) => a + areaOfCubics(c), 0)
const lengthOf = (contours: readonly (readonly Cubic[])[]): number =>
  contours.flat().reduce((a, c) => a + Math.hypot(c.p3.x - c.p0.x, c.p3.y - c.p0.y), 0)

/** A slip of a line across a page of 400 px. */
function slip(seed: number): Line {
  const r = seeded(seed)
  for (let i = 0; i < 6; i++) r()
  const at = { x: r() * 400, y: r() * 300 }
  const to = { x: at.x + (r() - 0.5) * 240, y: at.y + (r() - 0.5) * 240 }
  const bend = (): { x: number; y: number } => ({
    x: (at.x + to.x) / 2 + (r() - 0.5) * 120,
    y: (at.y + to.y) / 2 + (r() - 0.5) * 120,
  })
  return newLine(
    {
      nodes: [
        { at, in: null, out: bend(), joint: 'corner' },
        { at: to, in: bend(), out: null, joint: 'corner' },
      ],
      closed: false,
    },
    {
      weight: {
        ...evenWeight(2 + r() * 14),
        stops: [
          { at: 0, left: r(), right: r() },
          { at: 0.5, left: 1, right: 1 },
          { at: 1, left: r(), right: r() },
        ],
      },
    },
  )
}

describe('a union made cell by cell', () => {
  it('is the union made in one go, whatever the size of the cells', () => {
    for (let seed = 0; seed < 12; seed++) {
      const contours = Array.from({ length: 4 + seed * 3 }, (_, i) =>
        outlineOf(seed % 2 ? slip(100 * seed + i) : inkyLine(100 * seed + i), TOLERANCE),
      ).flat()
      const all = resolveLoops(
        contours.map((c) => c.map(whole)),
        TOLERANCE,
      )
      for (const size of [23, 60, 500]) {
        const got = fresh(contours, size)
        expect(got.length, `${seed} in cells of ${size}`).toBe(all.length)
        expect(Math.abs(areaOf(got) - areaOf(all))).toBeLessThan((TOLERANCE / 64) * lengthOf(all))
        // Sides of cells leave no nodes behind.
        expect(got.reduce((n, c) => n + c.length, 0)).toBeLessThanOrEqual(all.reduce((n, c) => n + c.length, 0) + 2)
      }
    }
  })

  it('after any changes is exactly what a fresh start gives, and keeps what did not change', () => {
    const outlines = Array.from({ length: 60 }, (_, i) => outlineOf(slip(i), TOLERANCE))
    fc.assert(
      fc.property(fc.array(fc.array(fc.nat(59), { maxLength: 25 }), { minLength: 2, maxLength: 6 }), (steps) => {
        const union = new LatticeUnion(latticeOf(40), TOLERANCE)
        let before: Cubic[][] = []
        for (const step of steps) {
          const contours = [...new Set(step)].flatMap((i) => outlines[i]!)
          const got = atOnce(union.of(contours))
          expect(got).toEqual(fresh(contours, 40))
          const again = atOnce(union.of(contours))
          expect(again.every((c, i) => c === got[i])).toBe(true)
          before = got
        }
        expect(before.every((c) => c.every((s, i) => s.p3 === c[(i + 1) % c.length]!.p0))).toBe(true)
      }),
      { seed: 11, numRuns: 25 },
    )
  })

  it('of one changed line makes anew only the cells that it touches', () => {
    const outlines = Array.from({ length: 120 }, (_, i) => outlineOf(slip(500 + i), TOLERANCE))
    const union = new LatticeUnion(latticeOf(25), TOLERANCE)
    atOnce(union.of(outlines.flat()))
    outlines[7] = outlineOf(slip(900), TOLERANCE)
    atOnce(union.of(outlines.flat()))
    expect(union.count.fresh).toBeLessThan(union.count.all / 3)
    expect(union.count.fresh).toBeGreaterThan(2)
  })

  it('takes what reaches over too many cells in one go, and goes on by cells without it', () => {
    const slips = Array.from({ length: 8 }, (_, i) => outlineOf(slip(i), TOLERANCE)).flat()
    const far = outlineOf(
      {
        ...slip(1),
        path: polyline(-9000, -9000, 9000, 9000),
      },
      TOLERANCE,
    )
    const union = new LatticeUnion(latticeOf(20), TOLERANCE)
    atOnce(union.of(slips))
    const all = [...slips, ...far]
    expect(areaOf(atOnce(union.of(all)))).toBeCloseTo(
      areaOf(
        resolveLoops(
          all.map((c) => c.map(whole)),
          TOLERANCE,
        ),
      ),
      6,
    )
    expect(atOnce(union.of(slips))).toEqual(fresh(slips, 20))
  })

  it('goes round what lies all about a cell, holes and coincident outlines', () => {
    const ring = (r: number, back = false): Cubic[] => {
      const points = [
        [-r, -r],
        [r, -r],
        [r, r],
        [-r, r],
      ].map(([x, y]) => ({ x: 200.13 + x!, y: 150.7 + y! }))
      const around = points.map((p, i) => ({ p0: p, p1: p, p2: points[(i + 1) % 4]!, p3: points[(i + 1) % 4]! }))
      return back ? around.map(({ p0, p1, p2, p3 }) => ({ p0: p3, p1: p2, p2: p1, p3: p0 })).reverse() : around
    }
    const plate = [ring(130), ring(70, true)]
    expect(areaOf(fresh(plate, 17))).toBeCloseTo(260 ** 2 - 140 ** 2, 2)
    // A square on the plate changes nothing, one in the hole is an island, the same plate twice is one.
    expect(areaOf(fresh([...plate, ring(100)], 17))).toBeCloseTo(260 ** 2, 2)
    expect(fresh([...plate, ring(40)], 17)).toHaveLength(3)
    expect(areaOf(fresh([...plate, ring(130), ring(70, true)], 17))).toBeCloseTo(260 ** 2 - 140 ** 2, 2)
  })
})
