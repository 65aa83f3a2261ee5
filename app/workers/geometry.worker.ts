import { expose } from 'comlink'
import type { Drawing, Line, Shape } from '#core/model/model'
import { inkedItems, linesOf } from '#core/model/queries'
import type { Patch } from '#core/document/patch'
import type { InkSession } from '#core/ink/open-ink'
import { openInk } from '#core/ink/open-ink'
import type { TrimResult } from '#core/ink/pieces/trim-stage'
import { atOnce, inTurns, scaled } from '#core/turns'
import type { ShapesAnswer } from './contour-book'
import { SentContours } from './contour-book'
import type { Region } from '#core/ink/outlines/outlines'
import type { CastPart } from '#core/ink/front/casts'
import type { Part } from '#core/ink/stack/stack'
import type { HandedOver } from './delivery.worker'
import type { CastOutline, Outline } from '~/painting/outline'
import { outlineOfContours, outlineOfRegion } from '~/painting/outline'
import type { Questions } from './questions'
import { QUESTIONS } from './questions'
import type { Encoded } from './dictionary'
import { DictionaryEncoder } from './dictionary'
import { remembered } from '#core/remembered'
import { findingsIn } from '#core/proof/findings-of'
import { ALIVE } from './alive'
import { AtRest } from './at-rest'
import type { InFrontTold } from './in-front-told'
import { InFrontEncoder } from './in-front-told'
import { KeptRecall } from './kept-recall'
import { threadsBeside, workedSideBySide } from './side-by-side'

/** For so long after a hand moved the view, long work rests so long between two turns, ms: drawing needs the processors. */
const HAND = 250
const ASIDE = 60
let handMoved = -Infinity

/** Lets messages in between two steps of long work, so that a newer request can stop it; makes way for a hand. */
function breathe(): Promise<void> {
  live()
  return new Promise((resolve) => setTimeout(resolve, performance.now() - handMoved < HAND ? ASIDE : 0))
}

/** Whoever waits is told so often that work goes on, ms: what takes long is not what hangs. */
const LIFE = 1000
let lived = 0

function live(): void {
  const now = performance.now()
  if (now - lived < LIFE) return
  lived = now
  globalThis.postMessage(ALIVE)
}

type AnyWork = (session: InkSession, ...args: readonly unknown[]) => Generator<number, unknown>

let newestShapes = 0
let session: InkSession | null = null
let kept: KeptRecall | null = null
/** Settles once the drawing at hand was taken up. */
let opened: Promise<void> = Promise.resolve()
let sent = new SentContours()

let newestClipped = 0
/** The newest of each question of which only the newest counts. */
const newest: Partial<Record<keyof Questions, number>> = {}
let sentClipped = new DictionaryEncoder<Outline>()
let sentFills = new DictionaryEncoder<Outline>()
let sentInFront = new InFrontEncoder()
let sentCasts = new DictionaryEncoder<CastOutline>()
const tuckedOutlines = new WeakMap<Region, Outline>()

/** The outline of what an item shows, the same object for the same ink. */
function tuckedOutline(item: Line | Shape, region: Region): Outline {
  const known = tuckedOutlines.get(region)
  if (known?.ink === item.ink) return known
  const outline = outlineOfRegion(item, region)
  tuckedOutlines.set(region, outline)
  return outline
}

/** What lines show beside others, what lies in front of them, what trims take away, and what lies poured beneath. */
export interface ClippedAnswer {
  told: Encoded<Outline>
  trims: readonly TrimResult[]
  inFront: InFrontTold
  casts: Encoded<CastOutline>
  fills: Encoded<Outline> | null
  tints: [line: string, ink: string][] | null
}

/** What a form throws, the same object for the same part. */
const castOutline = remembered(({ part, above }: CastPart): CastOutline => ({
  ...outlineOfRegion(part.item, part.region),
  above: [...above],
}))

/** The outline of a fill, the same object for the same part. */
const pouredOutline = remembered((part: Part): Outline => outlineOfContours(part.item, (part.item as Shape).contours))

let worksAhead = true

/** Threads that may help with the first shapes of a drawing of which nothing is kept; 0 once they have. */
let helpers = 0
/** Settles once they are done, or were stopped. */
let helping: Promise<void> = Promise.resolve()
/** The share of the first shapes that is left once they have. */
const LEFT = 0.2

/** What the first shapes of the drawing will need, worked out in several threads where there are some. */
async function helped(of: InkSession, go: (share: number) => boolean): Promise<boolean> {
  const threads = helpers
  helpers = 0
  if (threads < 2 || !kept) return false
  helping = workedSideBySide(of.drawing, kept.book, threads, (share) => {
    live()
    return go(share)
  })
  await helping
  return true
}

/** What the next passes will need is worked out while the hand rests, and what was worked out is kept. */
const rest = new AtRest(async (go) => {
  const [of, its] = [session, kept]
  if (!of) return
  if (worksAhead) await helped(of, go)
  if (worksAhead && !(await inTurns(readyFor(of), { turn: 20, rest: breathe, go }))) return
  // A hand that pauses between two strokes is not worth a page each time.
  await new Promise((resolve) => setTimeout(resolve, its?.due ?? 0))
  if (!its || !go()) return
  of.keepWholes()
  await its.write()
})

/** What whoever enters Shapes or Proof will ask for. */
function* readyFor(of: InkSession): Generator<number, true> {
  yield* of.shapes()
  yield* of.ready()
  yield* findingsIn(of)
  return true
}

async function takeUp(drawing: Drawing, threads: number): Promise<void> {
  kept = await KeptRecall.open(drawing.id)
  helpers = kept?.book.isEmpty ? threads : 0
  session = openInk(drawing, kept?.book ?? null)
  sent = new SentContours()
  sentClipped = new DictionaryEncoder()
  sentFills = new DictionaryEncoder()
  sentInFront = new InFrontEncoder()
  sentCasts = new DictionaryEncoder()
}

/** The session, once the drawing that was opened last is taken up. */
async function current(): Promise<InkSession> {
  rest.touched()
  await opened
  return session!
}

const geometry = {
  /** Outlines of lines of the drawing, by their ids, and of lines that are not in it, as they are given. A line that cannot be expanded has an empty one. */
  async outlines(lines: (string | Line)[]): Promise<Outline[]> {
    const { drawing, outlineOf } = await current()
    const known = new Map(linesOf(drawing).map((l) => [l.id, l]))
    return lines
      .map((l) => (typeof l === 'string' ? known.get(l)! : l))
      .map((line) => outlineOfRegion(line, outlineOf(line)))
  },

  /**
   * Takes up a drawing: what follows from it is kept from now on.
   *
   * @param how `ahead`: what next passes need is made while the hand rests; `processors`: those that are free help with the first shapes
   */
  open(drawing: Drawing, { ahead, processors }: { ahead: boolean; processors: number }): void {
    newestShapes++
    worksAhead = ahead
    opened = opened.then(() => takeUp(drawing, threadsBeside(processors)))
  },

  /** Follows an edit of the drawing. */
  async apply(patches: readonly Patch[]): Promise<void> {
    newestShapes++
    newestClipped++
    for (const what of Object.keys(newest) as (keyof Questions)[]) newest[what]!++
    const of = await current()
    of.apply(patches)
  },

  /** Shapes of the drawing as it is now; null when an edit, a newer request or `stopShapes` overtook this one. */
  async shapes(onProgress: (share: number) => void): Promise<ShapesAnswer | null> {
    const mine = ++newestShapes
    const of = await current()
    const tell = (share: number): boolean => {
      onProgress(share)
      return mine === newestShapes
    }
    const wasHelped = await helped(of, (share) => tell((1 - LEFT) * share))
    const rest = wasHelped ? scaled(of.shapes(), 1 - LEFT, LEFT) : of.shapes()
    const result = await inTurns(rest, { turn: 40, rest: breathe, go: tell })
    return result && sent.answer(result, of.measureOf)
  },

  /** Lines that do not show all of their ink, with what they show; null when an edit or a newer request overtook this one. */
  async clipped(): Promise<ClippedAnswer | null> {
    const mine = ++newestClipped
    const of = await current()
    const clipped = await inTurns(of.clipped(), {
      turn: 20,
      rest: breathe,
      go: () => mine === newestClipped && of === session,
    })
    if (!clipped) return null
    const items = new Map(inkedItems(of.drawing).map((i) => [i.id, i]))
    const told = sentClipped.tell([...clipped].map(([id, region]) => tuckedOutline(items.get(id)!, region)))
    const poured = await inTurns(of.fills(), {
      turn: 20,
      rest: breathe,
      go: () => mine === newestClipped && of === session,
    })
    // What was told of lines is on its way whether or not fills could be made in time.
    return {
      told,
      trims: atOnce(of.trimmed()),
      inFront: sentInFront.tell(atOnce(of.inFront())),
      casts: sentCasts.tell(atOnce(of.casts()).map(castOutline)),
      fills: poured && sentFills.tell(poured.parts.map(pouredOutline)),
      tints: poured ? [...poured.tints] : null,
    }
  },

  /** Answers a question about the drawing as it is now. */
  async ask(what: keyof Questions, args: readonly unknown[]): Promise<unknown> {
    const { manner, work } = QUESTIONS[what] as { manner: Questions[typeof what]['manner']; work: AnyWork }
    const mine = manner === 'newest' ? (newest[what] = (newest[what] ?? 0) + 1) : 0
    const of = await current()
    const answer = work(of, ...args)
    if (manner === 'at once') return atOnce(answer)
    // What it would work out itself is on its way.
    await helping
    const go = (): boolean => !mine || (mine === newest[what] && of === session)
    return inTurns(answer, { turn: manner === 'newest' ? 20 : 40, rest: breathe, go })
  },

  /** As `clipped`, of the drawing as patches make it. */
  async clippedWith(patches: Patch[]): Promise<Outline[]> {
    const other = (await current()).fork(patches)
    const clipped = (await inTurns(other.clipped(), { turn: 20, rest: breathe }))!
    const items = new Map(inkedItems(other.drawing).map((i) => [i.id, i]))
    return [...clipped].map(([id, region]) => outlineOfRegion(items.get(id)!, region))
  },

  /** Sends the drawing as it is here to whoever has the other end of a port. */
  async handOver(port: MessagePort, withShapes: boolean): Promise<void> {
    const of = await current()
    const shapes = withShapes ? atOnce(of.shapes()).shapes : null
    port.postMessage({ drawing: of.drawn, shapes } satisfies HandedOver)
    port.close()
  },

  /** A hand moves the view. */
  handMoves(): void {
    handMoved = performance.now()
    rest.touched()
  },

  stopShapes(): void {
    newestShapes++
  },
}

export type GeometryWorker = typeof geometry

expose(geometry)
