import { loopOfPath, toPaths } from '../arrangement/contours'
import { crossesItself, resolveGroups } from '../arrangement/resolve'
import { cubicsOfPath } from '../geometry/path'
import { newId } from '../new-id'
import type { Path, PathNode } from '../geometry/path'
import type { Retouch, Shape } from '../model/model'
import { withNodeAt } from '../geometry/add-node'
import { arcOfPath } from '../geometry/known'
import type { Vec } from '../geometry/point'
import { distance } from '../geometry/point'

/** A node is the one that a retouch was made on when it lies this near to where that was, px. */
const SAME = 0.25

/** Shapes after the retouches of their outlines, and which of these found nothing to be put on. Tolerance in px. */
export function withRetouches(
  shapes: readonly Shape[],
  retouches: readonly Retouch[],
  tolerance: number,
): { shapes: Shape[]; waits: Retouch[] } {
  const out = shapes.map((s) => ({ ...s, contours: [...s.contours] }))
  const waits = retouches.filter((retouch) => !out.some((s) => putOn(s.contours, retouch, tolerance)))
  return { shapes: out.filter((s) => s.contours.length), waits }
}

/** Puts a retouch on the contour that it fits; answers whether there was one. */
function putOn(contours: Path[], { at, to }: Retouch, tolerance: number): boolean {
  for (const [i, contour] of contours.entries()) {
    if (to === 'cut') {
      if (!contour.nodes.some((n) => distance(n.at, at) < SAME)) continue
      contours.splice(0, contours.length, ...cutApart(contours, tolerance))
      return true
    }
    const next = to === 'add' ? withNodeNear(contour, at) : changedAt(contour, at, to)
    if (!next) continue
    contours[i] = next
    return true
  }
  return false
}

/** The contours of a shape cut where they cross: what came to lie outside in, with the region on its right, is none of it. */
function cutApart(contours: readonly Path[], tolerance: number): Path[] {
  return toPaths(
    resolveGroups(
      [contours.map((c) => loopOfPath({ ...c, closed: true }))],
      tolerance,
      ({ winding }) => winding[0]! > 0,
    ),
  )
}

/** Whether contours cross themselves or each other, so that a cut would change them. */
export const wantsCut = (contours: readonly Path[], tolerance: number): boolean =>
  crossesItself(
    contours.map((c) => cubicsOfPath({ ...c, closed: true })),
    tolerance,
  )

function changedAt(contour: Path, at: Vec, to: PathNode | null): Path | null {
  const index = contour.nodes.findIndex((n) => distance(n.at, at) < SAME)
  if (index < 0 || (!to && contour.nodes.length < 3)) return null
  const nodes = contour.nodes.slice()
  if (to) nodes[index] = to
  else nodes.splice(index, 1)
  return { ...contour, nodes }
}

function withNodeNear(contour: Path, at: Vec): Path | null {
  const arc = arcOfPath({ ...contour, closed: true })
  if (!arc.total) return null
  const hit = arc.nearest(at)
  return hit.distance < SAME ? withNodeAt({ ...contour, closed: true }, hit.segment, hit.t) : null
}

type Change = Pick<Retouch, 'at' | 'to'>

/** What leads from contours to the same contours edited node by node, in the order in which it must be put on. */
export function retouchesBetween(before: readonly Path[], after: readonly Path[]): Retouch[] {
  return before
    .flatMap((path, i) => (after[i] && after[i] !== path ? changes(path, after[i]!) : []))
    .map((c) => ({ id: newId(), kind: 'retouch', ...c }))
}

function changes(before: Path, after: Path): Change[] {
  const has = (path: Path, at: Vec): boolean => path.nodes.some((n) => n.at.x === at.x && n.at.y === at.y)
  if (before.nodes.length === after.nodes.length) {
    return before.nodes.flatMap((n, i): Change[] =>
      same(n, after.nodes[i]!) ? [] : [{ at: n.at, to: after.nodes[i]! }],
    )
  }
  const gone = before.nodes.filter((n) => !has(after, n.at))
  const come = after.nodes.filter((n) => !has(before, n.at))
  const stay = after.nodes.filter((n) => has(before, n.at) && !before.nodes.some((b) => same(b, n)))
  return [
    ...gone.map((n): Change => ({ at: n.at, to: null })),
    ...come.map((n): Change => ({ at: n.at, to: 'add' })),
    ...[...stay, ...come].map((n): Change => ({ at: n.at, to: n })),
  ]
}

const same = (a: PathNode, b: PathNode): boolean => a === b || JSON.stringify(a) === JSON.stringify(b)
