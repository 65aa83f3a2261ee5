import type { Line } from '#core/model/model'
import type { Path } from '#core/geometry/path'
import { newLine } from '#core/model/create'
import { ArcLength } from '../../core/geometry/arc-length'
import { cubicsOfPath, reversePath } from '../../core/geometry/path'
import { leftNormal } from '../../core/geometry/point'
import type { Front } from './overlap'
import { front } from './overlap'
import type { Point } from './spline'
import { through } from './spline'
import { weight } from './weights'

/** Something long and round, a stalk or a horn: its two edges and the front that it makes. */
export interface Tube {
  left: Path
  right: Path
  front: Front
}

/** A tube about a spine, its half-width (px) going from `foot` to `head` along it. */
export function tube(spine: readonly Point[], foot: number, head: number): Tube {
  const arc = new ArcLength(cubicsOfPath(through(...spine)))
  const edge = (side: 1 | -1): Path => {
    const count = spine.length + 1
    const points = Array.from({ length: count }, (_, i): Point => {
      const u = i / (count - 1)
      const p = arc.point(u * arc.total)
      const n = leftNormal(arc.tangent(u * arc.total)!)
      const half = side * (foot + (head - foot) * u)
      return [p.x + n.x * half, p.y + n.y * half]
    })
    return through(...points)
  }
  const [left, right] = [edge(1), edge(-1)]
  return { left, right, front: front(left, reversePath(right)) }
}

/** Whether a tube's edges start under something in front, or fade into the form that the tube grows from. */
export type Foot = 'tucked' | 'open'

/** The edges of a tube: the one away from the light is heavy. */
export function tubeLines({ left, right }: Tube, size: number, shade: 'left' | 'right', foot: Foot = 'tucked'): Line[] {
  const start = (w: number): number => (foot === 'open' ? 0 : w)
  const dark = weight(size, [0, start(0.7)], [0.4, 1], [1, 0.62])
  const bright = weight(size * 0.72, [0, start(0.9)], [0.5, 0.72], [1, 0.8])
  return [
    newLine(left, { weight: shade === 'left' ? dark : bright }),
    newLine(right, { weight: shade === 'right' ? dark : bright }),
  ]
}
