import type { Cap, Join } from '../model/model'
import type { Vec } from '../geometry/point'
import { add, along, lerp, rotate, scale, subtract } from '../geometry/point'
import type { Arc, Loop } from '../arrangement/loop'
import { polyline, reverseLoop, segment, whole } from '../arrangement/loop'
import { arc } from './arc'

/** Corners that turn by less than this (radians) are bevelled: no other join would show. */
const SLIGHT = 0.01

/**
 * The cap that leads from one end of an end section to the other, ink on its left: a half circle on the section as
 * diameter, three sides of a rectangle that reaches half the width beyond, or the section itself.
 *
 * @param outward unit vector away from the line
 */
export function capArcs(from: Vec, to: Vec, outward: Vec, cap: Cap, tolerance: number): Arc[] {
  const width = Math.hypot(to.x - from.x, to.y - from.y)
  if (width === 0) return []
  if (cap === 'butt') return [segment(from, to)]
  if (cap === 'square') {
    const reach = scale(outward, width / 2)
    return polyline(from, add(from, reach), add(to, reach), to)
  }
  const middle = lerp(from, to, 0.5)
  return exactEnds(arc(middle, subtract(from, middle), Math.PI, tolerance).map(whole), from, to)
}

/**
 * The outer edge of a corner about `node`, from the edge that arrives to the one that leaves.
 *
 * @param angle turn of the line, radians, signed from x towards y
 * @param half the half-width on the outer side, px
 */
export function outerEdge(
  node: Vec,
  from: Vec,
  to: Vec,
  angle: number,
  half: number,
  join: Join,
  miterLimit: number,
  tolerance: number,
): Arc[] {
  if (Math.abs(angle) < SLIGHT) return [segment(from, to)]
  if (join === 'round') return exactEnds(arc(node, subtract(from, node), angle, tolerance).map(whole), from, to)
  const ratio = 1 / Math.cos(angle / 2)
  if (join === 'miter' && ratio > 0 && ratio <= miterLimit) {
    const middle = rotate(subtract(from, node), angle / 2)
    return polyline(from, along(node, middle, (half * ratio) / Math.hypot(middle.x, middle.y)), to)
  }
  return [segment(from, to)]
}

/** The pie that a rib sweeps as it turns about `node`, ink on its left. */
export function pie(node: Vec, from: Vec, to: Vec, angle: number, half: number, tolerance: number): Loop {
  const loop = [
    segment(node, from),
    ...outerEdge(node, from, to, angle, half, 'round', 0, tolerance),
    segment(to, node),
  ]
  return angle > 0 ? loop : reverseLoop(loop)
}

/** The arcs with their outer ends exactly on two points. */
function exactEnds(arcs: Arc[], from: Vec, to: Vec): Arc[] {
  const last = arcs.length - 1
  return arcs.map((a, i) =>
    i === 0 || i === last ? whole({ ...a.curve, ...(i === 0 && { p0: from }), ...(i === last && { p3: to }) }) : a,
  )
}
