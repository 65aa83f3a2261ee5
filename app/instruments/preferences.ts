import type { FigureShape } from '#core/geometry/figures'
import type { SnapKind } from '#core/geometry/snap'

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
  /** What points are drawn to while lines are laid and nodes are moved. */
  snaps: Record<SnapKind, boolean>
  /** Spacing of the grid, px. */
  gridSize: number
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
  snaps: { end: true, node: true, crossing: true, middle: false, tangent: false, line: true, grid: false },
  gridSize: 24,
  delivery: 'outlines',
  pictureScale: 2,
}
