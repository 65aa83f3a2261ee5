import type { Path } from '../geometry/path'
import type { Vec } from '../geometry/point'

/** A stretch of one side of a line, which bounds a region: shares 0..1 of its length, looking along it. */
export interface Hold {
  line: string
  side: 'left' | 'right'
  from: number
  to: number
}

/** A shape of shade or of light on a fill: it stays within the region as that changes. */
export interface Shade {
  id: string
  contours: Path[]
  /** How much darker (below 0) or lighter (above 0) than the fill, -1..1; of no account where it has an ink of its own. */
  tone: number
  ink?: string
}

/** Shade on the side away from the drawing's light, and light on the side towards it, as they follow from a fill's region. */
export interface LitFill {
  /** How far in from the edge, as a share 0..1 of the region's size. */
  depth: number
  /** 0 follows the edge, 1 turns gently. */
  softness: number
  /** Of the shade and of the light, 0..1; 0 leaves it out. */
  shade: number
  light: number
}

/**
 * What was asked for when an ink was poured: into the region about a place, onto all open ground, or over the whole page.
 * A region is known again by the sides of lines that bound it; by its place alone where no such line is left.
 */
export interface Fill {
  id: string
  ink: string
  where: 'region' | 'open' | 'page'
  /** px */
  at: Vec
  hold: Hold[]
  /** Gaps up to this were no hindrance, mm at the final size. */
  gap: number
  /** How far it runs beneath the ink about it, mm; to its middle when absent. */
  under?: number
  shades?: Shade[]
  lit?: LitFill
}
