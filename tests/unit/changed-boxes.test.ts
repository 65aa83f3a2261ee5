import fc from 'fast-check'
import { expect, it } from 'vitest'
import type { Path } from '#core/geometry/path'
import type { Vec } from '#core/geometry/point'
import { changedBoxes } from '#core/shapes/changed-boxes'

const at = (x: number, y: number): Path['nodes'][number] => ({ at: { x, y }, in: null, out: null, joint: 'corner' })
const ring = (points: readonly (readonly [number, number])[]): Path => ({
  nodes: points.map(([x, y]) => at(x, y)),
  closed: true,
})

/** Winding of contours about a point, by crossings of a ray with their chords: all these are polygons. */
function winding(contours: readonly Path[], p: Vec): number {
  let sum = 0
  for (const { nodes } of contours) {
    nodes.forEach(({ at: a }, i) => {
      const b = nodes[(i + 1) % nodes.length]!.at
      if (a.y <= p.y === b.y <= p.y) return
      if (a.x + ((p.y - a.y) / (b.y - a.y)) * (b.x - a.x) > p.x) sum += b.y > a.y ? 1 : -1
    })
  }
  return sum
}

const star = (points: readonly number[], cx: number, cy: number): Path =>
  ring(
    points.map(
      (r, i) =>
        [
          cx + r * Math.cos((i * 2 * Math.PI) / points.length),
          cy + r * Math.sin((i * 2 * Math.PI) / points.length),
        ] as const,
    ),
  )

it('outside of the boxes regions are the same, whichever nodes moved, contours came or went', () => {
  const radii = fc.array(fc.integer({ min: 5, max: 40 }), { minLength: 3, maxLength: 12 })
  const some = fc.array(fc.tuple(radii, fc.nat(200), fc.nat(200)), { minLength: 1, maxLength: 4 })
  fc.assert(
    fc.property(
      some,
      some,
      fc.array(fc.tuple(fc.nat(11), fc.integer({ min: 3, max: 60 })), { maxLength: 3 }),
      (kept, other, moves) => {
        const before = [...kept, ...other].map(([r, x, y]) => star(r, x, y))
        const after = kept.map(([r, x, y], k) =>
          star(
            r.map((v, i) => moves.find(([m]) => k === 0 && m % r.length === i)?.[1] ?? v),
            x,
            y,
          ),
        )
        const same = new Set(before.map((p) => JSON.stringify(p)))
        const stays = new Set(after.map((p) => JSON.stringify(p)).filter((t) => same.has(t)))
        const boxes = changedBoxes(
          before.filter((p) => !stays.has(JSON.stringify(p))),
          after.filter((p) => !stays.has(JSON.stringify(p))),
        )
        for (let x = -45.5; x < 245; x += 7) {
          for (let y = -45.5; y < 245; y += 7) {
            if (boxes.some((b) => x >= b.minX && x <= b.maxX && y >= b.minY && y <= b.maxY)) continue
            expect(winding(before, { x, y }), `${x} ${y}`).toBe(winding(after, { x, y }))
          }
        }
      },
    ),
    { seed: 5, numRuns: 120 },
  )
})

it('a node that moved changes no more than its two sides', () => {
  const far = Array.from({ length: 200 }, (_, i) => [i * 10, 100 + (i % 2)] as const)
  const before = ring([...far, [2000, 0], [0, 0]])
  const after = ring([...far.map(([x, y], i) => [x, i === 50 ? y + 6 : y] as const), [2000, 0], [0, 0]])
  expect(changedBoxes([before], [after])).toEqual([{ minX: 490, maxX: 510, minY: 100, maxY: 106 }])
})
