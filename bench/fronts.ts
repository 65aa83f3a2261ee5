import { decideFronts } from '#core/editing/fronts'
import { changed } from '#core/document/edits'
import { evenWeight, newDrawing, newLine, newLinesLayer } from '#core/model/create'
import type { Drawing, Line } from '#core/model/model'
import { around } from '../demo/kit/spline'
import type { InkRow } from './ink'
import { followed, pageFor } from './ink'
import { seeded, strokes } from './strokes'

/** What following an edit costs where forms lie in front of others, or lines stand on the page more than once. */
export interface FrontRow extends Omit<InkRow, 'lines' | 'contours' | 'again'> {
  drawing: string
}

export const frontRows = (lines = 2000, overlaps = 200): FrontRow[] => [
  { drawing: `${lines.toLocaleString('en')} lines`, ...followed(tangle(lines)) },
  {
    drawing: `${lines.toLocaleString('en')} lines, ${overlaps} overlaps decided`,
    ...followed(withForms(lines, overlaps)),
  },
  { drawing: `${(lines / 2).toLocaleString('en')} lines mirrored`, ...followed(halved(lines / 2)) },
]

const tangle = (lines: number): Drawing => ({
  ...newDrawing('Bench', { layers: [newLinesLayer('Ink', strokes(lines))] }),
  page: pageFor(lines),
})

/** Pairs of closed forms among strokes, of each the first before the second. */
function withForms(lines: number, pairs: number): Drawing {
  const page = pageFor(lines)
  const r = seeded(5)
  const form = (id: string, x: number, y: number): Line => {
    const [a, b] = [26 + 10 * r(), 20 + 10 * r()]
    const path = around([x - a, y], [x - 2, y - b], [x + a, y + 3], [x, y + b])
    return newLine(path, {
      id,
      weight: { ...evenWeight(5), stops: [0, 0.4].map((at) => ({ at, left: 1, right: 0.6 })) },
    })
  }
  const forms = Array.from({ length: pairs }, (_, i) => {
    const [x, y] = [60 + r() * (page.width - 120), 60 + r() * (page.height - 120)]
    return [form(`front ${i}`, x, y), form(`back ${i}`, x + 28, y + 14)]
  })
  const blank = newDrawing('Bench', {
    layers: [newLinesLayer('Ink', [...strokes(lines - 2 * pairs), ...forms.flat()])],
  })
  return changed({ ...blank, page }, (draft) =>
    decideFronts(
      draft,
      forms.map(([front, back]) => ({ form: [front!.id], to: [back!.id], choice: 'before' as const })),
    ),
  )
}

/** A tangle that stands on both sides of an axis at its edge. */
function halved(lines: number): Drawing {
  const drawing = tangle(lines)
  const { width, height } = drawing.page
  return {
    ...drawing,
    page: { ...drawing.page, width: 2 * width },
    amendments: [
      {
        id: 'mirror',
        kind: 'mirror',
        lines: drawing.layers[0]!.items.map((i) => i.id),
        from: { x: width, y: 0 },
        to: { x: width, y: height },
      },
    ],
  }
}
