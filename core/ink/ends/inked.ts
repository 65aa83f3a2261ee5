import type { Line, Shape } from '../../model/model'
import type { Cubic } from '../../geometry/cubic'
import type { Region } from '../outlines/outlines'

/** A line with its ink, all of it and what is seen of it behind others. */
export interface Inked {
  item: Line | Shape
  region: Region
  seen: Region
}

/** A line that another's end meets: as it is, and its ink as it is seen. */
export interface Neighbour {
  line: Line
  contours: readonly Cubic[][]
}
