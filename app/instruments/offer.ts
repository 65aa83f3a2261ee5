import type { Path } from '#core/geometry/path'
import type { Thickness } from '#core/sketch/thickness'

/** A line found in a sketch, px of the page. */
export interface Offer {
  path: Path
  /** 0..1 */
  confidence: number
  thickness: Thickness
}
