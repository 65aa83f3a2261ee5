import { expose } from 'comlink'
import type { Drawing, Line, Shape } from '#core/drawing/model'
import type { Patch } from '#core/drawing/patch'
import { writeSvg } from '#core/formats/svg/write-svg'
import type { InkSession } from '#core/ink/open-ink'
import { openInk } from '#core/ink/open-ink'
import { inTurns } from '#core/turns'
import type { ShapesAnswer } from './contour-book'
import { SentContours } from './contour-book'
import type { Outline } from './outline'
import { outlineOfRegion } from './outline'

/** Lets messages in between two steps of long work, so that a newer request can stop it. */
const breathe = (): Promise<void> => new Promise((resolve) => setTimeout(resolve))

let newestShapes = 0
let session: InkSession | null = null
let sent = new SentContours()

const geometry = {
  /** Outlines of lines of the drawing, by their ids, and of lines that are not in it, as they are given. A line that cannot be expanded has an empty one. */
  outlines(lines: (string | Line)[]): Outline[] {
    const { drawing, outlineOf } = session!
    const known = new Map(drawing.layers.flatMap((l) => (l.kind === 'lines' ? l.items.map((i) => [i.id, i] as const) : [])))
    return lines.map((l) => (typeof l === 'string' ? known.get(l)! : l)).map((line) => outlineOfRegion(line, outlineOf(line)))
  },

  /** Takes up a drawing: what follows from it is kept from now on. */
  open(drawing: Drawing): void {
    newestShapes++
    session = openInk(drawing)
    sent = new SentContours()
  },

  /** Follows an edit of the drawing. */
  apply(patches: Patch[]): void {
    newestShapes++
    session!.apply(patches)
  },

  /** Shapes of the drawing as it is now; null when an edit, a newer request or `stopShapes` overtook this one. */
  async shapes(onProgress: (share: number) => void): Promise<ShapesAnswer | null> {
    const mine = ++newestShapes
    const result = await inTurns(session!.shapes(), {
      turn: 40,
      rest: breathe,
      go: (share) => {
        onProgress(share)
        return mine === newestShapes
      },
    })
    return result && sent.answer(result)
  },

  stopShapes(): void {
    newestShapes++
  },

  svg(drawing: Drawing, shapes: Shape[] | null): string {
    return shapes ? writeSvg(drawing, { content: 'outlines', shapes }) : writeSvg(drawing, { content: 'lines' })
  },
}

export type GeometryWorker = typeof geometry

expose(geometry)
