import type { Cubic } from './cubic'
import { derivativeAt, isEven, pointAt, reach } from './cubic'
import type { Vec } from './point'
import { cross, distance, lerp, subtract } from './point'

/** Crossing of two cubics by Newton from (t, u); null where it does not settle. */
export function intersectFrom(a: Cubic, t: number, b: Cubic, u: number): { t: number; u: number; at: Vec } | null {
  if (isEven(a) && isEven(b)) return intersectChords(a, b)
  const size = Math.max(reach(a), reach(b))
  for (let i = 0; i < 12; i++) {
    const gap = subtract(pointAt(b, u), pointAt(a, t))
    if (Math.hypot(gap.x, gap.y) < 1e-13 * size) break
    const da = derivativeAt(a, t)
    const db = derivativeAt(b, u)
    const det = cross(da, db)
    if (Math.abs(det) < 1e-12 * Math.hypot(da.x, da.y) * Math.hypot(db.x, db.y)) return null
    t += cross(gap, db) / det
    u += cross(gap, da) / det
    if (!(t > -0.1 && t < 1.1 && u > -0.1 && u < 1.1)) return null
  }
  const p = pointAt(a, t)
  const q = pointAt(b, u)
  return distance(p, q) < 1e-9 * size ? { t, u, at: lerp(p, q, 0.5) } : null
}

/** Where the lines through the chords of two cubics cross, near both; null where they are parallel. */
function intersectChords(a: Cubic, b: Cubic): { t: number; u: number; at: Vec } | null {
  const ax = a.p3.x - a.p0.x
  const ay = a.p3.y - a.p0.y
  const bx = b.p3.x - b.p0.x
  const by = b.p3.y - b.p0.y
  const gx = b.p0.x - a.p0.x
  const gy = b.p0.y - a.p0.y
  const det = ax * by - ay * bx
  if (Math.abs(det) < 1e-12 * Math.sqrt((ax * ax + ay * ay) * (bx * bx + by * by))) return null
  const t = (gx * by - gy * bx) / det
  const u = (gx * ay - gy * ax) / det
  return t > -0.1 && t < 1.1 && u > -0.1 && u < 1.1 ? { t, u, at: { x: a.p0.x + ax * t, y: a.p0.y + ay * t } } : null
}
