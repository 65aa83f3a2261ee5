import type { Drawing, Line, Path, Shape, Vec } from '../drawing/model'
import type { Patch } from '../drawing/patch'
import { applyPatches } from '../drawing/apply-patches'
import { perUsualPx, shapeSettingsOf } from '../drawing/fineness'
import { openLines, seenLines } from '../drawing/queries'
import { scaled } from '../turns'
import type { Cubic } from '../geometry/cubic'
import { pathOfCubics } from '../geometry/path'
import { latticeOf } from '../shapes/lattice'
import { LatticeUnion } from '../shapes/lattice-union'
import { withRetouches } from '../shapes/retouch'
import type { LocallySimplified } from '../shapes/simplify-locally'
import { LocalSimplifier } from '../shapes/simplify-locally'
import { Fills } from './fills'
import type { PouredParts } from './poured-parts'
import { NOTHING_POURED, partsOfFills } from './poured-parts'
import type { Group } from './groups'
import { groupsOf } from './groups'
import type { Failure, Region } from './outlines'
import { Outlines } from './outlines'
import type { Stack } from './stack'
import { amended, stackOf } from './stack'
import type { PieceHit } from './piece-at'
import { piecesUnder } from './piece-at'
import { beyondFence } from './fence'
import type { Bounded, LitterLimits } from './litter'
import { litterIn } from './litter'
import type { TrimResult } from './trims'
import { Trims } from './trims'
import { tintsOf, withTints } from './tints'
import type { Paper } from './regions'
import { AllInk, cellsFor } from './all-ink'
import { Papers } from './papers'
import { OwnFineness } from './own-fineness'
import { meetingOptions, Tucks } from './tucks'
import { Ends } from './ends'
import type { InkSession, Joints, Measure, ShapesResult } from './ink-session'

export type * from './ink-session'

/** The share of the work that outlines are, as it is told. */
const OUTLINED = 0.5

/** Opens a drawing for whoever asks for what follows from it. However it came to its state, the answers are the same. */
export function openInk(drawing: Drawing): InkSession {
  return new Session(drawing)
}

/** What keeps the shape of one group. */
interface Stages {
  key: string
  union: LatticeUnion
  simplifier: LocalSimplifier
}

interface United {
  stack: Stack
  groups: Group[]
  contours: Cubic[][][]
}

class Session implements InkSession {
  private outlines: { tolerance: number; stage: Outlines } | null = null
  private tucks: { key: string; stage: Tucks } | null = null
  private untucked: { perPx: number; ends: Ends } | null = null
  private trims: { tolerance: number; stage: Trims } | null = null
  private stages = new Map<string, Stages>()
  /** What simplifying gave for regions that stand alone. */
  private alone: { key: string; known: WeakMap<Region, LocallySimplified> } | null = null
  private readonly paths = new WeakMap<readonly Cubic[], Path>()
  private readonly measures = new WeakMap<Path, Measure>()
  private stack: { drawing: Drawing; result: Stack } | null = null
  private united: { drawing: Drawing; result: United } | null = null
  private readonly allInk = new AllInk()
  private readonly pourer = new Fills()
  private pouredLast: { stack: Stack; drawing: Drawing; result: PouredParts } | null = null
  private readonly papers = new Papers()
  private last: { drawing: Drawing; result: ShapesResult } | null = null

  constructor(private now: Drawing) {}

  get drawing(): Drawing {
    return this.now
  }

  apply(patches: readonly Patch[]): void {
    this.now = applyPatches(this.now, patches)
  }

  fork(patches: readonly Patch[]): InkSession {
    const other = new Session(applyPatches(this.now, patches))
    other.outlines = this.outlines
    return other
  }

  *less(): Generator<number, ReadonlyMap<string, Region>> {
    return (yield* this.stackNow()).less
  }

  *trimmed(): Generator<number, readonly TrimResult[]> {
    return (yield* this.stackNow()).trims
  }

  *joints(): Generator<number, Joints> {
    const { corners, ends } = yield* this.stackNow()
    return { corners: [...corners], ends: ends() }
  }

  *ground(): Generator<number, { stack: Stack; ends: Ends }> {
    const stack = yield* this.stackNow()
    const tucks = this.tucksNow()
    if (tucks) return { stack, ends: tucks.ends }
    // Nothing is tucked, but what ends do is told all the same.
    const perPx = perUsualPx(this.now.page)
    if (this.untucked?.perPx !== perPx) this.untucked = { perPx, ends: new Ends(meetingOptions(perPx)) }
    this.untucked.ends.follow(seenLines(this.now))
    return { stack, ends: this.untucked.ends }
  }

  *piecesAt(p: Vec): Generator<number, PieceHit[]> {
    return piecesUnder(p, yield* this.stackNow(), shapeSettingsOf(this.now).tolerance)
  }

  *beyond(fence: ReadonlySet<string>, most: number): Generator<number, PieceHit[]> {
    const open = new Set(openLines(this.now))
    const { stack, ends } = yield* this.ground()
    return yield* beyondFence(stack, fence, most, (line) => open.has(line), (id) => ends.of(id), shapeSettingsOf(this.now).tolerance)
  }

  *litter(regions: readonly Bounded[], limits: LitterLimits): Generator<number, PieceHit[]> {
    const { stack, ends } = yield* this.ground()
    return yield* litterIn(regions, limits, stack, openLines(this.now), (id) => ends.of(id), shapeSettingsOf(this.now).tolerance)
  }

  private *stackNow(): Generator<number, Stack> {
    const drawing = this.now
    if (this.stack && isSame(this.stack.drawing, drawing)) return this.stack.result
    const result = yield* stackOf(drawing, this.outlinesNow(), this.tucksNow(), this.trimsNow())
    this.stack = { drawing, result }
    return result
  }

  /** The groups of a drawing's parts, and the contours of each, united where that is asked for. */
  private *unitedNow(): Generator<number, United> {
    const drawing = this.now
    if (this.united && isSame(this.united.drawing, drawing)) return this.united.result
    const { unite } = shapeSettingsOf(drawing)
    const poured = yield* this.pouredNow()
    const stack = yield* scaled(this.stackNow(), 0, OUTLINED)
    const parts = [...poured.parts, ...withTints(stack.parts, poured.tints)]
    const groups = unite ? groupsOf(parts) : parts.map((p): Group => ({ id: 'path' in p.item ? `${p.item.id}:shape` : p.item.id, ink: p.item.ink, parts: [p] }))
    if (unite) this.keepStagesOf(groups, drawing, parts.length)
    const contours: Cubic[][][] = []
    for (const [i, group] of groups.entries()) {
      const made = unite ? this.unionOf(group, stack) : null
      const from = OUTLINED + ((1 - OUTLINED) * i) / groups.length
      contours.push(made ? yield* scaled(made, from, (1 - OUTLINED) / groups.length) : [...group.parts[0]!.region.contours])
    }
    const result = { stack, groups, contours }
    this.united = { drawing, result }
    return result
  }

  /** The union of a group; that of all ink, where it holds just that. */
  private unionOf({ id, parts }: Group, stack: Stack): Generator<number, Cubic[][]> {
    const isAll = parts.length === stack.parts.length && parts.every((p, i) => p.region === stack.parts[i]!.region)
    return isAll ? this.allInk.of(stack, this.now) : this.stages.get(id)!.union.of(parts.flatMap((p) => p.region.contours))
  }

  /** All ink as one: united contours, whatever their inks. */
  private *inkNow(): Generator<number, Cubic[][]> {
    const stack = yield* scaled(this.stackNow(), 0, OUTLINED)
    return yield* scaled(this.allInk.of(stack, this.now), OUTLINED, 1 - OUTLINED)
  }

  /** What was poured, and the shapes that it makes: grounds, fills, and the shades on them, bottom to top. */
  private *pouredNow(): Generator<number, PouredParts> {
    const drawing = this.now
    if (!drawing.fills?.length) return NOTHING_POURED
    const stack = yield* scaled(this.stackNow(), 0, OUTLINED)
    const was = this.pouredLast
    if (was?.stack === stack && was.drawing.fills === drawing.fills && was.drawing.settings === drawing.settings && was.drawing.page === drawing.page) return was.result
    const poured = yield* this.pourer.of(drawing, (gap) => this.paper(gap))
    const result = { poured, parts: partsOfFills(poured, drawing), tints: tintsOf(drawing, seenLines(drawing), poured) }
    this.pouredLast = { stack, drawing, result }
    return result
  }

  fills(): Generator<number, PouredParts> {
    return this.pouredNow()
  }

  *paper(gap: number): Generator<number, Paper> {
    const ink = yield* this.inkNow()
    return this.papers.of(ink, this.stack!.result, this.now, gap)
  }

  *shapes(): Generator<number, ShapesResult> {
    const drawing = this.now
    if (this.last && isSame(this.last.drawing, drawing)) return this.last.result
    const { unite } = shapeSettingsOf(drawing)
    const { stack: { failed }, groups, contours: united } = yield* this.unitedNow()
    const result: ShapesResult = { shapes: [], nodesBefore: 0, nodesAfter: 0, deviation: 0, waiting: 0, waits: [], failed }
    const own = new OwnFineness(drawing)
    for (const [i, group] of groups.entries()) {
      const stages = this.stages.get(group.id)
      const contours = united[i]!
      const items = group.parts.flatMap(({ item }) => ('path' in item ? [item.id] : item.from))
      const tolerances = own.of(contours, new Set(items))
      const slim = unite ? stages!.simplifier.of(contours, tolerances) : this.simplifiedAlone(group.parts[0]!.region, tolerances)
      result.nodesBefore += slim.nodesBefore
      result.nodesAfter += slim.nodesAfter
      result.deviation = Math.max(result.deviation, slim.deviation)
      const paths = slim.contours.map((c, k) => this.pathOf(c, contours[k]!, slim.deviations[k]!))
      if (paths.length) result.shapes.push({ id: group.id, contours: paths, ink: group.ink, from: items })
    }
    const answer = retouched(result, drawing, own.waits())
    this.last = { drawing, result: answer }
    return answer
  }

  readonly measureOf = (path: Path): Measure | null => this.measures.get(path) ?? null

  readonly outlineOf = (item: Line | Shape): Region | Failure => this.outlinesNow().of(item)

  private outlinesNow(): Outlines {
    const { tolerance } = shapeSettingsOf(this.now)
    if (this.outlines?.tolerance !== tolerance) this.outlines = { tolerance, stage: new Outlines(tolerance) }
    return this.outlines.stage
  }

  private trimsNow(): Trims {
    const { tolerance } = shapeSettingsOf(this.now)
    if (this.trims?.tolerance !== tolerance) this.trims = { tolerance, stage: new Trims(tolerance) }
    return this.trims.stage
  }

  private tucksNow(): Tucks | null {
    const { page, settings } = this.now
    if (settings.tuck === false) return null
    const { tolerance } = shapeSettingsOf(this.now)
    const key = `${tolerance} ${perUsualPx(page)}`
    if (this.tucks?.key !== key) this.tucks = { key, stage: new Tucks(tolerance, perUsualPx(page)) }
    return this.tucks.stage
  }

  /** The stages of each group, its union on the lattice that suits the page and the number of parts. */
  private keepStagesOf(groups: readonly Group[], { page, settings }: Drawing, parts: number): void {
    const { tolerance, simplify, corner } = shapeSettingsOf({ page, settings })
    const size = cellsFor(page, parts)
    const key = `${size} ${tolerance} ${simplify} ${corner}`
    const before = this.stages
    this.stages = new Map(
      groups.map(({ id }) => {
        const known = before.get(id)
        return [id, known?.key === key ? known : { key, union: new LatticeUnion(latticeOf(size), tolerance), simplifier: new LocalSimplifier(simplify, radians(corner)) }]
      }),
    )
  }

  private simplifiedAlone(region: Region, own: ReadonlyMap<readonly Cubic[], number> | undefined): LocallySimplified {
    const { simplify, corner } = shapeSettingsOf(this.now)
    const simplifier = (): LocalSimplifier => new LocalSimplifier(simplify, radians(corner))
    if (own) return simplifier().of(region.contours, own)
    const key = `${simplify} ${corner}`
    if (this.alone?.key !== key) this.alone = { key, known: new WeakMap() }
    let slim = this.alone.known.get(region)
    if (!slim) this.alone.known.set(region, (slim = simplifier().of(region.contours)))
    return slim
  }

  /** A contour as a path, and what it was before it was simplified. */
  private pathOf(contour: readonly Cubic[], before: readonly Cubic[], deviation: number): Path {
    let path = this.paths.get(contour)
    if (!path) {
      this.paths.set(contour, (path = pathOfCubics(contour, true, 1e-6)))
      this.measures.set(path, { before, deviation })
    }
    return path
  }
}

/** Whether shapes can differ between two states of a drawing. */
const isSame = (a: Drawing, b: Drawing): boolean => a === b || (a.layers === b.layers && a.settings === b.settings && a.page === b.page && a.amendments === b.amendments && a.fills === b.fills)

/** The angle at which a joint is a corner. */
const radians = (degrees: number | undefined): number | undefined => degrees && (degrees * Math.PI) / 180

/** Shapes with the retouches of a drawing; `waits` are the amendments that found no place before. */
function retouched(result: ShapesResult, drawing: Drawing, waits: readonly string[]): ShapesResult {
  const retouches = amended(drawing, 'retouch')
  if (!retouches.length) return { ...result, waiting: waits.length, waits }
  const put = withRetouches(result.shapes, retouches, shapeSettingsOf(drawing).tolerance)
  const nodesAfter = put.shapes.reduce((n, s) => n + s.contours.reduce((m, c) => m + c.nodes.length, 0), 0)
  const all = [...waits, ...put.waits.map((r) => r.id)]
  return { ...result, shapes: put.shapes, nodesAfter, waiting: all.length, waits: all }
}
