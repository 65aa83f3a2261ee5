import type { Remote } from 'comlink'
import { proxy, transfer } from 'comlink'
import type { Drawing, Line } from '#core/model/model'
import { patchesBetween } from '#core/document/patches-between'
import type { ShapesResult } from '#core/ink/open-ink'
import type { InFrontOf } from '#core/ink/front/as-seen'
import type { TrimResult } from '#core/ink/pieces/trim-stage'
import type { DrawnShape } from './contour-book'
import { HeldContours } from './contour-book'
import type { GeometryThread } from './geometry-thread'
import type { GeometryWorker } from './geometry.worker'
import { patchesTo } from './known-steps'
import type { Answer, Asked, Overtaken, Questions } from './questions'
import type { CastOutline, Outline } from '~/painting/outline'
import { DictionaryDecoder } from './dictionary'
import { InFrontDecoder } from './in-front-told'

/** Longest time between two signs of life from the making of shapes, ms. */
const LONGEST_STEP = 90_000

/** The worker, the drawing as it has it, and the contours that came from there. */
interface There {
  worker: Remote<GeometryWorker>
  drawing: Drawing
  contours: HeldContours
  clipped: DictionaryDecoder<Outline>
  fills: DictionaryDecoder<Outline>
  inFront: InFrontDecoder
  casts: DictionaryDecoder<CastOutline>
}

/** The session of the geometry worker as the main thread has it: edits go there as patches, what they change comes back. */
export class RemoteSession {
  private there: There | null = null

  constructor(private readonly thread: GeometryThread) {}

  /**
   * Outlines of lines: those in the drawing are there already, others go along.
   *
   * @param longest ms
   * @throws Hang when it takes longer
   */
  outlines(
    drawing: Drawing,
    lines: readonly Line[],
    isIn: (line: Line) => boolean,
    longest: number,
  ): Promise<Outline[]> {
    return this.thread.within(longest, (worker) => {
      this.follow(worker, drawing)
      return worker.outlines(lines.map((l) => (isIn(l) ? l.id : l)))
    })
  }

  /** The shapes of a drawing; null when a later edit or request overtook this one. */
  shapes(
    drawing: Drawing,
    onProgress: (share: number) => void,
  ): Promise<{ result: ShapesResult; drawn: DrawnShape[] } | null> {
    return this.thread.within(LONGEST_STEP, async (worker, alive) => {
      const { contours } = this.follow(worker, drawing)
      const answer = await worker.shapes(
        proxy((share: number) => {
          alive()
          onProgress(share)
        }),
      )
      return answer && contours.take(answer)
    })
  }

  /** What lines show that do not show all of their ink; null when a later edit or request overtook this one. */
  clipped(drawing: Drawing): Promise<{
    clipped: Outline[]
    trims: readonly TrimResult[]
    inFront: InFrontOf
    casts: CastOutline[]
    fills: Outline[] | null
    tints: [string, string][] | null
  } | null> {
    return this.thread.within(LONGEST_STEP, async (worker) => {
      const { clipped, fills, inFront, casts } = this.follow(worker, drawing)
      const answer = await worker.clipped()
      return (
        answer && {
          clipped: clipped.take(answer.told),
          trims: answer.trims,
          inFront: inFront.take(answer.inFront),
          casts: casts.take(answer.casts),
          fills: answer.fills && fills.take(answer.fills),
          tints: answer.tints,
        }
      )
    })
  }

  /** What the session answers to a question about a drawing; of some, null when a later edit or a newer one overtook it. */
  ask<K extends keyof Questions>(drawing: Drawing, what: K, ...args: Asked<K>): Promise<Answer<K> | Overtaken<K>> {
    return this.thread.within(LONGEST_STEP, (worker) => {
      this.follow(worker, drawing)
      return worker.ask(what, args) as Promise<Answer<K> | Overtaken<K>>
    })
  }

  /** As `clipped`, of a drawing that stands beside the one at hand. */
  clippedBeside(drawing: Drawing, other: Drawing): Promise<Outline[]> {
    return this.thread.within(LONGEST_STEP, (worker) => {
      this.follow(worker, drawing)
      return worker.clippedWith(patchesBetween(drawing, other))
    })
  }

  /** Sends a drawing, with its shapes where these are wanted, to the other end of a port. */
  readonly handOver = (drawing: Drawing, withShapes: boolean, port: MessagePort): void => {
    void this.thread.within(LONGEST_STEP, (worker) => {
      this.follow(worker, drawing)
      return worker.handOver(transfer(port, [port]), withShapes)
    })
  }

  /** A hand moves the view: work that is under way makes room for drawing. */
  handMoves(): void {
    void this.thread.remote.handMoves()
  }

  stopShapes(): void {
    void this.thread.remote.stopShapes()
  }

  /** Brings the drawing in the worker up to date. */
  private follow(worker: Remote<GeometryWorker>, drawing: Drawing): There {
    if (this.there?.worker !== worker || this.there.drawing.id !== drawing.id) {
      // What made it hang may well be what it worked out ahead.
      void worker.open(drawing, { ahead: !this.thread.hangs, processors: navigator.hardwareConcurrency })
      return (this.there = {
        worker,
        drawing,
        contours: new HeldContours(),
        clipped: new DictionaryDecoder(),
        fills: new DictionaryDecoder(),
        inFront: new InFrontDecoder(),
        casts: new DictionaryDecoder(),
      })
    }
    const patches = patchesTo(this.there.drawing, drawing)
    if (patches.length) void worker.apply(patches)
    this.there.drawing = drawing
    return this.there
  }
}
