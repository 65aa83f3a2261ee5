import type { LightRule, Line } from '#core/model/model'

/** Weights that are tried on: they show on the canvas, and the drawing stays as it is until they are accepted. */
export interface Trial {
  /** How a line would be; the same object each time it is asked for the same line. */
  of: (line: Line) => Line
  /** What would happen, in words. */
  summary: string
  /** The light that is tried, if it is one. */
  light?: LightRule
  /** Whether there is anything to accept. */
  changes: boolean
  accept: () => void
  drop: () => void
  /** Looks at more than it does now. */
  wider?: { title: string; run: () => void }
}
