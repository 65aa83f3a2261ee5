import { areaOfCubics } from '../../geometry/area'
import { arcOfPath } from '../../geometry/known'
import { courseOf } from '../../geometry/course'
import type { Vec } from '../../geometry/point'
import { newLine } from '../../model/create'
import type { Cast, Line, WidthStop } from '../../model/model'
import { fewestStops } from '../../weight/fewest-stops'
import type { Form } from './form'
import { contoursOf } from './form'

/** The widths lie so near to what the light asks for, as a share of the widest. */
const EXACT = 0.01

/** How fast a cast thins as the edge turns towards the light: an exponent, at the least taper and what the most adds. */
const BLUNT = 0.2
const SHARP = 1.8

/**
 * What a form throws as a line along its outline that has all of its width outside, `reach` px of it where the edge faces
 * straight away from the light, none where it faces the light, and none along a bridge, where the form is open.
 *
 * @param light px
 */
export function castLine(form: Form, { id, taper }: Pick<Cast, 'id' | 'taper'>, light: Vec, reach: number): Line {
  const { loop, bridge } = form
  const { at, x, y, nx, ny } = courseOf(loop)
  const isLeft = areaOfCubics(contoursOf(loop)[0]!) > 0
  const bridged = bridge ? openFrom(form) : 1
  const wide = Array.from(at, (u, i) => {
    const [dx, dy] = [x[i]! - light.x, y[i]! - light.y]
    const far = Math.hypot(dx, dy) || 1
    const facing = ((isLeft ? 1 : -1) * (dx * nx[i]! + dy * ny[i]!)) / far
    return u >= bridged || facing <= 0 ? 0 : facing ** (BLUNT + SHARP * taper)
  })
  const none = wide.map(() => 0)
  const stops = fewestStops({ at, left: isLeft ? wide : none, right: isLeft ? none : wide }, true, EXACT)
  const kept = stops.map((s): WidthStop => ({ ...s, left: Math.max(0, s.left), right: Math.max(0, s.right) }))
  const line = newLine(loop, { id: `cast:${id}:${reach}`, ink: form.lines[0]!.ink })
  return { ...line, weight: { ...line.weight, size: 2 * reach, stops: kept } }
}

/** From which share of its length on an outline is the bridge of an open form. */
function openFrom({ loop }: Form): number {
  const arc = arcOfPath(loop)
  return arc.starts[arc.cubics.length - 1]! / (arc.total || 1)
}
