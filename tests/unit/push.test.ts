import { describe, expect, it } from 'vitest'
import { pushed } from '#core/editing/push'
import { PushField } from '#core/editing/push-field'
import { ArcLength } from '#core/geometry/arc-length'
import type { Cubic } from '#core/geometry/cubic'
import { curvatureAt, pointAt, tangentAt } from '#core/geometry/cubic'
import { cubicsOfPath } from '#core/geometry/path'
import type { Vec } from '#core/geometry/point'
import { distance } from '#core/geometry/point'
import { evenWeight, newLine } from '#core/model/create'
import type { Line } from '#core/model/model'
import { LineWidth } from '#core/weight/half-widths'
import { through } from '../../demo/kit/spline'
import { seeded } from './support/random-lines'

/** A stroke of a few smooth bends with weights that tell its places. */
function stroke(seed: number, closed = false): Line {
  const r = seeded(seed)
  for (let i = 0; i < 6; i++) r()
  const points = Array.from({ length: 5 }, (_, i): [number, number] => [40 + 60 * i + 20 * r(), 100 + 80 * r()])
  const path = through(...(closed ? ([...points, [150, 260]] as [number, number][]) : points))
  const stops = [0.1, 0.35, 0.8].map((at) => ({ at, left: 0.4 + r(), right: 0.4 + r() }))
  return newLine({ ...path, closed }, { id: `stroke-${seed}`, weight: { ...evenWeight(6), stops } })
}

/** A push across the strokes, in uneven steps. */
function sweep(seed: number): { at: Vec; by: Vec }[] {
  const r = seeded(seed + 90)
  for (let i = 0; i < 6; i++) r()
  let at = { x: 90 + 60 * r(), y: 40 + 40 * r() }
  return Array.from({ length: 9 }, () => {
    const step = { at, by: { x: 14 * r() - 4, y: 12 * r() } }
    at = { x: at.x + step.by.x, y: at.y + step.by.y }
    return step
  })
}

const OPTIONS = { radius: 60, strength: 0.8 }

/** The greatest turn at a joint that is smooth, rad. */
function kink({ path }: Line): number {
  const cubics = cubicsOfPath(path)
  const joints = path.nodes.flatMap((n, i) =>
    n.joint === 'smooth' && (path.closed || (i > 0 && i < path.nodes.length - 1))
      ? [[cubics[(i + cubics.length - 1) % cubics.length]!, cubics[i]!] as const]
      : [],
  )
  return Math.max(
    0,
    ...joints.map(([a, b]) => {
      const [u, v] = [tangentAt(a, 1)!, tangentAt(b, 0)!]
      return Math.abs(Math.atan2(u.x * v.y - u.y * v.x, u.x * v.x + u.y * v.y))
    }),
  )
}

/** Where a place of the plane comes to lie: every step by itself, finely divided. */
function carried(p: Vec, way: readonly { at: Vec; by: Vec }[], fine: number): Vec {
  let { x, y } = p
  for (const { at, by } of way)
    for (let i = 0; i < fine; i++) {
      const [cx, cy] = [at.x + (by.x * i) / fine, at.y + (by.y * i) / fine]
      const q = 1 - ((x - cx) ** 2 + (y - cy) ** 2) / OPTIONS.radius ** 2
      if (q <= 0) continue
      x += (OPTIONS.strength * by.x * q * q) / fine
      y += (OPTIONS.strength * by.y * q * q) / fine
    }
  return { x, y }
}

const samplesOf = (line: Line): Vec[] =>
  cubicsOfPath(line.path).flatMap((c) => Array.from({ length: 24 }, (_, i) => pointAt(c, i / 23)))

const apart = (p: Vec, line: Line): number => new ArcLength(cubicsOfPath(line.path)).nearest(p).distance

/** The sum of how the curvature changes along a line, 1 / px: what its comb shows. */
const wildness = (cubics: readonly Cubic[]): number => {
  const all = cubics.flatMap((c) => Array.from({ length: 20 }, (_, i) => curvatureAt(c, (i + 0.5) / 20)))
  return all.slice(1).reduce((n, k, i) => n + Math.abs(k - all[i]!), 0)
}

describe('a push', () => {
  it('bends lines as its soft field moves the plane, without corners, in few nodes', () => {
    let farthest = 0
    for (let seed = 1; seed <= 24; seed++) {
      const [line, way] = [stroke(seed, seed % 3 === 0), sweep(seed)]
      const [next] = pushed([line], way, OPTIONS) as [Line]
      expect(next).not.toBe(line)
      const whole = samplesOf(line).map((p) => carried(p, way, 8))
      expect(Math.max(...whole.map((p) => apart(p, next)))).toBeLessThan(1)
      farthest = Math.max(farthest, ...samplesOf(line).map((p) => apart(p, next)))
      // Coordinates of the strokes are rounded.
      expect(kink(next)).toBeLessThan(2 * kink(line) + 1e-6)
      expect(next.path.nodes.length).toBeLessThanOrEqual(2 * line.path.nodes.length)
      expect(next.path.nodes.filter((n) => n.joint === 'corner').length).toBe(
        line.path.nodes.filter((n) => n.joint === 'corner').length,
      )
    }
    expect(farthest).toBeGreaterThan(15)
  })

  it('has no wilder a comb than the places that it moves', () => {
    for (let seed = 1; seed <= 24; seed++) {
      const [line, way] = [stroke(seed), sweep(seed)]
      const [next] = pushed([line], way, OPTIONS) as [Line]
      const field = new PushField(way, OPTIONS)
      // The bent curve itself, by fine differences of its directions.
      const turns = cubicsOfPath(line.path).flatMap((c) =>
        Array.from({ length: 200 }, (_, i) => {
          const at = (t: number): Vec => field.placed(pointAt(c, t))
          const [a, b, d] = [at((i + 0.3) / 200), at((i + 0.5) / 200), at((i + 0.7) / 200)]
          const [u, v] = [
            { x: b.x - a.x, y: b.y - a.y },
            { x: d.x - b.x, y: d.y - b.y },
          ]
          return Math.atan2(u.x * v.y - u.y * v.x, u.x * v.x + u.y * v.y) / (0.5 * distance(a, d))
        }),
      )
      const true_ = turns.slice(1).reduce((n, k, i) => n + Math.abs(k - turns[i]!), 0)
      expect(wildness(cubicsOfPath(next.path))).toBeLessThan(1.25 * true_ + 0.02)
    }
  })

  it('leaves what it does not reach the same object, and takes widths, snips and scrapings along', () => {
    const far = newLine(through([400, 400], [460, 420], [500, 400]), { id: 'far' })
    const line: Line = { ...stroke(5), snips: [{ from: 0.2, to: 0.3 }] }
    const way = sweep(5)
    const [same, next] = pushed([far, line], way, OPTIONS) as [Line, Line]
    expect(same).toBe(far)
    const arcs = [line, next].map((l) => new ArcLength(cubicsOfPath(l.path))) as [ArcLength, ArcLength]
    const field = new PushField(way, OPTIONS)
    const carriedTo = (share: number): number =>
      arcs[1].nearest(field.placed(arcs[0].point(share * arcs[0].total))).length / arcs[1].total
    next.weight.stops.forEach((s, i) => expect(Math.abs(s.at - carriedTo(line.weight.stops[i]!.at))).toBeLessThan(0.03))
    expect(Math.abs(next.snips[0]!.from - carriedTo(0.2))).toBeLessThan(0.03)
    const width = (l: Line, arc: ArcLength, share: number): number => {
      const { left, right } = new LineWidth(l.weight, 'centre', arc.total, false).at(share * arc.total)
      return left + right
    }
    for (const share of [0.15, 0.4, 0.7])
      expect(width(next, arcs[1], carriedTo(share))).toBeCloseTo(width(line, arcs[0], share), 0)
    expect(line.path).toEqual(stroke(5).path)
  })

  it('bends a straight line only where it pushes, and refuses what is no push by name', () => {
    const straight = newLine(through([20, 100], [400, 100]), { id: 'straight' })
    const way = [{ at: { x: 200, y: 80 }, by: { x: 0, y: 30 } }]
    const [next] = pushed([straight], way, OPTIONS) as [Line]
    expect(apart({ x: 60, y: 100 }, next)).toBeLessThan(0.3)
    expect(apart({ x: 200, y: 100 }, next)).toBeGreaterThan(8)
    expect(kink(next)).toBeLessThan(1e-6)
    // What stays straight stays one piece, and nothing becomes a corner.
    expect(next.path.nodes.slice(1, -1).every((n) => n.joint === 'smooth' && n.in && n.out)).toBe(true)
    expect(next.path.nodes.length).toBeLessThan(10)
    expect(pushed([straight], [], OPTIONS)[0]).toBe(straight)
    expect(() => pushed([straight], way, { ...OPTIONS, radius: 0 })).toThrow(/radius/)
    expect(() => pushed([straight], way, { ...OPTIONS, strength: Number.NaN })).toThrow(/strength/)
  })
})
