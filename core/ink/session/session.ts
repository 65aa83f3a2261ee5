import { applyPatches } from '../../document/apply-patches'
import type { Patch } from '../../document/patch'
import type { Path } from '../../geometry/path'
import type { Vec } from '../../geometry/point'
import { perUsualPx, shapeSettingsOf } from '../../model/fineness'
import type { Drawing, Line, Shape } from '../../model/model'
import { openLines, seenLines } from '../../model/queries'
import type { Cubic } from '../../geometry/cubic'
import type { Code, Recall } from '../../recall/recall'
import { lastOf, lastWork } from '../../remembered'
import { withCopies } from '../../repetition/with-copies'
import { scaled } from '../../turns'
import { Ends } from '../ends/ends'
import { meetingOptions, Tucks } from '../ends/tuck-stage'
import type { InFrontOf } from '../front/as-seen'
import type { CastPart } from '../front/casts'
import { Casts } from '../front/casts'
import { Fronts } from '../front/fronts'
import { Fills } from '../fills/fill-stage'
import type { PouredParts } from '../fills/poured-parts'
import { NOTHING_POURED, partsOfFills } from '../fills/poured-parts'
import { tintsOf, withTints } from '../fills/tints'
import type { Failure, Region } from '../outlines/outlines'
import { Outlines } from '../outlines/outlines'
import { beyondFence } from '../pieces/fence'
import type { Bounded, LitterLimits } from '../pieces/litter'
import { litterIn } from '../pieces/litter'
import type { PieceHit } from '../pieces/piece-at'
import { piecesUnder } from '../pieces/piece-at'
import type { TrimResult } from '../pieces/trim-stage'
import { Trims } from '../pieces/trim-stage'
import { Papers } from '../regions/paper-stage'
import type { Paper } from '../regions/regions'
import { AllInk } from '../stack/all-ink'
import { byInkAndLayer } from '../stack/groups'
import type { Stack } from '../stack/stack'
import { stackOf } from '../stack/stack'
import type { InkSession, Joints, Measure, ShapesResult } from './ink-session'
import { ShapeStage } from './shape-stage'
import { decodedShapes, encodedShapes } from './shapes-code'
import { Unions } from './unions'
import { Wholes } from './wholes'

/** The share of the work that outlines are, as it is told. */
const OUTLINED = 0.5

/** What of a drawing its shapes go by. */
const shapedBy = ({ layers, settings, page, amendments, fills }: Drawing): readonly unknown[] => [
  layers,
  settings,
  page,
  amendments,
  fills,
]

/** The stages by which everything follows from a drawing, each remembered for as long as what goes into it is the same. */
export class Session implements InkSession {
  private readonly outlines: (tolerance: number) => Outlines
  private readonly trims = lastOf((tolerance: number) => new Trims(tolerance))
  private readonly tucks = lastOf((tolerance: number, perPx: number) => new Tucks(tolerance, perPx, this.recall))
  private readonly fronts = lastOf((perPx: number) => new Fronts(perPx))
  private readonly castStage = lastOf((tolerance: number) => new Casts(tolerance))
  private readonly untucked = lastOf((perPx: number) => new Ends(meetingOptions(perPx)))
  private readonly allInk: AllInk
  private readonly unions: Unions
  private readonly unionsInLayers: Unions
  private readonly papers = new Papers()
  private readonly pourer = new Fills()
  private readonly shapeStage: ShapeStage
  private readonly shapeStageInLayers: ShapeStage

  private readonly stackOf = lastWork(shapedBy, (drawing: Drawing) => {
    const { tolerance } = shapeSettingsOf(drawing)
    const perPx = perUsualPx(drawing.page)
    const tucks = this.tucksFor(drawing)
    const ends = tucks?.ends ?? this.untucked(perPx)
    return stackOf(
      drawing,
      this.outlines(tolerance),
      tucks,
      this.trims(tolerance),
      { fronts: this.fronts(perPx), casts: this.castStage(tolerance) },
      ends,
    )
  })

  private readonly pouredOn = lastWork(
    ({ stack, drawing }: { stack: Stack; drawing: Drawing }) => [stack, drawing.fills, drawing.settings, drawing.page],
    ({ drawing }) => this.pour(drawing),
  )

  /** The shapes, made here. */
  private readonly shaped = lastWork(shapedBy, (drawing: Drawing) => this.shape(drawing, this.unions, this.shapeStage))

  /** The shapes, made here or read. */
  private readonly shapesOf = lastWork(shapedBy, (drawing: Drawing) =>
    this.wholes.of('shapes', drawing, this.shapesCode, () => this.shaped(drawing)),
  )

  private readonly wholes: Wholes

  private readonly shapesCode: Code<ShapesResult> = {
    encode: (result) => encodedShapes(result, this.measureOf),
    decode: (numbers) => {
      const { result, measures } = decodedShapes(numbers)
      this.shapeStage.adopt(measures)
      return result
    },
    owner: () => null,
  }

  private readonly recall: Recall | null

  /** The drawing with all that stands on the page. */
  private now: Drawing

  /**
   * @param recall where what was worked out before is found, in another session or another life
   * @param known outlines of the drawing's lines that were worked out in this one, if any were
   * @param parts of how many parts the drawing is one, at least: the cells suit so many
   */
  constructor(
    private document: Drawing,
    {
      recall = null,
      known,
      parts = 0,
    }: { recall?: Recall | null; known?: Outlines | undefined; parts?: number | undefined } = {},
  ) {
    this.now = withCopies(document)
    this.recall = recall
    this.outlines = lastOf((tolerance) => (known?.tolerance === tolerance ? known : new Outlines(tolerance, recall)))
    this.wholes = new Wholes(recall, this.now)
    this.allInk = new AllInk(recall, parts)
    this.unions = new Unions(this.allInk, { recall, parts })
    this.unionsInLayers = new Unions(this.allInk, { recall, parts, keyOf: byInkAndLayer })
    this.shapeStage = new ShapeStage(recall)
    this.shapeStageInLayers = new ShapeStage(recall)
  }

  get drawn(): Drawing {
    return this.document
  }

  get drawing(): Drawing {
    return this.now
  }

  apply(patches: readonly Patch[]): void {
    this.document = applyPatches(this.document, patches)
    this.now = withCopies(this.document)
  }

  fork(patches: readonly Patch[]): InkSession {
    return new Session(applyPatches(this.document, patches), {
      recall: this.recall,
      known: this.outlines(shapeSettingsOf(this.now).tolerance),
    })
  }

  *clipped(): Generator<number, ReadonlyMap<string, Region>> {
    return (yield* this.stackOf(this.now)).clipped
  }

  *inFront(): Generator<number, InFrontOf> {
    return (yield* this.stackOf(this.now)).inFront
  }

  *casts(): Generator<number, readonly CastPart[]> {
    return (yield* this.stackOf(this.now)).casts
  }

  *trimmed(): Generator<number, readonly TrimResult[]> {
    return (yield* this.stackOf(this.now)).trims
  }

  *joints(): Generator<number, Joints> {
    const { corners, ends } = yield* this.stackOf(this.now)
    return { corners: [...corners], ends: ends() }
  }

  *ground(): Generator<number, { stack: Stack; ends: Ends }> {
    const drawing = this.now
    const stack = yield* this.stackOf(drawing)
    const tucks = this.tucksFor(drawing)
    if (tucks) return { stack, ends: tucks.ends }
    // Nothing is tucked, but what ends do is told all the same.
    const ends = this.untucked(perUsualPx(drawing.page))
    ends.follow(seenLines(drawing))
    return { stack, ends }
  }

  failed(): readonly Failure[] {
    return this.allInk.failed
  }

  *piecesAt(p: Vec): Generator<number, PieceHit[]> {
    return piecesUnder(p, yield* this.stackOf(this.now), shapeSettingsOf(this.now).tolerance)
  }

  *beyond(fence: ReadonlySet<string>, most: number): Generator<number, PieceHit[]> {
    const open = new Set(openLines(this.now))
    const { stack, ends } = yield* this.ground()
    return yield* beyondFence(
      stack,
      fence,
      most,
      (line) => open.has(line),
      (id) => ends.of(id),
      shapeSettingsOf(this.now).tolerance,
    )
  }

  *litter(regions: readonly Bounded[], limits: LitterLimits): Generator<number, PieceHit[]> {
    const { stack, ends } = yield* this.ground()
    return yield* litterIn(
      regions,
      limits,
      stack,
      openLines(this.now),
      (id) => ends.of(id),
      shapeSettingsOf(this.now).tolerance,
    )
  }

  *fills(): Generator<number, PouredParts> {
    const drawing = this.now
    if (!drawing.fills?.length) return NOTHING_POURED
    const stack = yield* scaled(this.stackOf(drawing), 0, OUTLINED)
    return yield* this.pouredOn({ stack, drawing })
  }

  *paper(gap: number): Generator<number, Paper> {
    const drawing = this.now
    const stack = yield* scaled(this.stackOf(drawing), 0, OUTLINED)
    const ink = yield* scaled(this.allInk.of(stack, drawing), OUTLINED, 1 - OUTLINED)
    return this.papers.of(ink.contours, stack, drawing, gap)
  }

  shapes(): Generator<number, ShapesResult> {
    return this.shapesOf(this.now)
  }

  shapesInLayers(): Generator<number, ShapesResult> {
    return this.shape(this.now, this.unionsInLayers, this.shapeStageInLayers)
  }

  *originals(): Generator<number, (path: Path) => readonly Cubic[] | null> {
    yield* this.shaped(this.now)
    return this.shapeStage.originalOf
  }

  whole<T>(what: string, code: Code<T>, work: () => Generator<number, T>): Generator<number, T> {
    return this.wholes.of(what, this.now, code, work)
  }

  *ready(): Generator<number, void> {
    yield* this.shaped(this.now)
  }

  keepWholes(): void {
    this.wholes.keep(this.now)
    this.tucksFor(this.now)?.ends.keep()
  }

  readonly measureOf = (path: Path): Measure | null => this.shapeStage.measureOf(path)

  readonly outlineOf = (item: Line | Shape): Region | Failure =>
    this.outlines(shapeSettingsOf(this.now).tolerance).of(item)

  private tucksFor(drawing: Drawing): Tucks | null {
    return drawing.settings.tuck === false
      ? null
      : this.tucks(shapeSettingsOf(drawing).tolerance, perUsualPx(drawing.page))
  }

  /** What was poured, and the shapes that it makes: grounds, fills, and the shades on them, bottom to top. */
  private *pour(drawing: Drawing): Generator<number, PouredParts> {
    const poured = yield* this.pourer.of(drawing, (gap) => this.paper(gap))
    return { poured, parts: partsOfFills(poured, drawing), tints: tintsOf(drawing, seenLines(drawing), poured) }
  }

  private *shape(drawing: Drawing, unions: Unions, stage: ShapeStage): Generator<number, ShapesResult> {
    const poured = yield* this.fills()
    const stack = yield* scaled(this.stackOf(drawing), 0, OUTLINED)
    const parts = [...poured.parts, ...withTints(stack.parts, poured.tints)]
    return stage.of(drawing, yield* scaled(unions.of(drawing, stack, parts), OUTLINED, 1 - OUTLINED))
  }
}
