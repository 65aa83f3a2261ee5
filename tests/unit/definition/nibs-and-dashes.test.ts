import { describe, expect, it } from 'vitest'
import type { Line } from '#core/model/model'
import type { Cubic } from '#core/geometry/cubic'
import { pointAt } from '#core/geometry/cubic'
import { ArcLength } from '#core/geometry/arc-length'
import { cubicsOfPath } from '#core/geometry/path'
import type { Vec } from '#core/geometry/point'
import { rotate } from '#core/geometry/point'
import { outlineOf } from '#core/outline/expand'
import { LineWidth } from '#core/weight/half-widths'
import { TrueInk } from '../support/true-ink'
import { FlatOutline } from '../support/flat-outline'
import { randomLine, seeded } from '../support/random-lines'

const TOLERANCE = 0.05
/** Places of a line at which the sweep of its nib is looked at first. */
const PLACES = 400

/** Points of a raster on the wrong side of an outline, of those farther than `margin` px from it. */
function wrongPoints(outline: readonly Cubic[][], isInk: (p: Vec) => boolean, margin: number): string[] {
  const flat = new FlatOutline(outline)
  const wrong: string[] = []
  for (let y = -19.7; y < 200; y += 5) {
    for (let x = -19.3; x < 200; x += 5) {
      const p = { x, y }
      if (flat.distance(p) > margin && (flat.winding(p) !== 0) !== isInk(p))
        wrong.push(`(${x.toFixed(1)}, ${y.toFixed(1)})`)
    }
  }
  return wrong
}

/**
 * How far a point lies outside the sweep of a line's nib, negative inside; in the plane in which a nib of scale 1 is the
 * unit circle. By trying many places of the line, and many more between the best.
 */
function beyondNib(line: Line): (p: Vec) => number {
  const { nib } = line.weight
  const arc = new ArcLength(cubicsOfPath(line.path))
  const width = new LineWidth(line.weight, 'centre', arc.total, line.path.closed)
  const at = (u: number): { x: number; y: number; r: number } => {
    const segment = Math.min(arc.cubics.length - 1, Math.floor(u))
    const c = onto(pointAt(arc.cubics[segment]!, u - segment))
    const h = width.at(arc.at(segment, u - segment))
    return { ...c, r: (h.left + h.right) / 2 }
  }
  const onto = (p: Vec): Vec => {
    const q = rotate(p, (-nib!.angle * Math.PI) / 180)
    return { x: q.x / nib!.width, y: q.y / nib!.height }
  }
  const all = arc.cubics.length
  const places = Array.from({ length: PLACES + 1 }, (_, i) => at((all * i) / PLACES))
  const [xs, ys, rs] = [places.map((p) => p.x), places.map((p) => p.y), places.map((p) => p.r)]
  return (p) => {
    const q = onto(p)
    let best = Infinity
    let where = 0
    for (let i = 0; i <= PLACES; i++) {
      const over = rs[i]! > 0 ? Math.hypot(q.x - xs[i]!, q.y - ys[i]!) - rs[i]! : Infinity
      if (over < best) {
        best = over
        where = i
      }
    }
    for (let k = -20; k <= 20; k++) {
      const u = (all * (where + k / 10)) / PLACES
      if (u < 0 || u > all) continue
      const c = at(u)
      if (c.r > 0) best = Math.min(best, Math.hypot(q.x - c.x, q.y - c.y) - c.r)
    }
    return best
  }
}

describe('the sweep of a nib', () => {
  it.each(Array.from({ length: 60 }, (_, i) => i + 1))('random line %i against its definition', (seed) => {
    const r = seeded(seed + 40_000)
    for (let i = 0; i < 8; i++) r()
    const plain = randomLine(seed)
    const line = {
      ...plain,
      weight: { ...plain.weight, nib: { width: 0.3 + r() * 0.9, height: 0.15 + r() * 0.6, angle: r() * 180 } },
    }
    const outline = outlineOf(line, TOLERANCE)
    const beyond = beyondNib(line)
    expect(wrongPoints(outline, (p) => beyond(p) <= 0, 1.2 * TOLERANCE)).toEqual([])
    // No outline where there is no boundary: ink and paper are both found around each of its points. Tips are thin.
    for (const c of outline.flat()) {
      const p = pointAt(c, 0.43)
      const around = [beyond(p), ...[1.1, 0.3, 0.05].flatMap((share) => ring(p, share * TOLERANCE).map(beyond))]
      const nearest = beyond(p) * Math.max(line.weight.nib.width, line.weight.nib.height)
      expect(Math.min(nearest - 1.1 * TOLERANCE, ...around)).toBeLessThanOrEqual(0)
      expect(Math.max(...around)).toBeGreaterThan(0)
    }
  })
})

const ring = (p: Vec, radius: number): Vec[] =>
  Array.from({ length: 16 }, (_, i) => ({
    x: p.x + radius * Math.cos((i * Math.PI) / 8),
    y: p.y + radius * Math.sin((i * Math.PI) / 8),
  }))

describe('dashes', () => {
  it.each(Array.from({ length: 40 }, (_, i) => i + 1))('of random line %i are its stretches with caps', (seed) => {
    const r = seeded(seed + 50_000)
    for (let i = 0; i < 8; i++) r()
    const plain = randomLine(seed)
    const dash = [8 + r() * 30, 4 + r() * 20]
    const line = { ...plain, finish: { ...plain.finish, dash }, path: { ...plain.path, closed: false } }
    const { total } = new TrueInk(line)
    const dashes: TrueInk[] = []
    for (let from = 0; from < total; from += dash[0]! + dash[1]!)
      dashes.push(new TrueInk(line, from, Math.min(from + dash[0]!, total)))
    expect(wrongPoints(outlineOf(line, TOLERANCE), (p) => dashes.some((d) => d.has(p)), 1.2 * TOLERANCE)).toEqual([])
  })
})
