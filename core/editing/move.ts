import { mapPath } from '../geometry/path'
import { onGrid } from '../document/grid'
import { mappedTrace } from '../model/line-trace'
import type { Line, Shape } from '../model/model'
import type { Vec } from '../geometry/point'

/** Less than half a step of the grid, px. */
const SAME = 4e-6

/** Moves by whole steps of the grid, so that the way back leads to the very place. */
function moving(d: Vec): (p: Vec) => Vec {
  const [x, y] = [onGrid(d.x), onGrid(d.y)]
  return (p) => ({ x: onGrid(p.x + x), y: onGrid(p.y + y) })
}

/** The line moved by `d`, px; its pen trace and what is scraped of it go along. */
export function movedLine(line: Line, d: Vec): Line {
  const by = moving(d)
  return {
    ...line,
    path: mapPath(line.path, by),
    ...(line.scrapes && { scrapes: line.scrapes.map((c) => mapPath(c, by)) }),
    trace: mappedTrace(line.trace, by),
  }
}

/** The shape moved by `d`, px. */
export const movedShape = (shape: Shape, d: Vec): Shape => ({
  ...shape,
  contours: shape.contours.map((c) => mapPath(c, moving(d))),
})

/** By how much a line was moved to become another with the same ink, px; null where it is not merely moved. */
export function shiftBetween(was: Line, is: Line): Vec | null {
  if (
    was.ink !== is.ink ||
    was.weight !== is.weight ||
    was.finish !== is.finish ||
    was.snips !== is.snips ||
    was.scrapes ||
    is.scrapes ||
    was.path === is.path
  )
    return null
  const [a, b] = [was.path.nodes, is.path.nodes]
  if (a.length !== b.length || was.path.closed !== is.path.closed || !a.length) return null
  const d = { x: onGrid(b[0]!.at.x - a[0]!.at.x), y: onGrid(b[0]!.at.y - a[0]!.at.y) }
  const moved = (p: Vec | null, q: Vec | null): boolean =>
    p && q ? Math.abs(q.x - p.x - d.x) < SAME && Math.abs(q.y - p.y - d.y) < SAME : p === q
  return a.every((n, i) => moved(n.at, b[i]!.at) && moved(n.in, b[i]!.in) && moved(n.out, b[i]!.out)) ? d : null
}
