import type { Drawing, Line, Shape } from '../../model/model'
import type { Path } from '../../geometry/path'
import type { Vec } from '../../geometry/point'
import type { Patch } from '../../document/patch'
import type { Cubic } from '../../geometry/cubic'
import type { EndContact } from '../../relations/end-contacts'
import type { CornerPair } from '../ends/corner-stage'
import type { Ends } from '../ends/ends'
import type { InFrontOf } from '../front/as-seen'
import type { CastPart } from '../front/casts'
import type { Bounded, LitterLimits } from '../pieces/litter'
import type { Failure, Region } from '../outlines/outlines'
import type { PieceHit } from '../pieces/piece-at'
import type { PouredParts } from '../fills/poured-parts'
import type { Paper } from '../regions/regions'
import type { Code } from '../../recall/recall'
import type { Stack } from '../stack/stack'
import type { TrimResult } from '../pieces/trim-stage'

/** The shapes that a drawing's visible layers make, and what simplifying them did. */
export interface ShapesResult {
  shapes: Shape[]
  nodesBefore: number
  nodesAfter: number
  /** Measured, px. */
  deviation: number
  /**
   * How many retouches of outlines, tolerances of islands and decisions about forms wait because what they speak of is not
   * there; and which.
   */
  waiting: number
  waits: readonly string[]
  /** Items that have no ink, or none that is finished as it should be, because it cannot be worked out: each with a sentence. */
  failed: Failure[]
}

/** A drawing and what follows from it, kept as far as it stays the same. */
export interface InkSession {
  /** With all that stands on the page: mirrored and repeated lines, too. */
  readonly drawing: Drawing
  /** As the document has it. */
  readonly drawn: Drawing
  /** Follows an edit. */
  apply: (patches: readonly Patch[]) => void
  /** The ink of a line or solid, as the drawing's tolerance has it; what is asked for here is there when shapes are made. */
  outlineOf: (item: Line | Shape) => Region | Failure
  /** Another session, on the drawing as these patches make it; what was worked out of its lines is shared. */
  fork: (patches: readonly Patch[]) => InkSession
  /** By id of the visible lines that do not show all of their ink, what they show. Yields shares done 0..1, as `shapes` does. */
  clipped: () => Generator<number, ReadonlyMap<string, Region>>
  /** By id of the lines that are hidden in part, the closed paths of what lies in front of them. */
  inFront: () => Generator<number, InFrontOf>
  /** What forms throw on others. */
  casts: () => Generator<number, readonly CastPart[]>
  /** What each trim of the drawing came to, in their order. */
  trimmed: () => Generator<number, readonly TrimResult[]>
  /** Where two ends come together, and where an end meets a line or goes past one. */
  joints: () => Generator<number, Joints>
  /** The stack as it is, and what the ends of its lines do: what Proof looks at. */
  ground: () => Generator<number, { stack: Stack; ends: Ends }>
  /** Items that have no ink, or none that is finished as it should be, as far as it was looked at. */
  failed: () => readonly Failure[]
  /** The pieces of lines that lie under a point, px: that of the front line first. */
  piecesAt: (p: Vec) => Generator<number, PieceHit[]>
  /** What of other lines sticks out beyond those named, by no more than `most` of their sizes; locked layers stay as they are. */
  beyond: (fence: ReadonlySet<string>, most: number) => Generator<number, PieceHit[]>
  /** Loose ends and specks in regions; locked layers stay as they are. */
  litter: (regions: readonly Bounded[], limits: LitterLimits) => Generator<number, PieceHit[]>
  /** What was poured, and the shapes that it makes. */
  fills: () => Generator<number, PouredParts>
  /** The regions of paper between all ink, gaps of up to `gap` px bridged. */
  paper: (gap: number) => Generator<number, Paper>
  /** How a contour of the shapes was simplified; null for one that was retouched. */
  measureOf: (path: Path) => Measure | null
  /** Contours as they were before they were simplified, by those of the shapes. */
  originals: () => Generator<number, (path: Path) => readonly Cubic[] | null>
  /**
   * What `work` makes of the drawing as it is now. Where it was made of the same drawing before and kept, it is read instead,
   * for as long as nothing was done since the drawing was opened.
   */
  whole: <T>(what: string, code: Code<T>, work: () => Generator<number, T>) => Generator<number, T>
  /** Makes ready what the next edit goes on from, where what was asked for was read and not made. */
  ready: () => Generator<number, void>
  /** Gives what was made of the whole drawing as it is now to the recall, which has all else already. */
  keepWholes: () => void
  /** The shapes of the drawing as it is when this begins. Yields shares done 0..1; it can be dropped between two of them. */
  shapes: () => Generator<number, ShapesResult>
  /** As `shapes`, united within layers only: each belongs to one layer. What is seen is the same. */
  shapesInLayers: () => Generator<number, ShapesResult>
}

/** What became of a contour as it was simplified. */
export interface Measure {
  /** How many it had. */
  nodes: number
  /** Measured, px. */
  deviation: number
}

/** Where ends of lines have to do with others. */
export interface Joints {
  corners: CornerPair[]
  /** Ends that meet the body of a line, or go past one. */
  ends: EndContact[]
}
