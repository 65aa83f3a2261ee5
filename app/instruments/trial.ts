import type { LightRule, Line } from '#core/drawing/model'

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
}

/** `of` with its answers kept, so that an outline is expanded once. */
export function kept(of: (line: Line) => Line): (line: Line) => Line {
  const known = new WeakMap<Line, Line>()
  return (line) => {
    let tried = known.get(line)
    if (!tried) known.set(line, (tried = of(line)))
    return tried
  }
}
