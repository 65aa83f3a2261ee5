import type { Vec } from '../geometry/point'
import type { Amendment, CornerStyle } from './amendment'
import type { Fill } from './fill'

export type * from './amendment'
export type * from './fill'

export type { Vec }

/** Handles are absolute points; null is a retracted handle. */
export interface PathNode {
  at: Vec
  in: Vec | null
  out: Vec | null
  joint: 'corner' | 'smooth'
}

export interface Path {
  nodes: PathNode[]
  closed: boolean
}

/** `at` is 0..1 of arc length; `left` and `right` are half-widths as multiples of size / 2, looking along the line. */
export interface WidthStop {
  at: number
  left: number
  right: number
  sharp?: boolean
}

export type TaperEase = 'straight' | 'round' | 'needle'

/** `tip` is 0..1 of the width that the profile gives at the end. */
export interface Taper {
  length: number
  unit: 'px' | '%'
  tip: number
  ease: TaperEase
}

/** Ellipse axes as multiples of size; angle in degrees. */
export interface Nib {
  width: number
  height: number
  angle: number
}

export interface Weight {
  size: number
  stops: WidthStop[]
  start: Taper | null
  end: Taper | null
  nib: Nib | null
  /** Set by hand: rules leave it alone unless asked. */
  pinned: boolean
  /** The profile without the light, where the stops are those under a light. */
  unlit?: WidthStop[]
}

export type Cap = 'butt' | 'round' | 'square'
export type Join = 'miter' | 'round' | 'bevel'
export type Align = 'centre' | 'left' | 'right'

/** An unevenness of both edges: how far they swing and how long a swing is, px; the same seed gives the same edge. */
export interface Rough {
  amount: number
  grain: number
  seed: number
}

export interface Finish {
  startCap: Cap
  endCap: Cap
  join: Join
  miterLimit: number
  align: Align
  dash: number[]
  rough?: Rough
}

export interface TraceSample {
  x: number
  y: number
  /** Milliseconds from the first sample. */
  t: number
  /** 0..1 */
  pressure: number
  tiltX?: number
  tiltY?: number
}

/** How a trace becomes a line: its path by steadiness and squaring up, its width by pressure. All of it can be changed later. */
export interface PenTrace {
  samples: TraceSample[]
  device: 'pen' | 'mouse' | 'touch' | 'practice'
  /** 0 as drawn .. 1 very steady. */
  steadiness: number
  /** Exponent of the pressure curve; 1 is even. */
  response: number
  /** Pressure 0..1 up to which the line is thinnest, and from which it is as wide as its size; 0 and 1 when absent. */
  least?: number
  most?: number
  /** By what share of its size the line thins where it is thinnest, 0..1. */
  variation?: number
  /** Width from the speed of the hand, where the device has no pressure: the slower, the wider. */
  fromSpeed?: boolean
  /** Gentle random variation of the width, as a share of the size, 0..1. */
  unevenness?: number
  /** How far the profile may lie from the widths that pressure asks for, as a share of the size. */
  widthTolerance?: number
  /** Near-straight runs are straight, and turns are corners. */
  squared?: boolean
  /** Screen px a page px when it was drawn, 1 when absent: what was drawn from nearer has finer detail. */
  zoom?: number
}

/**
 * A pen trace whose samples are kept apart, once, by the hash of their JSON; where they lie on the page, which part of
 * them it is (shares 0..1 of their length) and whether they go the other way.
 */
export interface KeptTrace extends Omit<PenTrace, 'samples'> {
  /** sha-256, hexadecimal */
  of: string
  /** How many samples. */
  count: number
  /** From the samples to the page, as in SVG. */
  at: [number, number, number, number, number, number]
  part?: [from: number, to: number]
  reversed?: true
}

/**
 * A hidden stretch of a line, as fractions 0..1 of its arc length; on a closed line, from > to goes round by way of its
 * first node. A bound at a crossing follows that crossing when either line is edited.
 */
export interface Snip {
  from: number
  to: number
  /** Ids of the lines whose crossings are the bounds; the line's own where it crosses itself; none at its ends. */
  fromBy?: string
  toBy?: string
  /** A crossing that bounds it is gone: it hides nothing until the lines cross again. */
  idle?: boolean
}

/**
 * An end shows past what it comes to, keeps within it even where it goes past it, or lies beneath it: then it does not
 * show over it either.
 */
export type TuckChoice = 'out' | 'in' | 'under'

export interface Line {
  id: string
  path: Path
  weight: Weight
  finish: Finish
  /** Id of an ink. */
  ink: string
  /** With its samples where it is fresh or comes from a file; a drawing that is stored holds kept ones. */
  trace: PenTrace | KeptTrace | null
  snips: Snip[]
  cover: boolean
  /** What the person decided about its ends; an end without such keeps within what it meets. */
  tuck?: Partial<Record<'first' | 'last', TuckChoice>>
  /** Ids of lines over which its ends lie: they keep within others that they meet, not within these. */
  over?: Partial<Record<'first' | 'last', string[]>>
  /** Closed contours in which its ink is scraped away. */
  scrapes?: Path[]
  /** Which side is the outside of what it bounds, where the person said so. */
  outside?: 'left' | 'right'
  /** Lines with the same word here unite with each other, and with nothing else: a figure in front of another. */
  apart?: string
  /** It has a darker (above 0) or lighter tone of the fill that it bounds, -1..1; 0 keeps its own ink whatever the drawing's lines have. */
  tint?: number
}

/** Closed contours, filled by the non-zero rule. `from` holds the ids of the lines it came from. */
export interface Shape {
  id: string
  contours: Path[]
  ink: string
  from: string[]
}

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

interface LayerBase {
  id: string
  name: string
  visible: boolean
  locked: boolean
  /** 0..1 */
  opacity: number
}

export type SketchLayer = LayerBase & { kind: 'sketch'; items: Sketch[] }
export type LinesLayer = LayerBase & { kind: 'lines'; items: Line[] }
export type ShapesLayer = LayerBase & { kind: 'shapes' | 'fills'; items: Shape[] }
export type Layer = SketchLayer | LinesLayer | ShapesLayer

export interface Ink {
  id: string
  name: string
  /** #rrggbb */
  colour: string
  /** How it is printed; as its colour has it when absent. */
  print?: PrintInk
}

/** Percentages of cyan, magenta, yellow and black, 0..100. */
export interface PrintInk {
  c: number
  m: number
  y: number
  k: number
}

export interface Page {
  width: number
  height: number
  unit: 'px' | 'mm'
  pxPerMm: number
}

/** How lines become shapes; the shapes themselves are always recomputed from the lines. */
export interface ShapeSettings {
  unite: boolean
  /** How far an expanded outline may lie from the true ink, px of the usual page, whose longer side is 720 px. */
  tolerance: number
  /** How far a simplified outline may lie from the expanded one, px of the usual page; 0 leaves it alone. */
  simplify: number
  /** Joints of outlines that turn by more than so many degrees are corners and stay; 14 when absent. */
  corner?: number
}

/**
 * A light over the drawing: edges that face it are thin, edges away from it thick. `at` is in page px; strength 0..1;
 * softness 0 passes at once from thin to thick, 1 gently. `live` follows later edits.
 */
export interface LightRule {
  at: Vec
  strength: number
  softness: number
  live: boolean
}

export interface Settings {
  shapes: ShapeSettings
  /** Ends keep within what they meet; on when absent. */
  tuck?: boolean
  /** How corners are finished about which nothing was decided; as their caps are when absent. */
  corner?: Exclude<CornerStyle, 'crossing' | 'tucked'>
  light?: LightRule
  /** Lines about which nothing else is said have a darker tone of the fill that they bound, 0..1; none when absent. */
  tint?: number
  /** From where on Proof finds something, where that is not as usual: mm at the final size, and times. */
  proof?: { thin?: number; gap?: number; contrast?: number; speck?: number; sliver?: number; open?: number }
}

/** Layers are listed from the bottom of the stack to the top. */
export interface Drawing {
  id: string
  name: string
  page: Page
  layers: Layer[]
  inks: Ink[]
  settings: Settings
  amendments?: Amendment[]
  /** In the order in which they were poured; of two in one region the larger one holds. */
  fills?: Fill[]
}
