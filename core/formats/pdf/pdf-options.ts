import type { Shape } from '../../model/model'

export interface PdfOptions {
  /** What is drawn, from the bottom to the top. */
  shapes: readonly Shape[]
  /** How far what is drawn goes on beyond the page, mm, 0..50. */
  bleed: number
  /** Marks at the corners where the page is cut. */
  marks: boolean
  /** A page for each ink, in black, each less what lies above it. */
  separate: boolean
  colours: 'screen' | 'print'
  /** px; of what is cut for separations. */
  tolerance: number
}
