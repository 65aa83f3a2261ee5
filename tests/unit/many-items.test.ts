import { describe, expect, it } from 'vitest'
import { applyPatches } from '#core/document/apply-patches'
import { checkTouched } from '#core/document/check-drawing'
import { copiedLines } from '#core/editing/copies'
import { newDrawing, newLine, newLinesLayer } from '#core/model/create'
import type { Edit } from '#core/document/edits'
import { applyEdit, makeEdit, walkOver } from '#core/document/edits'
import type { Drawing, Line, PenTrace } from '#core/model/model'
import { movedLine } from '#core/editing/move'
import { UnfitPatch } from '#core/document/patch'
import { clashes, rebase } from '#core/document/rebase'
import { emptyHistory } from '#core/document/history'
import { scaledLine } from '#core/editing/scale'
import { withTracesApart } from '#core/document/traces-apart'
import { fitByTrace } from '#core/fit/fit-trace'

const COUNT = 200
const SAMPLES = 600

/** A pen's stroke of many samples, as Freehand leaves it. */
function stroke(k: number): Line {
  const samples = Array.from({ length: SAMPLES }, (_, i) => ({
    x: 20 + i / 1.7 + k * 0.37,
    y: 5 + k * 2.6 + 22 * Math.sin(i / 60 + k) + 4 * Math.sin(i / 17),
    t: i * 5,
    pressure: 0.5 + 0.4 * Math.sin(i / 40 + k),
  }))
  const trace: PenTrace = { samples, device: 'pen', steadiness: 0.4, response: 1, zoom: 1 }
  const { path, stops } = fitByTrace(trace)
  const line = newLine(path, { trace })
  return { ...line, weight: { ...line.weight, size: 7.25, stops } }
}

/** As the workspace has it: drawn by edits, so everything lies on the grid. */
function drawn(): Drawing {
  const blank = newDrawing('Strokes', { layers: [newLinesLayer('Lines')] })
  const { drawing } = makeEdit(
    blank,
    'Draw',
    (d) => void (d.layers[0]!.items as Line[]).push(...Array.from({ length: COUNT }, (_, k) => stroke(k))),
  )!
  return withTracesApart(drawing, () => undefined)
}

const base = drawn()
const items = (d: Drawing): Line[] => d.layers[0]!.items as Line[]
const size = (e: Edit): number => JSON.stringify(e.patches).length + JSON.stringify(e.inverse).length
const throughJson = (e: Edit): Edit => JSON.parse(JSON.stringify(e)) as Edit

const deeds: [string, (d: Drawing) => void][] = [
  ['moved', (d) => items(d).forEach((l) => Object.assign(l, movedLine(l, { x: 13.3333333, y: -7.1 })))],
  [
    'scaled with their weights',
    (d) =>
      items(d).forEach((l) =>
        Object.assign(
          l,
          scaledLine(l, (p) => ({ x: 100 + (p.x - 100) * 0.73, y: 50 + (p.y - 50) * 0.73 }), 0.73, true),
        ),
      ),
  ],
  [
    'turned',
    (d) =>
      items(d).forEach((l) =>
        Object.assign(
          l,
          scaledLine(l, (p) => ({ x: 0.6 * p.x - 0.8 * p.y + 90, y: 0.8 * p.x + 0.6 * p.y }), 1, false),
        ),
      ),
  ],
  ['duplicated', (d) => void items(d).push(...copiedLines(items(base), { x: 10, y: 10 }, items(base)))],
  ['given another ink and size', (d) => items(d).forEach((l) => ((l.ink = 'red'), (l.weight.size = 5)))],
]

describe('a step of 200 pen strokes of 600 samples', () => {
  it.each(deeds)('%s takes less than 100 kB, and leads there and back exactly', (_, deed) => {
    const { drawing, edit } = makeEdit(base, 'Many', deed)!
    expect(size(edit)).toBeLessThan(100_000)
    const sent = throughJson(edit)
    const there = applyEdit(base, sent)
    expect(there).toEqual(drawing)
    checkTouched(there, sent.patches)
    const back = applyEdit(there, walkOver(sent, 'undo'))
    expect(back).toEqual(base)
    expect(applyEdit(back, walkOver(sent, 'redo'))).toEqual(drawing)
  })

  it('meets what another window did to some of them meanwhile', () => {
    const moved = makeEdit(base, 'Move', deeds[0]![1])!
    const theirs = makeEdit(base, 'Thicker', (d) => void (items(d)[3]!.weight.size = 20))!
    const { drawing, lost, edits } = rebase({ drawing: theirs.drawing, history: emptyHistory() }, [moved.edit])
    expect(lost).toEqual([])
    expect(items(drawing)[3]).toEqual({ ...items(moved.drawing)[3]!, weight: items(theirs.drawing)[3]!.weight })
    expect(clashes([theirs.edit], edits)).toEqual([])
    const bent = makeEdit(base, 'Bend', (d) => void (items(d)[3]!.path.nodes[0]!.at.x += 4))!
    expect(clashes([bent.edit], [moved.edit])).toEqual(['Move'])
    expect(
      rebase(
        {
          drawing: { ...base, layers: [{ ...base.layers[0]!, items: items(base).slice(1) } as never] },
          history: emptyHistory(),
        },
        [moved.edit],
      ).lost,
    ).toHaveLength(1)
  })

  it.each([
    ['map', { by: [1, 0, 0, 1, Number.NaN, 0], items: ['a'] }],
    ['map', { by: [1, 0, 0, 1, 0], items: ['a'] }],
    ['map', { by: [1, 0, 0, 1, 0, 0], items: [[3]] }],
    ['map', null],
    ['copy', { by: [1, 0, 0, 1, 0, 0], items: [['nobody', 'new']], place: 0 }],
    ['copy', { by: [1, 0, 0, 1, 0, 0], items: [['a', 'b']] }],
    ['each', { field: ['id'], of: [['a', 'b']] }],
    ['each', { field: 'ink', of: [] }],
  ] as const)('a %s that makes no sense is refused', (op, value) => {
    expect(() => applyPatches(base, [{ op, path: ['layers', base.layers[0]!.id, 'items'], value }])).toThrow(UnfitPatch)
  })
})
