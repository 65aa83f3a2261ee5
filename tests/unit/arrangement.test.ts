import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { Line, Shape } from '#core/model/model'
import { areaOfCubics } from '#core/geometry/area'
import { straight } from '#core/geometry/cubic'
import { cubicsOfPath } from '#core/geometry/path'
import type { Arrangement } from '#core/arrangement/arrangement'
import { arrange } from '#core/arrangement/arrange'
import { intersectShapes, subtractShapes, unionShapes } from '#core/shapes/combine'
import type { Loop } from '#core/arrangement/loop'
import { whole } from '#core/arrangement/loop'
import type { Cubic } from '#core/geometry/cubic'
import type { Path } from '#core/geometry/path'
import { DividedInk } from '#core/ink/pieces/divided-ink'
import { planarMap } from '#core/arrangement/planar-map'
import { toPx } from '#core/arrangement/snap-grid'
import { visitFaces } from '#core/arrangement/winding'
import { outlineOf } from '#core/outline/expand'
import { evenWeight, newLine } from '#core/model/create'
import { toPaths } from '#core/arrangement/contours'
import { FlatOutline } from './support/flat-outline'
import { inkyLine, seeded } from './support/random-lines'
import { polyline } from './support/paths'

type Point = [number, number]

/** A line of no length with round ends: a disc. */
const dotAt = (x: number, y: number, r: number): Line => newLine(polyline(x, y), { weight: evenWeight(2 * r) })

const TOLERANCE = 0.05

const loopOf = (p: Point[]): Loop =>
  p.map(([x, y], i) => whole(straight({ x, y }, { x: p[(i + 1) % p.length]![0], y: p[(i + 1) % p.length]![1] })))

const point = fc.tuple(fc.integer({ min: 0, max: 40 }), fc.integer({ min: 0, max: 40 })) as fc.Arbitrary<Point>
const fine = fc.tuple(
  fc.double({ min: 0, max: 3, noNaN: true }),
  fc.double({ min: 0, max: 3, noNaN: true }),
) as fc.Arbitrary<Point>
/** Polygons that share points and edges, and polygons that nearly do. */
const polygons = fc.array(fc.array(fc.oneof(point, fine), { minLength: 3, maxLength: 9 }), {
  minLength: 1,
  maxLength: 6,
})

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

/** The edges of an arrangement that are part of it. */
const edgesOf = ({ edges: s }: Arrangement): { a: Point; b: Point; ta: number; tb: number }[] =>
  Array.from({ length: s.count }, (_, i) => i)
    .filter((i) => s.alive[i])
    .map((i) => ({ a: [s.ax[i]!, s.ay[i]!], b: [s.bx[i]!, s.by[i]!], ta: s.ta[i]!, tb: s.tb[i]! }))

/** Whether two edges of a grid meet other than at a common end: exact, with big integers. */
function meetBadly(p: { a: Point; b: Point }, q: { a: Point; b: Point }): boolean {
  const side = (a: Point, b: Point, c: Point): number => {
    const [ax, ay, bx, by, cx, cy] = [...a, ...b, ...c].map(BigInt) as [bigint, bigint, bigint, bigint, bigint, bigint]
    const v = (bx - ax) * (cy - ay) - (by - ay) * (cx - ax)
    return v > 0n ? 1 : v < 0n ? -1 : 0
  }
  const same = (a: Point, b: Point): boolean => a[0] === b[0] && a[1] === b[1]
  const within = (a: Point, b: Point, c: Point): boolean =>
    side(a, b, c) === 0 &&
    !same(a, c) &&
    !same(b, c) &&
    (c[0] - a[0]) * (c[0] - b[0]) <= 0 &&
    (c[1] - a[1]) * (c[1] - b[1]) <= 0
  if (within(p.a, p.b, q.a) || within(p.a, p.b, q.b) || within(q.a, q.b, p.a) || within(q.a, q.b, p.b)) return true
  return side(p.a, p.b, q.a) * side(p.a, p.b, q.b) < 0 && side(q.a, q.b, p.a) * side(q.a, q.b, p.b) < 0
}

describe('small shapes far apart', () => {
  it('are arranged without a false alarm about their areas', () => {
    // A grid point is rounded by up to half a step; seen from a far point that must not look like a lost area.
    const disc = (x: number, y: number, r: number): Shape => ({
      id: `${x},${y}`,
      ink: 'black',
      from: [],
      contours: toPaths(outlineOf(dotAt(x, y, r), TOLERANCE)),
    })
    for (let k = 0; k < 40; k++) {
      const far = disc(12_282 + 0.37 * k, 6_663 - 0.53 * k, 40)
      const near = [disc(39.34 + 0.013 * k, 74.4 + 0.007 * k, 0.81), disc(92.88 + 0.011 * k, 57.65, 0.0104)]
      const contours = unionShapes([far, ...near], { tolerance: TOLERANCE })
      expect(contours).toHaveLength(3)
    }
  })
})

describe('the arrangement', () => {
  it('leaves no edges that cross or touch but at their ends, and no two the same, of crowds and of few', () => {
    const ways = { crowd: 0, few: 0 }
    fc.assert(
      fc.property(polygons, (all) => {
        const arrangement = arrange([all.map(loopOf)], TOLERANCE)
        if (!arrangement) return
        ways[arrangement.fine ? 'crowd' : 'few']++
        const edges = edgesOf(arrangement)
        const seen = new Set<string>()
        edges.forEach((p, i) => {
          const key = [p.a, p.b].map(String).sort().join()
          expect(seen.has(key)).toBe(false)
          seen.add(key)
          for (const q of edges.slice(i + 1)) expect(meetBadly(p, q)).toBe(false)
        })
      }),
      { seed: 1, numRuns: 150 },
    )
    expect(Math.min(ways.crowd, ways.few)).toBeGreaterThan(30)
  })

  it('keeps the parameters of an edge in order along it', () => {
    fc.assert(
      fc.property(polygons, (all) => {
        const arrangement = arrange([all.map(loopOf)], TOLERANCE)
        for (const { ta, tb } of arrangement ? edgesOf(arrangement) : []) {
          expect(ta).toBeGreaterThanOrEqual(0)
          expect(tb).toBeLessThanOrEqual(1)
          expect(tb).toBeGreaterThanOrEqual(ta)
        }
      }),
      { seed: 3, numRuns: 100 },
    )
  })

  it('of edges there and back is nothing', () => {
    const there: Point[] = [
      [0, 0],
      [30, 0],
      [30, 20],
    ]
    const arrangement = arrange([[loopOf(there), loopOf([...there].reverse())]], TOLERANCE)!
    expect(planarMap(arrangement).faces).toBe(1)
  })

  it('comes to an end where everything lies within a few grid steps', () => {
    const r = seeded(5)
    const loops = Array.from({ length: 60 }, () =>
      loopOf(Array.from({ length: 5 }, (): Point => [r() * 0.004, r() * 0.004])),
    )
    expect(arrange([loops], TOLERANCE)).not.toBeNull()
  })

  it('knows the winding number of every face wider than the grid', () => {
    fc.assert(
      fc.property(fc.array(fc.array(point, { minLength: 3, maxLength: 7 }), { minLength: 1, maxLength: 4 }), (all) => {
        const arrangement = arrange([all.map(loopOf)], TOLERANCE)
        if (!arrangement) return
        const m = planarMap(arrangement)
        const known = new Int32Array(m.faces)
        visitFaces(m, 1, (face, { winding }) => (known[face] = winding[0]!))
        const edges = edgesOf(arrangement)
        const at = ([x, y]: Point): Point => {
          const p = toPx(arrangement.grid, x, y)
          return [p.x, p.y]
        }
        for (let h = 0; h < m.origin.length; h++) {
          const c = h >> 1
          const e = m.chains.edges[h & 1 ? m.chains.start[c + 1]! - 1 : m.chains.start[c]!]!
          const s = arrangement.edges
          const ends: [Point, Point] = [at([s.ax[e]!, s.ay[e]!]), at([s.bx[e]!, s.by[e]!])]
          if (h & 1) ends.reverse()
          const [[ax, ay], [bx, by]] = ends
          const l = Math.hypot(bx - ax, by - ay)
          if (l < 0.5) continue
          // A point just left of the middle: x turning to y.
          const off = 0.004
          const p: Point = [(ax + bx) / 2 - ((by - ay) / l) * off, (ay + by) / 2 + ((bx - ax) / l) * off]
          if (edges.filter((f) => distanceTo(p, at(f.a), at(f.b)) < 0.008).length > 1) continue
          expect(known[m.face[h]!]).toBe(windingOf(all, p))
        }
      }),
      { seed: 5, numRuns: 150 },
    )
  })
})

function distanceTo([px, py]: Point, [ax, ay]: Point, [bx, by]: Point): number {
  const [dx, dy] = [bx - ax, by - ay]
  const u = Math.min(1, Math.max(0, ((px - ax) * dx + (py - ay) * dy) / (dx * dx + dy * dy)))
  return Math.hypot(px - ax - dx * u, py - ay - dy * u)
}

/** A random closed shape: a line's outline, or a polygon that may cross itself. */
function randomShape(seed: number): Shape {
  const r = seeded(seed)
  for (let i = 0; i < 8; i++) r()
  const contours =
    r() < 0.5
      ? toPaths(outlineOf(inkyLine(1 + Math.floor(r() * 5000)), TOLERANCE))
      : [
          {
            closed: true,
            nodes: Array.from({ length: 3 + Math.floor(r() * 6) }, () => ({
              at: { x: r() * 160, y: r() * 160 },
              in: null,
              out: null,
              joint: 'corner' as const,
            })),
          },
        ]
  return { id: String(seed), contours, ink: 'black', from: [] }
}

const areaOf = (paths: ReturnType<typeof unionShapes>): number =>
  paths.reduce((a, p) => a + areaOfCubics(cubicsOfPath(p)), 0)
const options = { tolerance: TOLERANCE }

describe('combining shapes', () => {
  it('area(A) + area(B) = area(A or B) + area(A and B), and area(A) = area(A less B) + area(A and B), on 500 random pairs', () => {
    for (let i = 1; i <= 500; i++) {
      const [a, b] = [randomShape(2 * i), randomShape(2 * i + 1)]
      const [areaA, areaB] = [areaOf(unionShapes([a], options)), areaOf(unionShapes([b], options))]
      const both = areaOf(intersectShapes([a, b], options))
      const whole = areaA + areaB
      expect(Math.abs(areaOf(unionShapes([a, b], options)) + both - whole) / (whole || 1), `pair ${i}`).toBeLessThan(
        SAME,
      )
      expect(Math.abs(areaOf(subtractShapes(a, [b], options)) + both - areaA) / (whole || 1), `pair ${i}`).toBeLessThan(
        SAME,
      )
    }
  })

  it('union(A, A) = A, point for point but where A all but touches itself', () => {
    let exact = 0
    // Where a contour begins, and which comes first, says nothing.
    const told = (paths: ReturnType<typeof unionShapes>): string =>
      JSON.stringify(
        paths
          .map(({ nodes }) => {
            const all = nodes.map((n) => JSON.stringify(n))
            const least = all.indexOf(all.toSorted()[0]!)
            return [...all.slice(least), ...all.slice(0, least)].join()
          })
          .sort(),
      )
    for (let i = 1; i <= 300; i++) {
      const a = randomShape(i)
      const once = unionShapes([a], options)
      for (const twice of [unionShapes([a, a], options), intersectShapes([a, a], options)]) {
        expect(Math.abs(areaOf(twice) - areaOf(once)) / areaOf(once), `shape ${i}`).toBeLessThan(1e-8)
        exact += told(twice) === told(once) ? 1 : 0
      }
      expect(subtractShapes(a, [a], options)).toEqual([])
    }
    expect(exact).toBeGreaterThan(580)
  })

  it('does not depend on the order of the shapes', () => {
    for (let i = 1; i <= 200; i++) {
      const all = [randomShape(3 * i), randomShape(3 * i + 1), randomShape(3 * i + 2)]
      const area = areaOf(unionShapes(all, options))
      for (const order of [
        [2, 1, 0],
        [1, 0, 2],
      ])
        expect(
          areaOf(
            unionShapes(
              order.map((k) => all[k]!),
              options,
            ),
          ) / area,
        ).toBeCloseTo(1, 6)
    }
  })

  it('is right at every point', () => {
    for (let i = 1; i <= 60; i++) {
      const [a, b] = [randomShape(5000 + 2 * i), randomShape(5001 + 2 * i)]
      const region = (paths: ReturnType<typeof unionShapes>): FlatOutline =>
        new FlatOutline(paths.map(cubicsOfPath), 0.01)
      const [inA, inB] = [region(a.contours), region(b.contours)]
      const outlines = new FlatOutline(
        [a, b].flatMap((s) => s.contours.map(cubicsOfPath)),
        0.01,
      )
      const results = [
        region(unionShapes([a, b], options)),
        region(intersectShapes([a, b], options)),
        region(subtractShapes(a, [b], options)),
      ]
      let wrong = 0
      for (let y = -30.3; y < 200; y += 6) {
        for (let x = -30.7; x < 200; x += 6) {
          if (outlines.distance({ x, y }) < TOLERANCE) continue
          const [p, q] = [inA.winding({ x, y }) !== 0, inB.winding({ x, y }) !== 0]
          const truth = [p || q, p && q, p && !q]
          results.forEach((r, k) => (wrong += (r.winding({ x, y }) !== 0) !== truth[k] ? 1 : 0))
        }
      }
      expect(wrong, `pair ${i}`).toBe(0)
    }
  })

  it('of nothing is nothing', () => {
    expect(unionShapes([], options)).toEqual([])
    expect(intersectShapes([], options)).toEqual([])
    expect(subtractShapes({ id: 'a', contours: [], ink: 'black', from: [] }, [], options)).toEqual([])
  })
})

/** Areas agree to this share. */
const SAME = 1e-6

describe('pieces', () => {
  it('of divided ink fill it without overlap, each under those that it names', () => {
    for (let i = 1; i <= 60; i++) {
      const ink = unionShapes([randomShape(9000 + 3 * i)], options)
      const others = [1, 2].map((k) => unionShapes([randomShape(9000 + 3 * i + k)], options))
      const cubics = (paths: readonly Path[]): Cubic[][] => paths.map(cubicsOfPath)
      const divided = DividedInk.of(cubics(ink), others.map(cubics), options.tolerance)
      if (!divided) continue
      const regions = [ink, ...others].map((paths) => new FlatOutline(cubics(paths), 0.01))
      const flat = divided
        .pieces()
        .all()
        .map((p) => ({
          over: p.over,
          region: new FlatOutline(
            p.contours().map((c) => [...c]),
            0.01,
          ),
        }))
      for (let y = -20.3; y < 190; y += 17) {
        for (let x = -20.7; x < 190; x += 17) {
          const at = regions.map((r) => r.winding({ x, y }) !== 0)
          const holding = flat.filter((f) => f.region.winding({ x, y }) !== 0)
          expect(holding.map((f) => f.over)).toEqual(at[0] ? [[0, 1].filter((k) => at[k + 1])] : [])
        }
      }
    }
  })
})
