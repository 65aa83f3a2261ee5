import type { Line } from '#core/model/model'
import { shiftBetween } from '#core/editing/move'
import { expandLine } from '#core/outline/expand'
import { Hang } from '~/workers/geometry-thread'
import type { Outline } from '~/painting/outline'
import { outlineOfContours, shiftedOutline } from '~/painting/outline'

/** Up to this many changed lines are expanded at once, in the frame; more go to the worker. */
const AT_ONCE = 6

const BATCH = 40

/** A line that takes longer than this to expand, ms, is left to the worker from then on: it would stop the hand. */
const HEAVY = 30

/** Longest time for a batch of lines, and for one line alone, ms. */
const LONGEST_BATCH = 20_000
const LONGEST_LINE = 15_000

/** Longest time for expanding lines in one frame, ms. */
const A_FRAME = 9

/** So many lines are looked at in one go. */
const LOOKED_AT = 4000

/** What an outline cache works with. */
export interface OutlineSource {
  /** Outlines from the geometry worker; rejects with `Hang` when they take longer than `longest` ms. */
  fetch: (lines: readonly Line[], longest: number) => Promise<Outline[]>
  /** How far an outline may lie from the true ink, px of the page: that of the shapes, so that they are what was seen before. */
  tolerance: () => number
  /** The outline of a heavy line came later. */
  late: () => void
  /** A line takes so long that it is shown without ink. */
  stuck: (line: Line) => void
}

/** Outlines of lines, kept as long as the line stays the same object. */
export class OutlineCache {
  private outlines = { tolerance: 0, known: new WeakMap<Line, Outline>() }
  /** By line id, the outline that was made last, whatever the line has become since. */
  private readonly latest = new Map<string, Outline>()

  /** By line id, the line that had it. */
  private readonly latestLine = new Map<string, Line>()
  private until = 0
  /** Whether a line had no time left in this frame. */
  postponed = false

  /** Lines, by id, that are slow to expand. */
  private readonly heavy = new Set<string>()
  /** The heavy line that the worker is at, and those that it is to take up next, each as it is now. */
  private waiting = new Map<string, Line>()
  private busy = false

  constructor(private readonly source: OutlineSource) {}

  private get known(): WeakMap<Line, Outline> {
    const tolerance = this.source.tolerance()
    if (this.outlines.tolerance !== tolerance) this.outlines = { tolerance, known: new WeakMap() }
    return this.outlines.known
  }

  get(line: Line): Outline | undefined {
    return this.known.get(line)
  }

  /** The outline that a line had last: it may stay on screen until the next one is there. */
  lastOf(id: string): Outline | undefined {
    return this.latest.get(id)
  }

  private keep(line: Line, outline: Outline): void {
    this.known.set(line, outline)
    this.latest.set(line.id, outline)
    this.latestLine.set(line.id, line)
  }

  /** The outline of one line, expanded here and now; that of a heavy one as it was last, until the worker has it. */
  now(line: Line): Outline {
    const known = this.known.get(line)
    if (known) return known
    const last = this.latest.get(line.id)
    if (last && this.heavy.has(line.id)) {
      this.waiting.set(line.id, line)
      void this.catchUp()
      return last
    }
    const moved = this.movedOutline(line)
    if (moved) {
      this.keep(line, moved)
      return moved
    }
    const start = performance.now()
    const outline = expandHere(line, this.source.tolerance())
    if (performance.now() - start > HEAVY) this.heavy.add(line.id)
    this.keep(line, outline)
    return outline
  }

  /** As `now`, but with no time left in the frame the outline is the one that the line had last, and `postponed` says so. */
  inFrame(line: Line): Outline {
    const last = this.latest.get(line.id)
    if (!last || this.known.has(line) || this.hasTime()) return this.now(line)
    const moved = this.movedOutline(line)
    this.postponed ||= !moved
    return moved ?? last
  }

  /** Whether there is time left in this frame to work something out. */
  readonly hasTime = (): boolean => performance.now() < this.until

  /** A frame begins: `inFrame` expands lines for no longer than a part of it. */
  beginFrame(): void {
    this.until = performance.now() + A_FRAME
    this.postponed = false
  }

  /** The last outline of a line that has only been moved since, moved as well. */
  private movedOutline(line: Line): Outline | null {
    const was = this.latestLine.get(line.id)
    const outline = was && this.known.get(was)
    const d = outline ? shiftBetween(was, line) : null
    return d && outline!.data ? shiftedOutline(outline!, d) : null
  }

  private async catchUp(): Promise<void> {
    if (this.busy) return
    this.busy = true
    try {
      for (const [id, line] of this.waiting) {
        this.waiting.delete(id)
        await this.expandAlone(line)
        this.source.late()
      }
    } finally {
      this.busy = false
    }
  }

  /** Expands lines in the worker; should it hang, one by one, so that only the line that hangs it goes without ink. */
  private async expand(lines: readonly Line[]): Promise<void> {
    try {
      const outlines = await this.source.fetch(lines, LONGEST_BATCH)
      lines.forEach((l, i) => this.keep(l, outlines[i]!))
    } catch (e) {
      if (!(e instanceof Hang)) throw e
      for (const line of lines) await this.expandAlone(line)
    }
  }

  private async expandAlone(line: Line): Promise<void> {
    try {
      const start = performance.now()
      const [outline] = await this.source.fetch([line], LONGEST_LINE)
      if (performance.now() - start < HEAVY / 2) this.heavy.delete(line.id)
      this.keep(line, outline!)
    } catch (e) {
      if (!(e instanceof Hang)) throw e
      this.heavy.add(line.id)
      this.keep(line, outlineOfContours(line, []))
      this.source.stuck(line)
    }
  }

  /**
   * Makes the outlines of all `lines` ready, as `shown` has them; few missing ones at once, many in the worker, told as
   * they come. Gives up between two batches once they are not wanted any more. Answers how many lines it came to.
   */
  async fill(
    lines: readonly Line[],
    shown: (line: Line) => Line,
    wanted: () => boolean,
    onBatch: (share: number) => void,
  ): Promise<number> {
    for (let i = 0; i < lines.length;) {
      const missing: Line[] = []
      const start = i
      while (i < lines.length && missing.length < BATCH && i - start < LOOKED_AT) {
        const line = shown(lines[i++]!)
        if (!this.known.has(line)) missing.push(line)
      }
      const last = i >= lines.length
      if (missing.length <= AT_ONCE) missing.forEach((l) => this.now(l))
      else {
        await this.expand(missing)
        if (!wanted()) return i
      }
      if (missing.length || last) onBatch(i / lines.length)
    }
    if (!lines.length) onBatch(1)
    return lines.length
  }
}

function expandHere(line: Line, tolerance: number): Outline {
  try {
    return outlineOfContours(line, expandLine(line, { tolerance }))
  } catch {
    return outlineOfContours(line, [])
  }
}
