import type { Line, Vec } from '../../core/drawing/model'
import { newLine } from '../../core/drawing/create'
import { ArcLength } from '../../core/geometry/arc-length'
import { cubicsOfPath } from '../../core/geometry/path'
import { leftNormal } from '../../core/geometry/point'
import type { Point } from './spline'
import { through } from './spline'
import { floating, outward, weight } from './weights'

export interface LeafShape {
  /** Midrib from the stalk to the tip. */
  rib: readonly Point[]
  /** Half-widths of the blade, left and right of the midrib, px. */
  left: number
  right: number
  /** Lobes along each edge; 0 for a smooth edge. */
  lobes?: number
  /** How deep the lobes cut, as a share of the half-width. */
  depth?: number
  /** Pairs of side veins. */
  veins?: number
  /** Which edge is in shadow. */
  shade?: 'left' | 'right'
  /** Where the blade is widest, 0..1 of the midrib. */
  widest?: number
  size?: number
  /** Share of the midrib below the blade: the leaf's own stalk. */
  foot?: number
}

/** A leaf: two edges that meet at the tip, the midrib, and side veins that tuck under it and float towards the edge. */
export function leaf({ rib, left, right, lobes = 0, depth = 0.22, veins = 3, shade = 'right', widest = 0.55, size = 5, foot = 0 }: LeafShape): Line[] {
  const path = through(...rib)
  const arc = new ArcLength(cubicsOfPath(path))
  const at = (u: number, off: number): Point => {
    const p = arc.point(u * arc.total)
    const n = leftNormal(arc.tangent(u * arc.total) as Vec)
    return [p.x + n.x * off, p.y + n.y * off]
  }
  /** A place by its share of the blade. */
  const on = (u: number, off: number): Point => at(foot + u * (1 - foot), off)
  const swell = (u: number): number => {
    const v = u < widest ? u / widest : (1 - u) / (1 - widest)
    return Math.sin((Math.PI / 2) * Math.min(1, v)) ** 0.85
  }
  const edge = (side: 1 | -1, reach: number, dark: boolean): Line => {
    const count = lobes > 0 ? lobes * 4 : 6
    const points: Point[] = [on(0, 0)]
    for (let i = 1; i < count; i++) {
      const u = i / count
      const wave = lobes > 0 ? 1 - depth * (0.5 + 0.5 * Math.cos(2 * Math.PI * (u * lobes + 0.12))) : 1
      points.push(on(u, side * reach * swell(u) * wave))
    }
    points.push(on(1, 0))
    const full = dark ? size * 1.25 : size * 0.8
    return newLine(through(...points), { weight: weight(full, [0, 0.5], [0.4, dark ? 0.85 : 0.7], [0.75, 1], [1, 0.45]) })
  }
  const lines = [edge(1, left, shade === 'left'), edge(-1, right, shade === 'right')]
  lines.push(newLine(path, { weight: foot > 0 ? weight(size * 1.5, [0, 1], [foot, 0.7], [0.6, 0.4], [0.93, 0.08], [1, 0]) : weight(size * 0.85, [0, 1], [0.5, 0.62], [0.93, 0.12], [1, 0]) }))
  for (let i = 0; i < veins; i++) {
    const u = 0.2 + (0.52 * (i + 0.3)) / veins
    for (const side of [1, -1] as const) {
      const reach = (side === 1 ? left : right) * swell(Math.min(0.95, u + 0.16))
      const start = on(u + (side === 1 ? 0 : 0.035), 0)
      const path = through(start, on(u + 0.09, side * reach * 0.36), on(u + 0.19, side * reach * 0.74))
      lines.push(newLine(path, { weight: outward(size * 0.5, 0.2) }))
    }
  }
  return lines
}

/** Short strokes that follow a form, longest in the middle: shade without filling. */
export function hatch(from: readonly Point[], to: readonly Point[], count: number, size: number, curve = 0.12): Line[] {
  const a = new ArcLength(cubicsOfPath(through(...from)))
  const b = new ArcLength(cubicsOfPath(through(...to)))
  return Array.from({ length: count }, (_, i) => {
    const u = count > 1 ? i / (count - 1) : 0.5
    const p = a.point(u * a.total)
    const q = b.point(u * b.total)
    const bow = { x: (p.x + q.x) / 2 + (q.y - p.y) * curve, y: (p.y + q.y) / 2 - (q.x - p.x) * curve }
    return newLine(through([p.x, p.y], [bow.x, bow.y], [q.x, q.y]), { weight: floating(size, 0.4) })
  })
}
