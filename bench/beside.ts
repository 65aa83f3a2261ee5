import { newDrawing, newLinesLayer } from '#core/model/create'
import type { Drawing } from '#core/model/model'
import { shapesSideBySide } from '../cli/side-by-side'
import { pageFor } from './ink'
import { strokes } from './strokes'

/** First shapes of a drawing, worked out in so many threads: ms, their start included. */
export interface BesideRow {
  lines: number
  times: { threads: number; ms: number }[]
}

export const THREADS = [1, 2, 4] as const

export async function besideRows(sizes = [2000, 10_000]): Promise<BesideRow[]> {
  const rows: BesideRow[] = []
  for (const lines of sizes) {
    const blank = newDrawing('Bench', { layers: [newLinesLayer('Ink', strokes(lines))] })
    const drawing: Drawing = { ...blank, page: pageFor(lines) }
    const times: BesideRow['times'] = []
    for (const threads of THREADS) {
      const start = performance.now()
      await shapesSideBySide(structuredClone(drawing), threads)
      times.push({ threads, ms: performance.now() - start })
    }
    rows.push({ lines, times })
  }
  return rows
}
