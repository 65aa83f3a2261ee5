import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { bowedPath } from '#core/geometry/bow'
import type { Cubic } from '#core/geometry/cubic'
import { pointAt, tangentAt } from '#core/geometry/cubic'
import type { Vec } from '#core/geometry/point'
import { cubicsOfPath } from '#core/geometry/path'
import { cross, distance, dot, lerp } from '#core/geometry/point'

const place = fc.record({
  x: fc.double({ min: -200, max: 200, noNaN: true }),
  y: fc.double({ min: -200, max: 200, noNaN: true }),
})
const chord = fc.tuple(place, place).filter(([a, b]) => distance(a, b) > 5)

/** Points of a rod bent until it is as high over a chord of 100 as a share of it: theta'' = - sin(theta), by small steps. */
function rodPoints(depth: number): Vec[] {
  const shape = (angle: number): Vec[] => {
    const half: Vec[] = [{ x: 0, y: 0 }]
    let [theta, turn] = [angle, 0]
    for (const h = 0.001; theta > 0;) {
      const last = half[half.length - 1]!
      turn -= h * Math.sin(theta)
      theta += h * turn
      half.push({ x: last.x + h * Math.cos(theta), y: last.y + h * Math.sin(theta) })
    }
    const top = half[half.length - 1]!
    const k = 50 / top.x
    return half.flatMap((p) => [
      { x: p.x * k, y: p.y * k },
      { x: 100 - p.x * k, y: p.y * k },
    ])
  }
  const height = (points: Vec[]): number => Math.max(...points.map((p) => p.y)) / 100
  let [low, high] = [0.01, 2.27]
  for (let i = 0; i < 30; i++) {
    const angle = (low + high) / 2
    const points = shape(angle)
    if (points[points.length - 2]!.x > 0 && height(points) < depth) low = angle
    else high = angle
  }
  return shape(low).filter((_, i) => i % 8 < 2)
}

describe('a bowed chord', () => {
  it('passes half way where it was pulled, between the chord ends', () => {
    fc.assert(
      fc.property(chord, place, fc.constantFrom('arc' as const, 'rod' as const), ([a, b], pull, bend) => {
        const all = cubicsOfPath(bowedPath([a, b], [pull], [false, false], bend))
        const bent = Math.abs(cross({ x: b.x - a.x, y: b.y - a.y }, pull)) > 0.004 * distance(a, b) ** 2
        fc.pre(bent)
        const m = lerp(a, b, 0.5)
        expect(
          distance(all.length > 1 ? all[0]!.p3 : pointAt(all[0]!, 0.5), { x: m.x + pull.x, y: m.y + pull.y }),
        ).toBeLessThan(1e-9 * 400)
        expect([all[0]!.p0, all.at(-1)!.p3]).toEqual([a, b])
      }),
      { seed: 1 },
    )
  })

  const worstOff = (all: Cubic[], off: (p: Vec) => number): number =>
    Math.max(...all.flatMap((c) => Array.from({ length: 41 }, (_, i) => Math.abs(off(pointAt(c, i / 40))))))

  it('is a part of a circle, however deep, or a bent rod', () => {
    for (const depth of [0.05, 0.2, 0.4, 0.45, 0.5, 1, 2]) {
      const bow = (bend: 'arc' | 'rod'): Cubic[] =>
        cubicsOfPath(
          bowedPath(
            [
              { x: 0, y: 0 },
              { x: 100, y: 0 },
            ],
            [{ x: 0, y: 100 * depth }],
            [false, false],
            bend,
          ),
        )
      const radius = 100 * ((depth ** 2 + 0.25) / (2 * depth))
      expect(
        worstOff(bow('arc'), (p) => distance(p, { x: 50, y: 100 * depth - radius }) / radius - 1),
        `circle ${depth}`,
      ).toBeLessThan(0.008)
      const rod = rodPoints(depth)
      expect(
        worstOff(bow('rod'), (p) => Math.min(...rod.map((q) => distance(p, q))) / (100 * Math.max(1, depth))),
        `rod ${depth}`,
      ).toBeLessThan(0.025)
      for (const bend of ['arc', 'rod'] as const) {
        const path = bowedPath(
          [
            { x: 0, y: 0 },
            { x: 100, y: 0 },
          ],
          [{ x: 0, y: 100 * depth }],
          [false, false],
          bend,
        )
        expect(path.nodes).toHaveLength(depth > 0.42 ? 3 : 2)
      }
    }
  })

  it('that is not pulled has no handles', () => {
    const { nodes } = bowedPath(
      [
        { x: 0, y: 0 },
        { x: 90, y: 30 },
      ],
      [{ x: 0, y: 0 }],
      [false, false],
    )
    expect(nodes.map((n) => [n.in, n.out, n.joint])).toEqual([
      [null, null, 'corner'],
      [null, null, 'corner'],
    ])
  })
})

describe('two bows in a row', () => {
  const s = (smooth: boolean) =>
    bowedPath(
      [
        { x: 0, y: 0 },
        { x: 100, y: 0 },
        { x: 200, y: 20 },
      ],
      [
        { x: 0, y: 30 },
        { x: 4, y: -26 },
      ],
      [false, smooth, false],
    )

  it('make an S whose joint is smooth, the middles where they were pulled', () => {
    const path = s(true)
    const [a, b] = cubicsOfPath(path)
    expect(path.nodes[1]!.joint).toBe('smooth')
    expect(cross(tangentAt(a!, 1)!, tangentAt(b!, 0)!)).toBeCloseTo(0, 9)
    expect(dot(tangentAt(a!, 1)!, tangentAt(b!, 0)!)).toBeGreaterThan(0)
    expect(distance(pointAt(a!, 0.5), { x: 50, y: 30 })).toBeLessThan(1e-9)
    expect(distance(pointAt(b!, 0.5), { x: 154, y: -16 })).toBeLessThan(1e-9)
  })

  it('or a corner, each bow as it would be alone', () => {
    const path = s(false)
    const [a] = cubicsOfPath(path)
    expect(path.nodes[1]!.joint).toBe('corner')
    expect(a).toEqual(
      cubicsOfPath(
        bowedPath(
          [
            { x: 0, y: 0 },
            { x: 100, y: 0 },
          ],
          [{ x: 0, y: 30 }],
          [false, false],
        ),
      )[0],
    )
  })

  it('a bow leaves a straight chord along it', () => {
    const path = bowedPath(
      [
        { x: 0, y: 0 },
        { x: 100, y: 0 },
        { x: 150, y: 60 },
      ],
      [
        { x: 0, y: 0 },
        { x: 12, y: -10 },
      ],
      [false, true, false],
    )
    const [a, b] = cubicsOfPath(path)
    expect(tangentAt(a!, 1)!.y).toBeCloseTo(0, 9)
    expect(tangentAt(b!, 0)!.y).toBeCloseTo(0, 9)
    expect(tangentAt(b!, 0)!.x).toBeGreaterThan(0)
  })

  it('smooth joints never turn back, whatever was pulled', () => {
    fc.assert(
      fc.property(fc.tuple(chord, place), place, place, ([[a, b], c], p, q) => {
        fc.pre(distance(b, c) > 5)
        const path = bowedPath([a, b, c], [p, q], [false, true, false])
        if (path.nodes[1]!.joint !== 'smooth') return
        const { at, in: before, out: after } = path.nodes[1]!
        const [u, v] = [
          { x: at.x - before!.x, y: at.y - before!.y },
          { x: after!.x - at.x, y: after!.y - at.y },
        ]
        expect(dot(u, v) / (Math.hypot(u.x, u.y) * Math.hypot(v.x, v.y))).toBeCloseTo(1, 6)
      }),
      { seed: 2 },
    )
  })
})
