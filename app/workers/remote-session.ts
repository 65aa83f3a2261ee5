import type { Remote } from 'comlink'
import { proxy, transfer } from 'comlink'
import type { Drawing, Line } from '#core/model/model'
import type { Path } from '#core/geometry/path'
import type { Vec } from '#core/geometry/point'
import { patchesBetween } from '#core/document/patches-between'
import type { Joints, ShapesResult } from '#core/ink/open-ink'
import type { Finding } from '#core/proof/finding'
import type { Bounded, LitterLimits } from '#core/ink/pieces/litter'
import type { PieceHit } from '#core/ink/pieces/piece-at'
import type { RegionHit } from '#core/ink/session/region-hits'
import type { TrimResult } from '#core/ink/pieces/trim-stage'
import type { DrawnShape } from './contour-book'
import { HeldContours } from './contour-book'
import type { GeometryThread } from './geometry-thread'
import type { GeometryWorker } from './geometry.worker'
import type { Outline } from '~/painting/outline'
import { HeldOnce } from './sent-once'

/** Longest time between two signs of life from the making of shapes, ms. */
const LONGEST_STEP = 90_000

/** The worker, the drawing as it has it, and the contours that came from there. */
interface There {
  worker: Remote<GeometryWorker>
  drawing: Drawing
  contours: HeldContours
  less: HeldOnce<Outline>
  fills: HeldOnce<Outline>
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
  less(drawing: Drawing): Promise<{
    less: Outline[]
    trims: readonly TrimResult[]
    fills: Outline[] | null
    tints: [string, string][] | null
  } | null> {
    return this.thread.within(LONGEST_STEP, async (worker) => {
      const { less, fills } = this.follow(worker, drawing)
      const answer = await worker.less()
      return (
        answer && {
          less: less.take(answer.told),
          trims: answer.trims,
          fills: answer.fills && fills.take(answer.fills),
          tints: answer.tints,
        }
      )
    })
  }

  /** The pieces of lines under a point, page px; the front line's first. */
  piecesAt(drawing: Drawing, p: Vec): Promise<PieceHit[]> {
    return this.thread.within(LONGEST_STEP, (worker) => {
      this.follow(worker, drawing)
      return worker.piecesAt(p)
    })
  }

  /** What Proof finds in a drawing; null when a later edit or request overtook this one. */
  findings(drawing: Drawing): Promise<Finding[] | null> {
    return this.thread.within(LONGEST_STEP, (worker) => {
      this.follow(worker, drawing)
      return worker.findings()
    })
  }

  /** Where two ends come together, and where an end meets a line or goes past one. */
  joints(drawing: Drawing): Promise<Joints> {
    return this.thread.within(LONGEST_STEP, (worker) => {
      this.follow(worker, drawing)
      return worker.joints()
    })
  }

  /** The region under a point as it would be poured, gaps of up to `gap` px bridged. */
  regionAt(drawing: Drawing, p: Vec, gap: number): Promise<RegionHit | null> {
    return this.thread.within(LONGEST_STEP, (worker) => {
      this.follow(worker, drawing)
      return worker.regionAt(p, gap)
    })
  }

  /** What bridges gaps of up to `gap` px. */
  bridges(drawing: Drawing, gap: number): Promise<Path[]> {
    return this.thread.within(LONGEST_STEP, (worker) => {
      this.follow(worker, drawing)
      return worker.bridges(gap)
    })
  }

  /** Regions that no fill has, none smaller than `least` px squared, and which of them lie side by side. */
  emptyRegions(drawing: Drawing, gap: number, least: number): Promise<{ regions: RegionHit[]; beside: number[][] }> {
    return this.thread.within(LONGEST_STEP, (worker) => {
      this.follow(worker, drawing)
      return worker.emptyRegions(gap, least)
    })
  }

  /** Outlines as they were before they were simplified, by shape and place among its contours. */
  originals(drawing: Drawing, of: [shape: string, contours: readonly number[]][]): Promise<Path[]> {
    return this.thread.within(LONGEST_STEP, (worker) => {
      this.follow(worker, drawing)
      return worker.originals(of.map(([id, places]): [string, number[]] => [id, [...places]]))
    })
  }

  /** What of other lines sticks out beyond the lines named. */
  beyond(drawing: Drawing, fence: readonly string[], most: number): Promise<PieceHit[]> {
    return this.thread.within(LONGEST_STEP, (worker) => {
      this.follow(worker, drawing)
      return worker.beyond([...fence], most)
    })
  }

  /** Loose ends and specks in regions. */
  litter(drawing: Drawing, regions: readonly Bounded[], limits: LitterLimits): Promise<PieceHit[]> {
    return this.thread.within(LONGEST_STEP, (worker) => {
      this.follow(worker, drawing)
      return worker.litter([...regions], limits)
    })
  }

  /** As `less`, of a drawing that stands beside the one at hand. */
  lessBeside(drawing: Drawing, other: Drawing): Promise<Outline[]> {
    return this.thread.within(LONGEST_STEP, (worker) => {
      this.follow(worker, drawing)
      return worker.lessWith(patchesBetween(drawing, other))
    })
  }

  /** Sends a drawing, with its shapes where these are wanted, to the other end of a port. */
  readonly handOver = (drawing: Drawing, withShapes: boolean, port: MessagePort): void => {
    void this.thread.within(LONGEST_STEP, (worker) => {
      this.follow(worker, drawing)
      return worker.handOver(transfer(port, [port]), withShapes)
    })
  }

  stopShapes(): void {
    void this.thread.remote.stopShapes()
  }

  /** Brings the drawing in the worker up to date. */
  private follow(worker: Remote<GeometryWorker>, drawing: Drawing): There {
    if (this.there?.worker !== worker || this.there.drawing.id !== drawing.id) {
      void worker.open(drawing)
      return (this.there = {
        worker,
        drawing,
        contours: new HeldContours(),
        less: new HeldOnce(),
        fills: new HeldOnce(),
      })
    }
    const patches = patchesBetween(this.there.drawing, drawing)
    if (patches.length) void worker.apply(patches)
    this.there.drawing = drawing
    return this.there
  }
}
