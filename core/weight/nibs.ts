import type { Nib } from '../model/model'

/** A named way of drawing: the size, how far pressure thins it, and the shape of the point. */
export interface NamedNib {
  id: string
  name: string
  /** px */
  size: number
  /** By what share of its size the line thins at the least pressure, 0..1. */
  variation: number
  /** Short axis of the point as a share of its long one, 0.05..1. */
  roundness: number
  /** Angle of the long axis, degrees. */
  angle: number
}

/** The nibs that ship with the application; each can be tuned and put back to these values. */
export const NIBS: readonly NamedNib[] = [
  { id: 'hair', name: 'Hair', size: 1.5, variation: 0.4, roundness: 1, angle: 0 },
  { id: 'fine', name: 'Fine', size: 3, variation: 0.5, roundness: 1, angle: 0 },
  { id: 'middle', name: 'Middle', size: 6, variation: 0.6, roundness: 1, angle: 0 },
  { id: 'bold', name: 'Bold', size: 10, variation: 0.6, roundness: 1, angle: 0 },
  { id: 'marker', name: 'Marker', size: 12, variation: 0, roundness: 1, angle: 0 },
  { id: 'broad', name: 'Broad edge', size: 10, variation: 0.2, roundness: 0.25, angle: -40 },
]

/** The elliptical point of a nib; null for a round one, which is what a line has anyway. */
export const pointOf = ({ roundness, angle }: Pick<NamedNib, 'roundness' | 'angle'>): Nib | null =>
  roundness < 1 ? { width: 1, height: roundness, angle } : null

/** Past this share of variation a line stops looking drawn. */
export const MOST_CONTRAST = 2 / 3

/** How much wider the widest place is than the thinnest; Infinity where it thins to nothing. */
export const ratioOf = (variation: number): number => 1 / (1 - variation)
