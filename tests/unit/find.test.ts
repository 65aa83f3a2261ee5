import fc from 'fast-check'
import { produce } from 'immer'
import { describe, expect, it } from 'vitest'
import { newDrawing, newLinesLayer } from '#core/model/create'
import type { Drawing, Line, LinesLayer } from '#core/model/model'
import { findLine } from '#core/model/find'
import { plainLine } from './support/desk'

const line = (): Line => plainLine({ x: 0, y: 0 }, { x: 9, y: 0 })
const layersOf = (drawing: Drawing): LinesLayer[] => drawing.layers.filter((l): l is LinesLayer => l.kind === 'lines')

/** A second opinion: looks through everything. */
function looked(drawing: Drawing, id: string): [layer: string, index: number] | null {
  for (const layer of layersOf(drawing)) {
    const index = layer.items.findIndex((l) => l.id === id)
    if (index >= 0) return [layer.id, index]
  }
  return null
}

function found(drawing: Drawing, id: string): [layer: string, index: number] | null {
  const at = findLine(drawing, id)
  if (at) expect(at.line.id).toBe(id)
  return at && [at.layer.id, at.index]
}

describe('a line is found by its id', () => {
  const edit = fc.record({
    kind: fc.constantFrom('delete', 'move', 'insert', 'swapLayers'),
    from: fc.nat(),
    to: fc.nat(),
  })

  it('where it is now, whatever moved since it was last seen, in drawings and in drafts', () => {
    fc.assert(
      fc.property(fc.array(edit, { maxLength: 12 }), (edits) => {
        const lines = Array.from({ length: 12 }, () => line())
        let drawing = newDrawing('Snail', {
          layers: [newLinesLayer('One', lines.slice(0, 7)), newLinesLayer('Two', lines.slice(7))],
        })
        const ids = lines.map((l) => l.id)
        for (const { kind, from, to } of edits) {
          const before = drawing
          drawing = produce(drawing, (draft) => {
            const all = layersOf(draft)
            const [a, b] = [all[from % 2]!, all[to % 2]!]
            if (kind === 'swapLayers') draft.layers.reverse()
            else if (kind === 'insert') b.items.splice(to % (b.items.length + 1), 0, line())
            else if (a.items.length) {
              const [taken] = a.items.splice(from % a.items.length, 1)
              if (kind === 'move') b.items.splice(to % (b.items.length + 1), 0, taken!)
            }
            for (const id of ids) expect(found(draft, id)).toEqual(looked(draft, id))
          })
          for (const id of ids) {
            expect(found(drawing, id)).toEqual(looked(drawing, id))
            expect(found(before, id)).toEqual(looked(before, id))
          }
        }
      }),
      { seed: 3, numRuns: 60 },
    )
  })
})
