import type { Line } from '#core/model/model'
import { newLine } from '#core/model/create'
import { ArcLength } from '../../core/geometry/arc-length'
import { cubicsOfPath } from '../../core/geometry/path'
import type { Point } from './spline'
import { through } from './spline'
import { floating } from './weights'

/** Short strokes from one curve to another that follow a form: shade without filling. */
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
