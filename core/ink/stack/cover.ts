import type { Line } from '../../model/model'
import type { Path } from '../../geometry/path'

/** The region that a line covers: the inside of its path when it is closed and set to cover; null otherwise. */
export const coveredRegion = (line: Line): Path | null =>
  line.cover && line.path.closed && line.path.nodes.length > 1 ? line.path : null
