import { newDrawing, newLinesLayer } from '#core/model/create'
import { makeEdit } from '#core/document/edits'
import type { Drawing, Line } from '#core/model/model'
import { openInk } from '../core/ink/open-ink'
import { findingsIn } from '../core/proof/findings-of'
import { atOnce } from '../core/turns'
import { seeded, strokes } from './strokes'

/** What following one edit costs, ms. */
export interface InkRow {
  lines: number
  contours: number
  /** All shapes from scratch, and asked for again with nothing changed. */
  first: number
  again: number
  /** One line changed, from the patch to the new contours. */
  median: number
  p95: number
  /** What Proof finds after that, ms more. */
  proof: number
  proofP95: number
}

const EDITS = 60

/** Shapes of drawings that are one tangle of strokes, made once and then after each of many edits of one line. */
export const inkRows = (sizes = [60, 2000, 10_000]): InkRow[] => sizes.map(inkRow)

function inkRow(lines: number): InkRow {
  const blank = newDrawing('Bench', { layers: [newLinesLayer('Ink', strokes(lines))] })
  return { lines, ...followed({ ...blank, page: pageFor(lines) }) }
}

/** What following edits of single lines of a drawing costs, all of them on its first layer. */
export function followed(from: Drawing): Omit<InkRow, 'lines'> {
  let drawing = from
  const { length } = from.layers[0]!.items
  const session = openInk(drawing)
  const clock = (): { ms: number; contours: number } => {
    const start = performance.now()
    const { shapes } = atOnce(session.shapes())
    return { ms: performance.now() - start, contours: shapes.reduce((n, s) => n + s.contours.length, 0) }
  }
  const first = clock()
  const again = clock()
  const r = seeded(9)
  const times: number[] = []
  const looks: number[] = []
  for (let i = 0; i < EDITS; i++) {
    const { drawing: next, edit } = makeEdit(drawing, 'One line', (draft) =>
      change((draft.layers[0]!.items as Line[])[Math.floor(r() * length)]!, r),
    )!
    drawing = next
    const start = performance.now()
    session.apply(edit.patches)
    atOnce(session.shapes())
    const made = performance.now()
    atOnce(findingsIn(session))
    // The first few still warm up.
    if (i < 10) continue
    times.push(made - start)
    looks.push(performance.now() - made)
  }
  const at = (all: number[], share: number): number => all.sort((a, b) => a - b)[Math.floor(all.length * share)]!
  return {
    contours: first.contours,
    first: first.ms,
    again: again.ms,
    median: at(times, 0.5),
    p95: at(times, 0.95),
    proof: at(looks, 0.5),
    proofP95: at(looks, 0.95),
  }
}

/** A page on which so many strokes lie as close as on any other. */
export function pageFor(lines: number): Drawing['page'] {
  const side = Math.sqrt(lines) * 45
  return { ...newDrawing('Bench').page, width: side, height: side }
}

/** A node dragged, or a width stop. */
export function change(line: Line, r: () => number): void {
  if (r() < 0.5) {
    const node = line.path.nodes[Math.floor(r() * line.path.nodes.length)]!
    const d = { x: r() * 20 - 10, y: r() * 20 - 10 }
    for (const p of [node.at, node.in, node.out]) if (p) Object.assign(p, { x: p.x + d.x, y: p.y + d.y })
  } else {
    const stop = line.weight.stops[1]!
    stop.left = 0.3 + r()
    stop.right = 0.3 + r()
  }
}
