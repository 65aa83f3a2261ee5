import { describe, expect, it } from 'vitest'
import { newLine } from '#core/model/create'
import { lineFromTrace } from '#core/fit/line-from-trace'
import { gapOfTrace } from '#core/fit/loop-of-trace'
import { redrawn } from '#core/fit/redraw-trace'
import { areaOfCubics } from '#core/geometry/area'
import { tangentAt } from '#core/geometry/cubic'
import { arcOfPath } from '#core/geometry/known'
import { cubicsOfPath } from '#core/geometry/path'
import type { PenTrace } from '#core/model/model'
import { Profile } from '#core/weight/profile'

/** A lumpy ring drawn by a hand that ends some way off its start, past it or short of it, pressing harder and harder. */
function ring(turns: number, off: number): PenTrace {
  const samples = Array.from({ length: 180 }, (_, i) => {
    const a = 0.4 + (i / 179) * 2 * Math.PI * turns
    const r = 90 + 14 * Math.sin(3 * a) + (i / 179) * off
    return { x: 300 + r * Math.cos(a), y: 200 + 0.8 * r * Math.sin(a), t: i * 7, pressure: 0.3 + (0.5 * i) / 179 }
  })
  return { samples, device: 'pen', steadiness: 0.2, response: 1, loop: true }
}
const weight = { size: 10, stops: [{ at: 0, left: 1, right: 1 }], start: null, end: null, nib: null, pinned: false }

describe('a trace that comes back to its start', () => {
  for (const [what, turns, off] of [
    ['ends short of it', 0.985, 6],
    ['ends past it', 1.07, -5],
    ['ends beside it', 1, 9],
  ] as const)
    it(`is a loop without a seam where it ${what}`, () => {
      const { path, weight: made } = lineFromTrace(ring(turns, off), weight, true)
      expect(path.closed).toBe(true)
      // Its area is that of the ring, so that nothing of it is lost and no part is there twice.
      expect(Math.abs(areaOfCubics(cubicsOfPath(path)))).toBeCloseTo(
        0.8 * Math.PI * ((90 + off / 2) ** 2 + 14 ** 2 / 2),
        -3,
      )
      const arc = arcOfPath(path)
      const near = arc.nearest({ x: 300 + 104 * Math.cos(0.4), y: 200 + 83 * Math.sin(0.4) })
      expect(near.distance).toBeLessThan(16)
      // No turn anywhere is sharper than the ring's own, about the seam as elsewhere.
      const cubics = cubicsOfPath(path)
      for (const [i, c] of cubics.entries()) {
        const [a, b] = [tangentAt(c, 1)!, tangentAt(cubics[(i + 1) % cubics.length]!, 0)!]
        expect(a.x * b.x + a.y * b.y, `joint ${i}`).toBeGreaterThan(0.97)
      }
      const profile = new Profile(made.stops, true)
      let steepest = 0
      for (let s = 0; s < 1; s += 0.01)
        steepest = Math.max(
          steepest,
          Math.abs(profile.sampleLeft((s + 0.01) % 1).value - profile.sampleLeft(s % 1).value),
        )
      expect(steepest).toBeLessThan(0.12)
    })

  it('is told by how near its ends come, wherever they cross', () => {
    expect(gapOfTrace(ring(1.07, 0).samples).gap).toBeLessThan(4)
    expect(gapOfTrace(ring(0.8, 0).samples).gap).toBeGreaterThan(60)
  })

  it('is opened and closed again', () => {
    const trace = ring(1, 9)
    const { path, weight: made } = lineFromTrace(trace, weight, true)
    const line = newLine(path, { weight: made, trace })
    const open = redrawn(line, trace, { loop: false })
    expect(open.path.closed).toBe(false)
    const [first, last] = [open.path.nodes[0]!.at, open.path.nodes.at(-1)!.at]
    expect(Math.hypot(first.x - last.x, first.y - last.y)).toBeGreaterThan(7)
    expect(redrawn(open, { ...trace, loop: false }, { loop: true })).toEqual(line)
  })
})
