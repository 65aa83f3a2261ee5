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

/** Outlines of lines, kept as long as the line stays the same object. */
export class OutlineCache {
  private readonly known = new WeakMap<Line, Outline>()

  constructor(private readonly worker: Remote<GeometryWorker>) {}

  get(line: Line): Outline | undefined {
    return this.known.get(line)
  }

  /** The outline of one line, expanded here and now. */
  now(line: Line): Outline {
    let outline = this.known.get(line)
    if (!outline) {
      outline = expandHere(line)
      this.known.set(line, outline)
    }
    return outline
  }

  /** Makes the outlines of all `lines` ready; few missing ones at once, many in the worker, told as they come. */
  async fill(lines: readonly Line[], onBatch: (share: number) => void): Promise<void> {
    const missing = lines.filter((l) => !this.known.has(l))
    if (missing.length <= AT_ONCE) {
      missing.forEach((l) => this.now(l))
      onBatch(1)
      return
    }
    for (let i = 0; i < missing.length; i += BATCH) {
      const batch = missing.slice(i, i + BATCH)
      const outlines = await this.worker.expand(batch, SCREEN_TOLERANCE)
      batch.forEach((l, k) => this.known.set(l, outlines[k]!))
      onBatch(Math.min(1, (i + BATCH) / missing.length))
    }
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
