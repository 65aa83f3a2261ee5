import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { straight } from '#core/geometry/cubic'
import { crossesItself, splitAtCrossings } from '#core/shapes/crossings'
import type { EdgeSoup } from '#core/shapes/edge-soup'
import { whole } from '#core/shapes/loop'
import { mergeCoincident } from '#core/shapes/merge-edges'
import { planarMap } from '#core/shapes/planar-map'
import { snapLoops } from '#core/shapes/snap-grid'

type Point = [number, number]

const soupOf = (polygons: Point[][]): EdgeSoup | null =>
  snapLoops(
    polygons.map((p) => p.map(([x, y], i) => whole(straight({ x, y }, { x: p[(i + 1) % p.length]![0], y: p[(i + 1) % p.length]![1] })))),
    0.05,
  )

const point = fc.tuple(fc.integer({ min: 0, max: 40 }), fc.integer({ min: 0, max: 40 })) as fc.Arbitrary<Point>
const fine = fc.tuple(fc.double({ min: 0, max: 3, noNaN: true }), fc.double({ min: 0, max: 3, noNaN: true })) as fc.Arbitrary<Point>
/** Polygons that share points and edges, and polygons that nearly do. */
const polygons = fc.array(fc.array(fc.oneof(point, fine), { minLength: 3, maxLength: 9 }), { minLength: 1, maxLength: 6 })

/** Winding number of `p` about polygons, by a ray. */
function windingOf(all: Point[][], [px, py]: Point): number {
  let w = 0
  for (const polygon of all) {
    polygon.forEach(([ax, ay], i) => {
      const [bx, by] = polygon[(i + 1) % polygon.length]!
      if (ay <= py === by <= py) return
      if (ax + ((py - ay) / (by - ay)) * (bx - ax) < px) w += by > ay ? -1 : 1
    })
  }
  return w
}

describe('snap rounding', () => {
  it('leaves no edges that cross or touch but at their ends', () => {
    fc.assert(
      fc.property(polygons, (all) => {
        const soup = soupOf(all)
        if (soup) expect(crossesItself(splitAtCrossings(soup))).toBe(false)
      }),
      { seed: 1, numRuns: 300 },
    )
  })

  it('is at rest on what it has rounded', () => {
    fc.assert(
      fc.property(polygons, (all) => {
        const soup = soupOf(all)
        if (!soup) return
        const once = splitAtCrossings(soup)
        expect(splitAtCrossings(once).count).toBe(once.count)
      }),
      { seed: 2, numRuns: 100 },
    )
  })

  it('keeps the parameters of an edge in order along it', () => {
    fc.assert(
      fc.property(polygons, (all) => {
        const soup = soupOf(all)
        if (!soup) return
        const split = splitAtCrossings(soup)
        for (let i = 0; i < split.count; i++) {
          expect(split.ta[i]!).toBeGreaterThanOrEqual(0)
          expect(split.tb[i]!).toBeLessThanOrEqual(1)
          expect(split.tb[i]!).toBeGreaterThanOrEqual(split.ta[i]!)
        }
      }),
      { seed: 3, numRuns: 100 },
    )
  })

  it('edges there and back are nothing', () => {
    const there: Point[] = [[0, 0], [30, 0], [30, 20]]
    const soup = soupOf([there, [...there].reverse()])!
    expect(mergeCoincident(soup).count).toBe(0)
  })
})

describe('the planar map', () => {
  it('has as many edges in as out of the winding around every vertex', () => {
    fc.assert(
      fc.property(polygons, (all) => {
        const soup = soupOf(all)
        if (!soup) return
        const m = planarMap(splitAtCrossings(soup))
        for (let v = 0; v + 1 < m.first.length; v++) {
          let turn = 0
          for (let i = m.first[v]!; i < m.first[v + 1]!; i++) turn += m.delta[m.order[i]!]!
          expect(turn).toBe(0)
        }
      }),
      { seed: 4, numRuns: 200 },
    )
  })

  it('knows the winding number on both sides of every long edge', () => {
    fc.assert(
      fc.property(fc.array(fc.array(point, { minLength: 3, maxLength: 7 }), { minLength: 1, maxLength: 4 }), (all) => {
        const soup = soupOf(all)
        if (!soup) return
        const split = splitAtCrossings(soup)
        const m = planarMap(split)
        for (let h = 0; h < m.origin.length; h++) {
          const [a, b] = [m.origin[h]!, m.origin[h ^ 1]!]
          const at = (v: number): Point => [(m.vertexX[v]! + split.originX) * split.step, (m.vertexY[v]! + split.originY) * split.step]
          const [[ax, ay], [bx, by]] = [at(a), at(b)]
          const l = Math.hypot(bx - ax, by - ay)
          if (l < 0.5) continue
          // A point just left of the middle: x turning to y.
          const off = 0.004
          const p: Point = [(ax + bx) / 2 - ((by - ay) / l) * off, (ay + by) / 2 + ((bx - ax) / l) * off]
          if (nearOther(m, split, h, p)) continue
          expect(m.winding[h]).toBe(windingOf(all, p))
        }
      }),
      { seed: 5, numRuns: 150 },
    )
  })
})

/** Whether another edge passes so near to the probe that rounding may put it on either side. */
function nearOther(m: ReturnType<typeof planarMap>, soup: EdgeSoup, own: number, [px, py]: Point): boolean {
  for (let h = 0; h < m.origin.length; h += 2) {
    if (h >> 1 === own >> 1) continue
    const [a, b] = [m.origin[h]!, m.origin[h + 1]!]
    const ax = (m.vertexX[a]! + soup.originX) * soup.step
    const ay = (m.vertexY[a]! + soup.originY) * soup.step
    const dx = (m.vertexX[b]! + soup.originX) * soup.step - ax
    const dy = (m.vertexY[b]! + soup.originY) * soup.step - ay
    const u = Math.min(1, Math.max(0, ((px - ax) * dx + (py - ay) * dy) / (dx * dx + dy * dy)))
    if (Math.hypot(px - ax - dx * u, py - ay - dy * u) < 0.008) return true
  }
  return false
}
