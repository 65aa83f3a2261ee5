import type { FrontsFound } from '~/workers/questions'
import type { Box } from '#core/geometry/bounds'
import type { PencilMap } from '#core/sketch/pencil-map'
import type { Quad } from '#core/sketch/perspective'
import type { ClingOptions } from '#core/sketch/settle'
import type { Drawing, Line, Shape, SketchLayer, TraceSample, Weight } from '#core/model/model'
import type { Path } from '#core/geometry/path'
import type { Vec } from '#core/geometry/point'
import type { Joints } from '#core/ink/open-ink'
import type { PieceHit } from '#core/ink/pieces/piece-at'
import type { RegionHit } from '#core/ink/session/region-hits'
import type { Rule } from '#core/repetition/images'
import type { TrimResult } from '#core/ink/pieces/trim-stage'
import type { LineHit } from '#core/outline/hit-line'
import type { Offer } from './offer'
import type { Preferences } from './preferences'
import type { Trial } from './tried-on'

/** A width stop of a line. */
export interface StopRef {
  line: string
  index: number
}

/** A stretch of a line, as shares of its length; of a loop it may go on past 1. */
export interface StretchRef {
  line: string
  from: number
  to: number
}

/** One connected shape of an ink. */
export interface IslandOfInk {
  /** The same as long as the island's outline begins where it did. */
  key: string
  shape: Shape
  /** The places of its contours in the shape, the outer one first; and they. */
  places: readonly number[]
  contours: readonly Path[]
  /** Of its outer contour. */
  box: Box
  nodes: number
  /** px squared */
  area: number
}

/** The corners of the paper in a photo, while they are being set. */
interface PaperInHand {
  /** On the page; null where there is no sketch. */
  readonly corners: Quad | null
  readonly isLaid: boolean
  lay(index: number, to: Vec): void
  putAway(): void
  /** Looks for them; tells where none are seen, if `asked`. */
  offer(asked: boolean): Promise<void>
  /** Sets the photo right by them. */
  keep(): Promise<void>
}

/** A node of a line. */
export interface NodeRef {
  line: string
  index: number
}

/** The drawing, and how it is changed. */
export interface Edits {
  drawing(): Drawing
  /** Shows a change while the hand is down; `finish` makes it a step, `drop` takes it back. */
  change(recipe: (draft: Drawing) => void): void
  /** As `change`, of the drawing that `next` makes: for what changes very many lines at once. */
  show(next: (from: Drawing) => Drawing): void
  finish(label: string): void
  drop(): void
  edit(label: string, recipe: (draft: Drawing) => void): void
  /** Id of the layer that takes new lines, or null after telling the person why none does. */
  layerForInk(): string | null
  /**
   * Where a new solid shape goes: a layer for fills, or a place in the stack above which a new one is made (`layer` null).
   * Null after telling the person why there is none.
   */
  layerForSolids(): { layer: string | null; above: number } | null
}

/** What is chosen. */
export interface Selection {
  selection(): readonly string[]
  /** `justLaid`: what is set goes on to be for the next line, until this one is asked for. */
  select(ids: readonly string[], justLaid?: boolean): void
  nodes(): readonly NodeRef[]
  chooseNodes(nodes: readonly NodeRef[]): void
  /** Chosen width stops of the chosen lines, the last chosen last. */
  stops(): readonly StopRef[]
  chooseStops(stops: readonly StopRef[]): void
  /** The stretch of a line that is marked to be weighed. */
  stretch(): StretchRef | null
  markStretch(stretch: StretchRef | null): void
  /** Chosen shapes of layers: blots and fills. */
  solids(): readonly string[]
  chooseSolids(ids: readonly string[]): void
  /** The line under the pointer, for lists to point out; null where there is none. */
  noteOver(line: string | null): void
}

/** What lies where. */
export interface Hits {
  /**
   * The line under a point, by its ink or within `reach` screen px of its path; locked and hidden layers are passed over, and
   * so is what lies behind what is in front of it, and what is snipped away unless asked for.
   */
  lineAt(p: Vec, reach: number, hiddenToo?: boolean): LineHit | null
  /** All lines under a point, as `lineAt` finds them, the one that it answers first. */
  linesAt(p: Vec, reach: number): LineHit[]
  /** All visible lines, from the bottom of the stack to the top, and where else they stand; `open`: those that a hand may take. */
  allLines(open: boolean): readonly Line[]
  /** A line as it is seen: what lies in front of it is snipped away; null where nothing of it shows. */
  asSeen(line: Line): Line | null
  /** The topmost blot or fill under a point; locked and hidden layers are passed over. */
  solidAt(p: Vec): Shape | null
  /** All blots and fills that can be edited. */
  allSolids(): readonly Shape[]
}

/** How the drawing is seen, and what is told about it. */
export interface View {
  zoom(): number
  say(text: string): void
  /** Shows weights that are tried on; null takes them off. */
  tryOn(trial: Trial | null): void
  /** Asks for the marks and the hint to be shown anew. */
  refresh(): void
  /** A place on a line (0..1) to point out on the weight graph. */
  pointOut(place: { line: string; at: number } | null): void
  /** Brings the keyboard to a field of the Strip. */
  askFor(field: 'width'): void
  /** Runs long work in short turns, tells of it and lets it be stopped; `done` hears the result unless newer work of this kind began. */
  inTurns<R>(what: string, work: Generator<number, R>, done: (result: R) => void): void
  /** Calls `step` every frame with the time since now, ms, until it answers false or the call that is answered stops it. */
  everyFrame(step: (ms: number) => boolean): () => void
}

/** What the next line gets, and what the hand chose. */
export interface NextLine {
  nextWeight(): Weight
  /** The ink that new lines and blots get. */
  nextInk(): string
  /** The weight that was copied last. */
  copiedWeight(): Weight | null
  copyWeight(weight: Weight): void
  preferences(): Readonly<Preferences>
  /** Keeps choices that the hand made on the canvas. */
  remember(choices: Partial<Preferences>): void
}

/** Inks and regions. */
export interface Fills {
  /** The ink that is poured; takes up another, or the next in the palette. */
  inkInHand(): string
  takeInk(id: string): void
  stepInk(by: 1 | -1): void
  /** The ink of the topmost shape at a point. */
  inkAt(p: Vec): string | null
  /** Ids of inks for fills: those that no line has. */
  palette(): readonly string[]
  /** Adds inks to begin with. */
  takeStarterInks(): void
  /** #rrggbb */
  colourOf(ink: string): string
  /** The region under a point as it would be poured; null on ink. */
  regionAt(p: Vec): Promise<RegionHit | null>
  /** Regions that no fill has, and which of them lie side by side. */
  emptyRegions(): Promise<{ regions: RegionHit[]; beside: number[][] }>
  /** What bridges the gaps. */
  bridges(): readonly Path[]
  /** Trims away what sticks into regions. */
  clearInside(regions: readonly RegionHit[]): Promise<void>
}

/** What lines become. */
export interface Shapes {
  /** The pieces of lines under a point, the front line's first. */
  piecesAt(p: Vec): Promise<PieceHit[]>
  /** What of other lines sticks out beyond lines, by no more than so many of their sizes. */
  beyond(fence: readonly string[], most: number): Promise<PieceHit[]>
  /** Where two ends come together, and where an end meets a line or goes past one. */
  joints(): Promise<Joints>
  /** Forms and where they overlap. */
  fronts(): Promise<FrontsFound>
  /** Tells the walk through overlaps what there is; which one is asked about. */
  noteFronts(found: FrontsFound): void
  frontAsked(): string | null
  /** Goes on to the next overlap or the one before. */
  askFront(by: 1 | -1): void
  /** Decides about the overlap that is asked about: which of its forms lies in front, or that both show; false where none is. */
  answerFront(which: 0 | 1 | 'both'): boolean
  /** Takes all guesses that are sure. */
  takeSureFronts(): void
  endFronts(): void
  /** The lines of the form that the hand took. */
  takeForm(lines: readonly string[]): void
  /** What each trim of the drawing takes away. */
  trims(): readonly TrimResult[]
  /** Islands of the shapes: all, the one under a point, the chosen ones. */
  allIslands(): readonly IslandOfInk[]
  islandAt(p: Vec): IslandOfInk | null
  chosenIslands(): readonly IslandOfInk[]
  chooseIslands(keys: readonly string[]): void
  /** Outlines as they were before they were simplified, while these are to be seen. */
  expanded(): readonly Path[]
}

/** Rules by which lines stand on the page more than once. */
export interface Copies {
  copyRules(): readonly Rule[]
  copyRuleInHand(): Rule | null
  takeCopyRule(id: string): void
  /** What a rule makes becomes lines of their own: all of it, or one standing, 1 the first besides what was drawn. */
  freeCopies(rule: string, standing?: number): void
}

/** The pencil beneath, and lines that are found in it. */
export interface Pencil {
  /** The pencil of the sketch in sight; null while there is none, or it is being read. */
  pencil(): PencilMap | null
  clinging(): ClingOptions
  /** A path as the pencil beneath draws it, from where it begins if that is to stay; the same one where Cling is off or there is none. */
  clung(path: Path, fromStart?: boolean): Path
  /** A path with some of its segments bent along the pencil beneath; the same one where Cling is off or there is none. */
  segmentsClung(path: Path, segments: readonly number[]): Path
  /** The pencil's crest that a point is drawn to; null where Cling is off or none is near. */
  crestAt(p: Vec): Vec | null
  /** The way along the pencil from one point to another, where one leads there. */
  pencilBetween(a: Vec, b: Vec): Vec[] | null
  /** Lines that were found in the sketch; those that are taken or swept away go. */
  proposals(): readonly Offer[]
  dropProposals(gone: ReadonlySet<Offer>): void
  /** Looks for lines in the sketch, or within a box of the page. */
  findProposals(box: readonly [Vec, Vec] | null): void
  /** How thick most pencil lines that were found are, px of the page. */
  usualThickness(): number
}

/** The sketch in hand. */
export interface Sketches {
  /** The layer of the sketch in hand; null where there is none. */
  sketchLayer(): SketchLayer | null
  chooseSketch(layer: string): void
  /** The corners of the paper in the sketch in hand, as they are offered or laid. */
  paper(): PaperInHand
}

/** The practice pen. */
export interface Trace {
  /** The samples of the trace that the practice pen plays, page px. */
  practiceTrace(): readonly TraceSample[] | null
}

/** All that instruments see of the workspace and may do to it; each names what it needs. */
export type Worktop = Edits & Selection & Hits & View & NextLine & Fills & Shapes & Copies & Pencil & Sketches & Trace
