import type { Cubic } from '../geometry/cubic'
import { cubic } from '../geometry/cubic'
import type { Vec } from '../geometry/point'
import { add, along, rotate } from '../geometry/point'

/** Radial error of one cubic over a quarter circle, as a share of the radius. */
const QUARTER_ERROR = 2.73e-4

/**
 * Circle arc about `centre` from `centre + spoke` through `angle` radians (positive from x towards y), as the fewest
 * even cubics within `tolerance` px: handles 4/3 tan(angle / 4), whose error falls with the sixth power of the angle.
 */
export function arc(centre: Vec, spoke: Vec, angle: number, tolerance: number): Cubic[] {
  const radius = Math.hypot(spoke.x, spoke.y)
  const quarters = Math.abs(angle) / (Math.PI / 2)
  const finer = ((radius * QUARTER_ERROR) / tolerance) ** (1 / 6)
  const count = Math.max(1, Math.ceil(quarters * Math.max(1, finer) - 1e-9))
  const step = angle / count
  const k = (4 / 3) * Math.tan(step / 4)
  const out: Cubic[] = []
  let from = spoke
  for (let i = 0; i < count; i++) {
    const to = i + 1 === count ? rotate(spoke, angle) : rotate(from, step)
    const leave = rotate(from, Math.PI / 2)
    const arrive = rotate(to, Math.PI / 2)
    out.push(
      cubic(add(centre, from), add(centre, along(from, leave, k)), add(centre, along(to, arrive, -k)), add(centre, to)),
    )
    from = to
  }
  return out
}
