import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { crossingsOf, selfCrossings } from '#core/geometry/crossings'
import type { Cubic } from '#core/geometry/cubic'
import { cubic, flatten, pointAt, straight } from '#core/geometry/cubic'
import type { Vec } from '#core/geometry/point'

const point = fc.record({
  x: fc.integer({ min: 0, max: 4000 }).map((v) => v / 10),
  y: fc.integer({ min: 0, max: 4000 }).map((v) => v / 10),
})
const curve = fc.tuple(point, point, point, point).map(([a, b, c, d]) => cubic(a, b, c, d))

/** Crossings of two polylines, by every pair of their edges. */
function polylineCrossings(p: readonly Vec[], q: readonly Vec[], own = false): number {
  const side = (a: Vec, b: Vec, c: Vec): number => (b.x - a.x) * (c.y - a.y) - (b.y - a.y) * (c.x - a.x)
  let n = 0
  for (let i = 0; i + 1 < p.length; i++) {
    for (let k = own ? i + 2 : 0; k + 1 < q.length; k++) {
      const [a, b, c, d] = [p[i]!, p[i + 1]!, q[k]!, q[k + 1]!]
      if (side(a, b, c) * side(a, b, d) < 0 && side(c, d, a) * side(c, d, b) < 0) n++
    }
  }
  return n
}

describe('crossings', () => {
  it('are as many as two fine polylines have, and lie on both curves', () => {
    let compared = 0
    fc.assert(
      fc.property(curve, curve, (a, b) => {
        const found = crossingsOf([a], [b])
        for (const f of found) {
          for (const p of [pointAt(a, f.a.t), pointAt(b, f.b.t)])
            expect(Math.hypot(p.x - f.at.x, p.y - f.at.y)).toBeLessThan(1e-5)
        }
        // Curves that only just touch may be counted either way: what moving one of them a little changes is no test.
        const counts = [0, 0.3, -0.3].map((d) =>
          polylineCrossings(
            flatten(a, 0.02),
            flatten(
              cubic(...([b.p0, b.p1, b.p2, b.p3].map((p) => ({ x: p.x + d, y: p.y + d })) as [Vec, Vec, Vec, Vec])),
              0.02,
            ),
          ),
        )
        if (counts.some((c) => c !== counts[0])) return
        compared++
        expect(found).toHaveLength(counts[0]!)
      }),
      { seed: 11, numRuns: 300 },
    )
    expect(compared).toBeGreaterThan(250)
  })

  it('of a chain with itself are found, and its joints are none', () => {
    let compared = 0
    fc.assert(
      fc.property(fc.array(point, { minLength: 7, maxLength: 7 }), (p) => {
        const chain: Cubic[] = [cubic(p[0]!, p[1]!, p[2]!, p[3]!), cubic(p[3]!, p[4]!, p[5]!, p[6]!)]
        const points = (d: number): Vec[] => chain.flatMap((c, i) => flatten(c, 0.02 + d).slice(i))
        const [n, m] = [points(0), points(0.02)].map((q) => polylineCrossings(q, q, true))
        if (n !== m) return
        compared++
        expect(selfCrossings(chain, false).length).toBe(n)
      }),
      { seed: 12, numRuns: 120 },
    )
    expect(compared).toBeGreaterThan(100)
  })

  it('at the joint of two segments count once', () => {
    const across = [straight({ x: 0, y: -10 }, { x: 0, y: 0 }), straight({ x: 0, y: 0 }, { x: 0, y: 10 })]
    const along = [straight({ x: -10, y: 0 }, { x: 0, y: 0 }), straight({ x: 0, y: 0 }, { x: 10, y: 0 })]
    expect(crossingsOf(across, along)).toHaveLength(1)
    expect(crossingsOf(across, [straight({ x: 5, y: -5 }, { x: 5, y: 5 })])).toEqual([])
  })
})
