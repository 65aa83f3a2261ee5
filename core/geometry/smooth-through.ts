import type { Vec } from './point'
import { along, distance, lerp, scale, subtract } from './point'

/** Handles are no longer than this share of their chord: longer ones let a curve swing beyond its points. */
const LONGEST = 0.4

/** The two handles of a point, absolute; null at an open end's outer side. */
export interface Handles {
  in: Vec | null
  out: Vec | null
}

/**
 * Handles of a smooth curve through points. Inner tangents are those of the centripetal Catmull-Rom spline, which makes
 * neither cusps nor loops within a span (C. Yuksel, S. Schaefer and J. Keyser, Parameterization and applications of
 * Catmull-Rom curves, 2011), with handles kept short; an open end leaves towards its neighbour's handle.
 *
 * @param points no two that follow one another the same
 */
export function smoothThrough(points: readonly Vec[], closed: boolean): Handles[] {
  const n = points.length
  if (n < 3) return points.map(() => ({ in: null, out: null }))
  const out = points.map((p, i): Handles => {
    const isEnd = !closed && (i === 0 || i === n - 1)
    if (isEnd) return { in: null, out: null }
    const before = points[(i + n - 1) % n]!
    const after = points[(i + 1) % n]!
    const tangent = centripetal(before, p, after)
    const reach = Math.hypot(tangent.x, tangent.y)
    if (!(reach > 0)) return { in: null, out: null }
    const arm = (chord: number): number => Math.min((reach * Math.sqrt(chord)) / 3, LONGEST * chord) / reach
    return { in: along(p, tangent, -arm(distance(before, p))), out: along(p, tangent, arm(distance(p, after))) }
  })
  if (!closed) {
    out[0]!.out = halfWay(points[0]!, out[1]!.in)
    out[n - 1]!.in = halfWay(points[n - 1]!, out[n - 2]!.out)
  }
  return out
}

/** The handle of an end: half way to its neighbour's. */
export const halfWay = (end: Vec, handle: Vec | null): Vec | null => handle && lerp(end, handle, 0.5)

/** The spline's derivative at b, by a parameter that goes with the square root of the distance. */
function centripetal(a: Vec, b: Vec, c: Vec): Vec {
  const s = Math.sqrt(distance(a, b))
  const t = Math.sqrt(distance(b, c))
  if (!(s > 0) || !(t > 0)) return { x: 0, y: 0 }
  const whole = scale(subtract(c, a), -1 / (s + t))
  return along(along(whole, subtract(b, a), 1 / s), subtract(c, b), 1 / t)
}
