import type { Path } from '../geometry/path'
import type { Vec } from '../geometry/point'
import type { Amendment, CornerStyle } from './amendment'
import type { Fill } from './fill'
import type { Line } from './line'
import type { Sketch } from './sketch'

/** Closed contours, filled by the non-zero rule. `from` holds the ids of the lines it came from. */
export interface Shape {
  id: string
  contours: Path[]
  ink: string
  from: string[]
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
  /** Of closed forms that overlap, and about which nothing else was decided, the upper one in the stack lies in front. */
  frontsByOrder?: boolean
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
