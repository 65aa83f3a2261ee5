import { QUESTIONS } from '~/workers/questions'
import { evenWeight, newDrawing, newLine, newLinesLayer } from '#core/model/create'
import { editBetween, makeEdit, shownAs } from '#core/document/edits'
import type { Drawing, Line, TraceSample, Weight } from '#core/model/model'
import type { Path } from '#core/geometry/path'
import type { Vec } from '#core/geometry/point'
import { openLines, openSolids, seenLines } from '#core/model/queries'
import { linesUnder, solidUnder } from '#core/outline/hit-line'
import type { Offer } from '~/instruments/offer'
import { rulesOf } from '#core/repetition/images'
import { setFree } from '#core/repetition/set-free'
import { asSeen, isBehind, isUnseen } from '#core/ink/front/as-seen'
import { openInk } from '#core/ink/open-ink'
import { emptyRegions, regionHitAt } from '#core/ink/session/region-hits'
import { wayAlongPencil } from '#core/sketch/along-pencil'
import type { PencilMap } from '#core/sketch/pencil-map'
import { segmentsAlong } from '#core/sketch/segment-along'
import { settled } from '#core/sketch/settle'
import { atOnce } from '#core/turns'
import type { MarkRef } from '~/canvas/marks'
import { shapesLayers, sketchLayerInHand } from '#core/model/find'
import type { Hand, Instrument } from '~/instruments/instrument'
import type { StopRef, StretchRef, Worktop } from '~/instruments/worktop'
import type { Preferences } from '~/instruments/preferences'
import type { Trial } from '~/instruments/tried-on'
import { DEFAULTS } from '~/instruments/preferences'
import { expectExact } from './exact'
import { pairs } from './paths'

export const straightPath = (a: Vec, b: Vec): Path => ({
  nodes: [a, b].map((at) => ({ at, in: null, out: null, joint: 'corner' as const })),
  closed: false,
})

/** A worktop without a browser: a drawing of one layer, and a record of what instruments did. Every edit must have its exact inverse. */
export class TestWorktop implements Worktop {
  now: Drawing
  chosen: string[] = []
  chosenNodes: { line: string; index: number }[] = []
  chosenStops: StopRef[] = []
  labels: string[] = []
  said: string[] = []
  locked = false
  wants: Preferences = structuredClone(DEFAULTS)
  private base: Drawing | null = null

  constructor(lines: Line[] = []) {
    this.now = newDrawing('Test', { layers: [newLinesLayer('Lines', lines)] })
  }

  get lines(): Line[] {
    return this.now.layers[0]!.items as Line[]
  }

  drawing = () => this.now
  magnified = 1
  zoom = () => this.magnified
  selection = () => this.chosen
  select = (ids: readonly string[]) => void (this.chosen = [...ids])
  nodes = () => this.chosenNodes
  chooseNodes = (nodes: readonly { line: string; index: number }[]) => void (this.chosenNodes = [...nodes])
  stops = () => this.chosenStops
  chooseStops = (stops: readonly StopRef[]) => void (this.chosenStops = [...stops])
  marked: StretchRef | null = null
  stretch = () => this.marked
  markStretch = (stretch: StretchRef | null) => void (this.marked = stretch)
  asked: string | null = null
  sketched: PencilMap | null = null
  sketchInHand: string | null = null
  pencil = () => this.sketched
  clinging = () => ({ reach: 12 / this.magnified, strength: 1 })
  clung = (path: Path, fromStart?: boolean) =>
    this.sketched ? settled(path, this.sketched, { ...this.clinging(), fromStart }) : path
  crestAt = (p: Vec) => this.sketched?.crestNear(p, 12 / this.magnified) ?? null
  segmentsClung = (path: Path, segments: readonly number[]) =>
    this.sketched ? segmentsAlong(path, segments, this.sketched, this.clinging()) : path
  pencilBetween = (a: Vec, b: Vec) => this.sketched && wayAlongPencil(a, b, this.sketched)
  askFor = (field: 'width') => void (this.asked = field)

  show = (next: (from: Drawing) => Drawing) => {
    this.base ??= this.now
    this.now = shownAs(this.base, next(this.base))
  }

  change = (recipe: (draft: Drawing) => void) => {
    this.base ??= this.now
    this.now = makeEdit(this.base, '', recipe)?.drawing ?? this.base
  }

  finish = (label: string) => {
    if (this.base && this.base !== this.now) {
      this.labels.push(label)
      const made = editBetween(this.base, this.now, label)
      if (made) expectExact(this.base, made, this.now)
    }
    this.base = null
  }

  drop = () => {
    if (this.base) this.now = this.base
    this.base = null
  }

  edit = (label: string, recipe: (draft: Drawing) => void) => {
    const made = makeEdit(this.now, label, recipe)
    if (made) expectExact(this.now, made.edit, made.drawing)
    this.now = made?.drawing ?? this.now
    this.labels.push(label)
  }

  layerForInk = () => (this.locked ? null : this.now.layers[0]!.id)
  layerForSolids = () => (this.locked ? null : { layer: shapesLayers(this.now)[0]?.id ?? null, above: 0 })
  copied: Weight | null = null
  copiedWeight = () => this.copied
  copyWeight = (weight: Weight) => void (this.copied = weight)
  nextWeight = () => evenWeight(6)
  preferences = () => this.wants
  remember = (choices: Partial<Preferences>) => void Object.assign(this.wants, choices)

  linesAt = (p: Vec, reach: number, hiddenToo = false) =>
    linesUnder(openLines(this.now), p, reach / this.magnified, hiddenToo).filter(
      (hit) => !isBehind(hit.point, this.inFront().get(hit.line.id)),
    )
  lineAt = (p: Vec, reach: number, hiddenToo = false) => this.linesAt(p, reach, hiddenToo)[0] ?? null
  allLines = (open: boolean) => (open ? openLines : seenLines)(this.now)
  private inFront = () => atOnce(openInk(this.now).inFront())
  asSeen = (line: Line) => {
    const seen = asSeen(line, this.inFront().get(line.id))
    return isUnseen(seen) ? null : seen
  }
  over: string | null = null
  chosenSolids: string[] = []
  solids = () => this.chosenSolids
  noteOver = (line: string | null) => void (this.over = line)
  chooseSolids = (ids: readonly string[]) => void (this.chosenSolids = [...ids])
  allSolids = () => openSolids(this.now)
  solidAt = (p: Vec) => solidUnder(openSolids(this.now), p)
  piecesAt = (p: Vec) => Promise.resolve(atOnce(openInk(this.now).piecesAt(p)))
  beyond = (fence: readonly string[], most: number) =>
    Promise.resolve(atOnce(openInk(this.now).beyond(new Set(fence), most)))
  fronts = () => Promise.resolve(atOnce(QUESTIONS.fronts.work(openInk(this.now))))
  noteFronts = () => undefined
  frontAsked = () => null
  askFront = () => undefined
  answerFront = () => false
  takeSureFronts = () => undefined
  endFronts = () => undefined
  takeForm = () => undefined
  private ruleTaken: string | null = null
  copyRules = () => rulesOf(this.now)
  copyRuleInHand = () => this.copyRules().find((r) => r.id === this.ruleTaken) ?? this.copyRules().at(-1) ?? null
  takeCopyRule = (id: string) => void (this.ruleTaken = id)
  freeCopies = (rule: string, standing?: number) => {
    const next = setFree(
      this.now,
      this.copyRules().find((r) => r.id === rule)!,
      standing,
    )
    this.edit('Set free', (draft) => void Object.assign(draft, next))
  }
  joints = () => Promise.resolve(atOnce(openInk(this.now).joints()))
  trims = () => atOnce(openInk(this.now).trimmed())
  ink = 'black'
  nextInk = () => 'black'
  inkInHand = () => this.ink
  takeInk = (id: string) => void (this.ink = id)
  stepInk = () => undefined
  inkAt = () => null
  palette = () => this.now.inks.slice(1).map((i) => i.id)
  takeStarterInks = () => undefined
  colourOf = () => '#000000'
  regionAt = (p: Vec) => Promise.resolve(atOnce(regionHitAt(openInk(this.now), p, 0.3 * this.now.page.pxPerMm)))
  emptyRegions = () => Promise.resolve(atOnce(emptyRegions(openInk(this.now), 0.3 * this.now.page.pxPerMm, 1)))
  bridges = () => []
  clearInside = () => Promise.resolve()
  offers: Offer[] = []
  sketchLayer = () => sketchLayerInHand(this.now, this.sketchInHand)
  chooseSketch = (layer: string) => void (this.sketchInHand = layer)
  paper = (): ReturnType<Worktop['paper']> => {
    throw new Error('no paper here')
  }
  proposals = () => this.offers
  boxes: (readonly [Vec, Vec] | null)[] = []
  findProposals = (box: readonly [Vec, Vec] | null) => void this.boxes.push(box)
  usualThickness = () => 2
  dropProposals = (gone: ReadonlySet<Offer>) => void (this.offers = this.offers.filter((o) => !gone.has(o)))
  allIslands = () => []
  islandAt = () => null
  chosenIslands = () => []
  chooseIslands = () => undefined
  expanded = () => []
  pointOut = () => undefined
  tried: Trial | null = null
  tryOn = (trial: Trial | null) => void (this.tried = trial)
  say = (text: string) => void this.said.push(text)
  refresh = () => undefined
  trace: TraceSample[] | null = null
  practiceTrace = () => this.trace
  inTurns = <R>(_: string, work: Generator<number, R>, done: (result: R) => void) => done(atOnce(work))
  /** What plays, to be called with the time by a test. */
  frames: ((ms: number) => boolean) | null = null
  everyFrame = (step: (ms: number) => boolean) => {
    this.frames = step
    return () => void (this.frames = null)
  }
}

interface With {
  mark?: MarkRef | null
  shift?: boolean
  alt?: boolean
  free?: boolean
  clicks?: number
  pressure?: number
  device?: Hand['device']
}

export function hand(x: number, y: number, over: With = {}): Hand {
  const { mark = null, shift = false, alt = false, free = false, clicks = 1, pressure = 0.5, device = 'mouse' } = over
  return {
    at: { x, y },
    screen: { x, y },
    mark,
    shift,
    alt,
    free,
    device,
    clicks,
    samples: [{ at: { x, y }, pressure, time: x + y }],
  }
}

export function click(tool: Instrument, x: number, y: number, over: With = {}): void {
  tool.press?.(hand(x, y, over))
  tool.release?.(hand(x, y, over))
}

/** A drag through points, x and y of each in turn, by twos or all in a row. */
export function drag(tool: Instrument, xy: readonly (number | readonly number[])[], over: With = {}): void {
  const points = pairs(xy.flat())
  tool.press?.(hand(...points[0]!, over))
  for (const p of points.slice(1)) tool.move?.(hand(...p, { ...over, mark: null }))
  tool.release?.(hand(...points.at(-1)!, { ...over, mark: null }))
}

export const plainLine = (a: Vec, b: Vec, size = 10): Line => newLine(straightPath(a, b), { weight: evenWeight(size) })
