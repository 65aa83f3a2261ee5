import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { cubic, pointAt } from '#core/geometry/cubic'
import { cross, distance } from '#core/geometry/point'
import { smoothThrough } from '#core/geometry/smooth-through'

const place = fc.record({
  x: fc.double({ min: 0, max: 200, noNaN: true }),
  y: fc.double({ min: 0, max: 200, noNaN: true }),
})
const places = fc
  .array(place, { minLength: 3, maxLength: 8 })
  .filter((all) => all.every((p, i) => i === 0 || distance(p, all[i - 1]!) > 1))

describe('a smooth curve through points', () => {
  it('is smooth at every inner point, with no handle past its chord', () => {
    fc.assert(
      fc.property(places, (points) => {
        smoothThrough(points, false).forEach((h, i) => {
          if (!h.in || !h.out) return
          const p = points[i]!
          const [u, v] = [
            { x: p.x - h.in.x, y: p.y - h.in.y },
            { x: h.out.x - p.x, y: h.out.y - p.y },
          ]
          expect(Math.abs(cross(u, v))).toBeLessThan(1e-6 * (1 + Math.hypot(u.x, u.y) * Math.hypot(v.x, v.y)))
          expect(distance(p, h.in)).toBeLessThanOrEqual(0.4 * distance(p, points[i - 1]!) + 1e-9)
          expect(distance(p, h.out)).toBeLessThanOrEqual(0.4 * distance(p, points[i + 1]!) + 1e-9)
        })
      }),
      { seed: 5 },
    )
  })

  it('stays within a third of a chord of it: no overshoot shows', () => {
    fc.assert(
      fc.property(places, (points) => {
        const handles = smoothThrough(points, false)
        for (let i = 0; i + 1 < points.length; i++) {
          const [p, q] = [points[i]!, points[i + 1]!]
          const c = cubic(p, handles[i]!.out ?? p, handles[i + 1]!.in ?? q, q)
          for (const t of [0.15, 0.35, 0.5, 0.65, 0.85]) {
            const at = pointAt(c, t)
            const off =
              Math.abs(cross({ x: q.x - p.x, y: q.y - p.y }, { x: at.x - p.x, y: at.y - p.y })) / distance(p, q)
            expect(off).toBeLessThanOrEqual(distance(p, q) / 3)
          }
        }
      }),
      { seed: 6 },
    )
  })

  it('of a closed square is round: all handles alike', () => {
    const handles = smoothThrough(
      [
        { x: 0, y: 0 },
        { x: 90, y: 0 },
        { x: 90, y: 90 },
        { x: 0, y: 90 },
      ],
      true,
    )
    const lengths = handles.flatMap((h, i) => [
      distance(
        h.in!,
        [
          { x: 0, y: 0 },
          { x: 90, y: 0 },
          { x: 90, y: 90 },
          { x: 0, y: 90 },
        ][i]!,
      ),
    ])
    for (const l of lengths) expect(l).toBeCloseTo(lengths[0]!, 9)
  })

  it('of two points is their chord', () => {
    expect(
      smoothThrough(
        [
          { x: 0, y: 0 },
          { x: 9, y: 9 },
        ],
        false,
      ),
    ).toEqual([
      { in: null, out: null },
      { in: null, out: null },
    ])
  })
})
