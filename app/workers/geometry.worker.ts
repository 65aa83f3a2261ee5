import { expose } from 'comlink'
import type { Drawing, Line, Shape } from '#core/drawing/model'
import { writeSvg } from '#core/formats/svg/write-svg'
import { expandLine } from '#core/outline/expand'
import type { ShapesResult } from '#core/ink/open-ink'
import { openInk } from '#core/ink/open-ink'
import { inTurns } from '#core/turns'
import type { Outline } from './outline'
import { outlineOfShape } from './outline'

/** Lets messages in between two steps of long work, so that a newer request can stop it. */
const breathe = (): Promise<void> => new Promise((resolve) => setTimeout(resolve))

let newestShapes = 0

const geometry = {
  /** Outlines of lines; a line that cannot be expanded has none. */
  expand(lines: Line[], tolerance: number): Outline[] {
    return lines.map((line) => {
      try {
        return outlineOfShape({ id: line.id, ink: line.ink, from: [], contours: expandLine(line, { tolerance }) })
      } catch {
        return outlineOfShape({ id: line.id, ink: line.ink, from: [], contours: [] })
      }
    })
  },

  /** Shapes of a drawing; null when a newer request or `stopShapes` overtook this one. */
  async shapes(
    drawing: Drawing,
    onProgress: (share: number) => void,
  ): Promise<(ShapesResult & { outlines: Outline[] }) | null> {
    const mine = ++newestShapes
    const result = await inTurns(openInk(drawing).shapes(), {
      turn: 40,
      rest: breathe,
      go: (share) => {
        onProgress(share)
        return mine === newestShapes
      },
    })
    return result && { ...result, outlines: result.shapes.map(outlineOfShape) }
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
