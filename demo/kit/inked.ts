import type { Ink, Line } from '#core/model/model'
import type { Point } from './spline'

/** A drawing as its author laid it. */
export interface Inked {
  name: string
  layers: { name: string; lines: Line[] }[]
  /** Of things whose outlines are whole, which lies before which: the upper one, as they were laid. */
  fronts?: 'layers'
  /** All lines are mirrored at an upright axis here, px. */
  mirrored?: number
  /** Inks besides the black of the lines, and where they are poured; lit: with shade from the light. */
  inks?: Ink[]
  fills?: { ink: string; at: Point; lit?: boolean }[]
}
