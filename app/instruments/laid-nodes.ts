import type { Path, PathNode } from '#core/geometry/path'
import type { Vec } from '#core/geometry/point'
import { halfWay, smoothThrough } from '#core/geometry/smooth-through'

/** A node as it was laid. */
export interface Laid extends PathNode {
  /** Clicked where clicked points join smoothly: its handles follow from its neighbours. */
  auto: boolean
}

/** The path of nodes as they were laid. */
export function pathOfLaid(nodes: readonly Laid[], closed: boolean): Path {
  const laid: Laid[] = nodes.map((n) => ({ ...n }))
  smoothAutos(laid, closed)
  return { nodes: laid.map(({ auto: _, ...n }) => n), closed }
}

/** Gives clicked points that join smoothly the handles of a curve through them, and through the nodes on either side. */
function smoothAutos(laid: Laid[], closed: boolean): void {
  if (!laid.some((n) => n.auto)) return
  const handles = smoothThrough(
    laid.map((n) => n.at),
    closed,
  )
  laid.forEach((n, i) => {
    if (!n.auto) return
    n.in = handles[i]!.in
    n.out = handles[i]!.out
    if (n.in && n.out) n.joint = 'smooth'
  })
  // An end that is smooth by itself leaves towards its neighbour's handle, whoever made that.
  const [first, last] = [laid[0]!, laid[laid.length - 1]!]
  if (closed || laid.length < 2) return
  if (first.auto) first.out = halfWay(first.at, laid[1]!.in)
  if (last.auto) last.in = halfWay(last.at, laid[laid.length - 2]!.out)
}

/** A node with the handle that a hand pulls out of it, and the one against it: alone, only that on the side of the drag. */
export function withHandleAhead(node: Laid, ahead: Vec, closing: boolean, alone: boolean): Laid {
  const behind = { x: 2 * node.at.x - ahead.x, y: 2 * node.at.y - ahead.y }
  if (!alone) return { ...node, in: behind, out: ahead, joint: 'smooth', auto: false }
  return closing ? { ...node, in: behind, auto: false } : { ...node, out: ahead, joint: 'corner', auto: false }
}
