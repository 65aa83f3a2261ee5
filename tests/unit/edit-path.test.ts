import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { Path, PathNode } from '#core/geometry/path'
import { ArcLength } from '#core/geometry/arc-length'
import { nearest, pointAt } from '#core/geometry/cubic'
import { pulledSegment, withoutNode } from '#core/editing/edit-path'
import { withNodeAt } from '#core/geometry/add-node'
import { cubicsOfPath } from '#core/geometry/path'
import { cross, distance } from '#core/geometry/point'
import { seeded } from './support/random-lines'

/** A path of a few bends, open or closed, some of its segments straight. */
function somePath(seed: number): Path {
  const r = seeded(seed)
  for (let i = 0; i < 8; i++) r()
  const count = 3 + Math.floor(r() * 4)
  const nodes = Array.from({ length: count }, (): PathNode => {
    const at = { x: r() * 200, y: r() * 200 }
    if (r() < 0.25) return { at, in: null, out: null, joint: 'corner' }
    const d = { x: (r() - 0.5) * 80, y: (r() - 0.5) * 80 }
    return { at, in: { x: at.x - d.x, y: at.y - d.y }, out: { x: at.x + d.x, y: at.y + d.y }, joint: 'smooth' }
  })
  return { nodes, closed: r() < 0.4 }
}

const seeds = fc.integer({ min: 1, max: 5000 })
const share = fc.double({ min: 0.01, max: 0.99, noNaN: true })

describe('adding a node', () => {
  it('keeps the shape to 1e-9', () => {
    fc.assert(
      fc.property(seeds, share, share, (seed, where, t) => {
        const path = somePath(seed)
        const before = cubicsOfPath(path)
        const segment = Math.floor(where * before.length)
        const after = cubicsOfPath(withNodeAt(path, segment, t))
        expect(after).toHaveLength(before.length + 1)
        for (const u of [0.1, 0.4, 0.8]) {
          expect(distance(pointAt(after[segment]!, u), pointAt(before[segment]!, u * t))).toBeLessThan(1e-9)
          expect(distance(pointAt(after[segment + 1]!, u), pointAt(before[segment]!, t + u * (1 - t)))).toBeLessThan(
            1e-9,
          )
        }
        after.forEach((c, i) => {
          if (i !== segment && i !== segment + 1) expect(c).toEqual(before[i > segment ? i - 1 : i])
        })
      }),
      { seed: 1 },
    )
  })

  it('at the end of a segment changes nothing', () => {
    const path = somePath(3)
    expect(withNodeAt(path, 0, 0)).toBe(path)
    expect(withNodeAt(path, 0, 1)).toBe(path)
  })
})

describe('deleting a node', () => {
  it('takes back one that was added, to a thousandth of the size', () => {
    fc.assert(
      fc.property(seeds, share, share, (seed, where, t) => {
        fc.pre(t > 0.1 && t < 0.9)
        const path = somePath(seed)
        const before = cubicsOfPath(path)
        const segment = Math.floor(where * before.length)
        const arc = new ArcLength([before[segment]!])
        const back = cubicsOfPath(withoutNode(withNodeAt(path, segment, t), segment + 1))[segment]!
        // Where the curve loops over itself a cubic may stand for it that is not the same.
        fc.pre(arc.total < 2 * distance(before[segment]!.p0, before[segment]!.p3))
        for (const u of [0.2, 0.5, 0.8])
          expect(nearest(before[segment]!, pointAt(back, u), 200).distance).toBeLessThan(1e-3 * arc.total)
      }),
      { seed: 2 },
    )
  })

  it('hardly changes a gentle bend: a wave of nodes loses every second one within a thirtieth of its height', () => {
    const nodes = Array.from({ length: 9 }, (_, i): PathNode => {
      const x = i * 30
      const y = 25 * Math.sin(i / 2)
      const slope = (25 / 60) * Math.cos(i / 2)
      return {
        at: { x, y },
        in: { x: x - 10, y: y - 10 * slope },
        out: { x: x + 10, y: y + 10 * slope },
        joint: 'smooth',
      }
    })
    const arc = new ArcLength(cubicsOfPath({ nodes, closed: false }))
    let path: Path = { nodes, closed: false }
    for (const i of [7, 5, 3, 1]) path = withoutNode(path, i)
    expect(path.nodes).toHaveLength(5)
    for (const c of cubicsOfPath(path))
      for (const t of [0.15, 0.3, 0.5, 0.7, 0.85]) expect(arc.nearest(pointAt(c, t)).distance).toBeLessThan(25 / 30)
  })

  it('between straight segments leaves a straight one; at an open end the path ends before', () => {
    const corners = [
      [0, 0],
      [50, 40],
      [100, 0],
    ].map(([x, y]): PathNode => ({ at: { x: x!, y: y! }, in: null, out: null, joint: 'corner' }))
    expect(withoutNode({ nodes: corners, closed: false }, 1).nodes).toEqual([corners[0], corners[2]])
    const bent = somePath(11)
    const shorter = withoutNode({ ...bent, closed: false }, 0)
    expect(shorter.nodes).toHaveLength(bent.nodes.length - 1)
    expect(shorter.nodes[0]).toMatchObject({ at: bent.nodes[1]!.at, in: null })
  })
})

describe('pulling a segment', () => {
  it('moves the point under the hand by as much, and keeps smooth joints smooth', () => {
    fc.assert(
      fc.property(seeds, share, share, share, share, (seed, where, t, x, y) => {
        fc.pre(t > 0.05 && t < 0.95)
        const path = somePath(seed)
        const before = cubicsOfPath(path)
        const segment = Math.floor(where * before.length)
        const d = { x: (x - 0.5) * 60, y: (y - 0.5) * 60 }
        const pulled = pulledSegment(path, segment, t, d)
        const [p, q] = [pointAt(before[segment]!, t), pointAt(cubicsOfPath(pulled)[segment]!, t)]
        expect(distance(q, { x: p.x + d.x, y: p.y + d.y })).toBeLessThan(1e-9)
        pulled.nodes.forEach((n) => {
          if (n.joint !== 'smooth' || !n.in || !n.out) return
          const [u, v] = [
            { x: n.at.x - n.in.x, y: n.at.y - n.in.y },
            { x: n.out.x - n.at.x, y: n.out.y - n.at.y },
          ]
          expect(Math.abs(cross(u, v))).toBeLessThan(1e-9 * (1 + Math.hypot(u.x, u.y) * Math.hypot(v.x, v.y)))
        })
      }),
      { seed: 3 },
    )
  })
})
