import type { Vec } from '../geometry/point'

/** A picture under the ink: its content by sha-256, its place on the page in px, turned by `angle` degrees. */
export interface Sketch {
  id: string
  image: string
  x: number
  y: number
  width: number
  height: number
  angle: number
  /** How it is made clean; shown as it is when absent. */
  clean?: CleanSettings
  /** The corners of the paper in a picture that was taken at a slant, as shares of its width and height, clockwise from what is the left upper one. */
  corners?: [Vec, Vec, Vec, Vec]
  /** What is kept of the picture, set right, as shares of its width and height; all of it when absent. */
  crop?: Crop
  /** Seen from behind: left and right change places. */
  mirrored?: true
  /** It covers what lies beneath it; multiplied with it when absent. */
  plain?: true
}

/** A part of a picture, as shares of its width and height, 0..1. */
export interface Crop {
  x: number
  y: number
  width: number
  height: number
}

/** How a sketch is made clean. */
export interface CleanSettings {
  /** Light and shadow on the paper are divided away. */
  even: boolean
  /** As dark as the one against the paper is white, as the other as dark as can be: 0..1. */
  white: number
  black: number
  /** Above 1 faint pencil becomes stronger, below 1 weaker. */
  pencil: number
  /** Smaller specks go, px of a picture of 1,440 px; 0 keeps all. */
  specks: number
  /** #rrggbb; graphite when absent. */
  tint?: string
}
