import type { Cap, Join } from '../drawing/model'
import { turn } from '../geometry/path'
import type { Vec } from '../geometry/point'
import { add, along, lerp, rotate, scale, subtract } from '../geometry/point'
import type { Loop } from '../shapes/loop'
import { polyline, segment, whole } from '../shapes/loop'
import { arc } from './arc'
import type { Section } from './sides'

/** Corners that turn by less than this (radians) are bevelled: no other join would show. */
const SLIGHT = 0.01

/**
 * The cap on an end section, the ink on its left: a half-disc on the section as diameter, a rectangle reaching half the
 * width beyond, or nothing. `at` says which end of the line it is.
 */
export function capLoops(section: Section, cap: Cap, at: 'start' | 'end', tolerance: number): Loop[] {
  const width = section.leftHalf + section.rightHalf
  if (cap === 'butt' || width === 0) return []
  const from = at === 'end' ? section.left : section.right
  const to = at === 'end' ? section.right : section.left
  const outward = at === 'end' ? section.tangent : scale(section.tangent, -1)
  const back = polyline(to, section.centre, from)
  if (cap === 'square') {
    const reach = scale(outward, width / 2)
    return [[...polyline(from, add(from, reach), add(to, reach), to), ...back]]
  }
  const middle = lerp(from, to, 0.5)
  return [[...arc(middle, subtract(from, middle), Math.PI, tolerance).map(whole), ...back]]
}

/** The join on the outer side of a corner between the section that arrives and the one that leaves. */
export function joinLoops(before: Section, after: Section, join: Join, miterLimit: number, tolerance: number): Loop[] {
  const node = before.centre
  const angle = turn(before.tangent, after.tangent)
  if (angle === 0) return []
  const left = angle > 0
  const a = left ? before.left : before.right
  const b = left ? after.left : after.right
  const h = left ? before.leftHalf : before.rightHalf
  const even = Math.abs(h - (left ? after.leftHalf : after.rightHalf)) < 1e-9 * (1 + h)
  if (h === 0) return []
  const [from, to] = left ? [a, b] : [b, a]
  const outer = Math.abs(angle) < SLIGHT || !even ? polyline(from, to) : outerEdge(node, from, to, Math.abs(angle), h, join, miterLimit, tolerance)
  return [[segment(node, from), ...outer, segment(to, node)]]
}

function outerEdge(
  node: Vec,
  from: Vec,
  to: Vec,
  angle: number,
  h: number,
  join: Join,
  miterLimit: number,
  tolerance: number,
): Loop {
  if (join === 'round') return roundEdge(node, from, to, angle, tolerance)
  const ratio = 1 / Math.cos(angle / 2)
  if (join === 'miter' && ratio > 0 && ratio <= miterLimit) {
    const half = rotate(subtract(from, node), angle / 2)
    return polyline(from, along(node, half, (h * ratio) / Math.hypot(half.x, half.y)), to)
  }
  return polyline(from, to)
}

/** Circle arc about the node that ends exactly on `to`. */
function roundEdge(node: Vec, from: Vec, to: Vec, angle: number, tolerance: number): Loop {
  const cubics = arc(node, subtract(from, node), angle, tolerance)
  const last = cubics[cubics.length - 1]!
  cubics[0] = { ...cubics[0]!, p0: from }
  cubics[cubics.length - 1] = { ...cubics[cubics.length - 1]!, p3: to, p0: cubics.length === 1 ? from : last.p0 }
  return cubics.map(whole)
}
