import type { Remote } from 'comlink'
import type { Line } from '#core/drawing/model'
import { expandLine } from '#core/outline/expand'
import type { GeometryWorker } from '~/workers/geometry.worker'
import type { Outline } from '~/workers/outline'
import { outlineOfShape } from '~/workers/outline'

/** How far an outline on screen may lie from the true ink, px of the page. */
export const SCREEN_TOLERANCE = 0.05

/** Up to this many changed lines are expanded at once, in the frame; more go to the worker. */
const AT_ONCE = 6

const BATCH = 40
/** So many lines are looked at in one go. */
const LOOKED_AT = 4000

/** Outlines of lines, kept as long as the line stays the same object. */
export class OutlineCache {
  private readonly known = new WeakMap<Line, Outline>()
  /** By line id, the outline that was made last, whatever the line has become since. */
  private readonly latest = new Map<string, Outline>()

  constructor(private readonly worker: Remote<GeometryWorker>) {}

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
  }

  /** The outline of one line, expanded here and now. */
  now(line: Line): Outline {
    let outline = this.known.get(line)
    if (!outline) {
      outline = expandHere(line)
      this.keep(line, outline)
    }
    return outline
  }

  /**
   * Makes the outlines of all `lines` ready, as `shown` has them; few missing ones at once, many in the worker, told as
   * they come. Gives up between two batches once they are not wanted any more. Answers how many lines it came to.
   */
  async fill(lines: readonly Line[], shown: (line: Line) => Line, wanted: () => boolean, onBatch: (share: number) => void): Promise<number> {
    for (let i = 0; i < lines.length; ) {
      const missing: Line[] = []
      const start = i
      while (i < lines.length && missing.length < BATCH && i - start < LOOKED_AT) {
        const line = shown(lines[i++]!)
        if (!this.known.has(line)) missing.push(line)
      }
      const last = i >= lines.length
      if (missing.length <= AT_ONCE) missing.forEach((l) => this.now(l))
      else {
        const outlines = await this.worker.expand(missing, SCREEN_TOLERANCE)
        missing.forEach((l, k) => this.keep(l, outlines[k]!))
        if (!wanted()) return i
      }
      if (missing.length || last) onBatch(i / lines.length)
    }
    if (!lines.length) onBatch(1)
    return lines.length
  }
}

function expandHere(line: Line): Outline {
  const shape = { id: line.id, ink: line.ink, from: [] }
  try {
    return outlineOfShape({ ...shape, contours: expandLine(line, { tolerance: SCREEN_TOLERANCE }) })
  } catch {
    return outlineOfShape({ ...shape, contours: [] })
  }
}
