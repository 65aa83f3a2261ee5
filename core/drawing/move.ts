import { mapPath } from '../geometry/path'
import type { Line, Vec } from './model'

/** The line moved by `d`, px; its pen trace goes along. */
export function movedLine(line: Line, d: Vec): Line {
  return {
    ...line,
    path: mapPath(line.path, (p) => ({ x: p.x + d.x, y: p.y + d.y })),
    trace: line.trace && { ...line.trace, samples: line.trace.samples.map((s) => ({ ...s, x: s.x + d.x, y: s.y + d.y })) },
  }
}
