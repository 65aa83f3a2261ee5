import type { Path } from '#core/geometry/path'
import type { Weight, WidthStop } from '#core/model/model'
import { ArcLength } from '../../core/geometry/arc-length'
import { cubicsOfPath } from '../../core/geometry/path'
import { weight } from './weights'

/** Towards the light: the upper left, as a unit vector (y down). */
const LIGHT = { x: -Math.SQRT1_2, y: -Math.SQRT1_2 }

interface Shading {
  /** Which side of the path is the outside of the form. */
  outside: 'left' | 'right'
  /** Width where the edge faces the light, as a share of the size. */
  thin?: number
  /** Places along the path that get a width stop. */
  stops?: number
  /** A further factor by the place 0..1: ends that float taper here. */
  fade?: (u: number) => number
}

/** The weight of a form's edge by the craft's rule: thin where it faces the light, thick where it turns away. */
export function shaded(path: Path, size: number, { outside, thin = 0.45, stops = 7, fade = () => 1 }: Shading): Weight {
  const arc = new ArcLength(cubicsOfPath(path))
  const side = outside === 'left' ? 1 : -1
  const count = path.closed ? stops : stops - 1
  const at = (i: number): WidthStop => {
    const u = i / count
    const t = arc.tangent(u * arc.total)!
    const facing = side * (t.y * LIGHT.x - t.x * LIGHT.y)
    const w = Math.round((thin + (1 - thin) * (0.5 - 0.5 * facing)) * fade(u) * 100) / 100
    return { at: Math.round(u * 1000) / 1000, left: w, right: w }
  }
  return { ...weight(size), stops: Array.from({ length: stops }, (_, i) => at(i)) }
}
