import { loopOfPath, toPaths } from '../arrangement/contours'
import { crossesItself, resolveGroups } from '../arrangement/resolve'
import { cubicsOfPath, mapNode } from '../geometry/path'
import { newId } from '../new-id'
import type { Path, PathNode } from '../geometry/path'
import type { Hanging, Line, Retouch, Shape } from '../model/model'
import { withNodeAt } from '../geometry/add-node'
import { grown, isWithin } from '../geometry/bounds'
import { arcOfPath, boxOfPath } from '../geometry/known'
import type { Vec } from '../geometry/point'
import { distance } from '../geometry/point'
import { editedNear, nodeAdded } from './edited-near'
import { hangingOn, putOnLine } from './hanging'

/** A node is the one that a retouch was made on when it lies this near to where that was, px. */
const SAME = 0.25

/**
 * Shapes after the retouches of their outlines, and which of these found nothing to be put on. Tolerance in px; `lineBy` finds
 * the line that a retouch hangs on by its id.
 */
export function withRetouches(
  shapes: readonly Shape[],
  retouches: readonly Retouch[],
  tolerance: number,
  lineBy: (id: string) => Line | undefined,
): { shapes: Shape[]; waits: Retouch[] } {
  const out = shapes.map((s) => ({ ...s, contours: [...s.contours] }))
  const waits = retouches.filter((retouch) => !isPutOn(out, retouch, tolerance, lineBy))
  return { shapes: out.filter((s) => s.contours.length), waits }
}

/** Puts a retouch on the outline that it fits; answers whether there was one. */
function isPutOn(
  shapes: readonly Shape[],
  { at, to, by }: Retouch,
  tolerance: number,
  lineBy: (id: string) => Line | undefined,
): boolean {
  const line = by && lineBy(by.line)
  if (!line) return shapes.some((s) => putOn(s.contours, { at, to }, tolerance))
  const of = shapes.filter((s) => s.from.includes(line.id))
  const put = putOnLine(line, by, at)
  const now = { at: put.toNow(at), to: to && typeof to === 'object' ? mapNode(to, put.toNow) : to }
  const beside = by.was?.filter((_, i) => i !== 1).map((n) => put.toNow(n.at))
  if (of.some((s) => putOn(s.contours, now, tolerance, beside))) return true
  const here = nearestContour(of, now.at, put.reach)
  if (!here) return false
  const { contours, i } = here
  if (to === 'cut') contours.splice(0, contours.length, ...cutApart(contours, tolerance))
  else contours[i] = to === 'add' ? nodeAdded(contours[i]!, now.at) : editedNear(contours[i]!, now.at, to, by.was, put)
  return true
}

/** The contour nearest to a point within reach, px. */
function nearestContour(shapes: readonly Shape[], at: Vec, reach: number): { contours: Path[]; i: number } | null {
  let best: { contours: Path[]; i: number } | null = null
  let least = reach
  for (const { contours } of shapes) {
    for (const [i, contour] of contours.entries()) {
      if (!isWithin(at, grown(boxOfPath(contour), least))) continue
      const off = arcOfPath({ ...contour, closed: true }).nearest(at).distance
      if (off <= least) [best, least] = [{ contours, i }, off]
    }
  }
  return best
}

/** Puts a change on the contour that has its very node, and those beside it, where they are known. */
function putOn(contours: Path[], { at, to }: Change, tolerance: number, beside: readonly Vec[] = []): boolean {
  for (const [i, contour] of contours.entries()) {
    if (to === 'cut') {
      if (!contour.nodes.some((n) => distance(n.at, at) < SAME)) continue
      contours.splice(0, contours.length, ...cutApart(contours, tolerance))
      return true
    }
    if (!beside.every((p) => contour.nodes.some((n) => distance(n.at, p) < SAME))) continue
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

/**
 * What leads from contours to the same contours edited node by node, in the order in which it must be put on; hung on
 * those of the lines that the contours came from which are nearest.
 */
export function retouchesBetween(
  before: readonly Path[],
  after: readonly Path[],
  lines: readonly Line[] = [],
): Retouch[] {
  return before.flatMap((path, i) => {
    if (!after[i] || after[i] === path) return []
    const contours = [path]
    return changes(path, after[i]).map((c) => {
      // As it is once the changes before this one are put on.
      const nodes = contours[0]?.nodes ?? []
      const k = nodes.findIndex((n) => distance(n.at, c.at) < SAME)
      const was: Hanging['was'] =
        k < 0 || nodes.length < 3 ? undefined : [nodes.at(k - 1)!, nodes[k]!, nodes[(k + 1) % nodes.length]!]
      putOn(contours, c, 0)
      return retouchOn(lines, c, was)
    })
  })
}

/** A retouch, hung on the nearest of some lines; `was` is the node that it changes, between those beside it. */
export function retouchOn(lines: readonly Line[], change: Change, was?: Hanging['was']): Retouch {
  const by = hangingOn(change.at, lines)
  return { id: newId(), kind: 'retouch', ...change, ...(by && { by: { ...by, ...(was && { was }) } }) }
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
