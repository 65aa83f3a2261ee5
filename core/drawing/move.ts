import { mapPath } from '../geometry/path'
import type { Line, Shape, Vec } from './model'

/** The line moved by `d`, px; its pen trace and what is scraped of it go along. */
export function movedLine(line: Line, d: Vec): Line {
  const by = (p: Vec): Vec => ({ x: p.x + d.x, y: p.y + d.y })
  return {
    ...line,
    path: mapPath(line.path, by),
    ...(line.scrapes && { scrapes: line.scrapes.map((c) => mapPath(c, by)) }),
    trace: line.trace && { ...line.trace, samples: line.trace.samples.map((s) => ({ ...s, x: s.x + d.x, y: s.y + d.y })) },
  }
}

/** The shape moved by `d`, px. */
export const movedShape = (shape: Shape, d: Vec): Shape => ({
  ...shape,
  contours: shape.contours.map((c) => mapPath(c, (p) => ({ x: p.x + d.x, y: p.y + d.y }))),
})
