import type { FigureShape } from '#core/geometry/figures'

/** Choices that stay with the person, across drawings. */
export interface Preferences {
  /** Size of the next line, px. */
  size: number
  /** Id of the shelf profile of the next line. */
  profile: string
  /** Steadiness of freehand lines, 0..1. */
  steadiness: number
  /** Whether a pen's pressure becomes the line's profile. */
  pressure: boolean
  /** How the pen's clicked points join: corners or as dragged, smoothly by themselves, or always straight. */
  penJoins: 'free' | 'smooth' | 'straight'
  /** Whether a bow goes on smoothly from the one before. */
  bowsJoin: boolean
  /** The figure that is drawn next. */
  figure: FigureShape
  /** What the last delivery was. */
  delivery: 'outlines' | 'lines' | 'picture'
  pictureScale: number
}

export const DEFAULTS: Preferences = {
  size: 6,
  profile: 'even',
  steadiness: 0.4,
  pressure: true,
  penJoins: 'free',
  bowsJoin: true,
  figure: { kind: 'ellipse', sides: 5, depth: 0.5, turns: 3 },
  delivery: 'outlines',
  pictureScale: 2,
}
