import { mapPath } from '../geometry/path'
import { onGrid } from './grid'
import { mappedTrace } from './line-trace'
import type { Line, Shape, Vec } from './model'

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
