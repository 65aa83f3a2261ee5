import { describe, expect, it } from 'vitest'
import { newDrawing, newLinesLayer } from '#core/model/create'
import type { Recipe } from '#core/document/edits'
import { applyEdit, makeEdit } from '#core/document/edits'
import { emptyHistory } from '#core/document/history'
import type { Drawing, Line } from '#core/model/model'
import { movedLine } from '#core/editing/move'
import { clashes, rebase } from '#core/document/rebase'
import { stretchAround } from '#core/editing/snips'
import { litLine } from '#core/weight/light'
import { outsidesOf } from '#core/relations/outside'
import { plainLine } from './support/desk'
import { polygon } from './support/paths'

const items = (d: Drawing): Line[] => d.layers[0]!.items as Line[]
const drawingOf = (lines: Line[], over: Partial<Drawing> = {}): Drawing =>
  newDrawing('Two windows', { layers: [newLinesLayer('Lines', lines)], ...over })
const byId = (d: Drawing, id: string): Line => items(d).find((l) => l.id === id)!
const move =
  (id: string, x: number, y: number): Recipe =>
  (d) =>
    void Object.assign(byId(d, id), movedLine(byId(d, id), { x, y }))

/** Two windows begin with the same drawing; mine comes second. */
function both(start: Drawing, theirs: Recipe, mine: Recipe) {
  const a = makeEdit(start, 'Theirs', theirs)!
  const b = makeEdit(start, 'Mine', mine)!
  const { drawing, edits, lost } = rebase({ drawing: a.drawing, history: emptyHistory() }, [b.edit])
  expect(lost).toEqual([])
  // The other window, and the server, come to the same by the edits that are sent.
  expect(edits.reduce((d, e) => applyEdit(d, e), a.drawing)).toEqual(drawing)
  expect(applyEdit(drawing, { patches: edits[0]!.inverse })).toEqual(a.drawing)
  return { drawing, clash: clashes([a.edit], edits) }
}

describe('two windows at once', () => {
  const across = { ...plainLine({ x: 0, y: 50 }, { x: 200, y: 50 }, 6), id: 'across' }
  const posts = [40, 120].map((x) => ({ ...plainLine({ x, y: 0 }, { x, y: 100 }, 6), id: `post ${x}` }))
  const snipped = { ...across, snips: [stretchAround(across, posts, 0.4)!] }

  it('a snip ends at the crossing where the two lines are now, whichever of them each window moved', () => {
    const { drawing } = both(drawingOf([snipped, ...posts]), move('post 40', 20, 0), move('across', -30, 0))
    const [snip] = byId(drawing, 'across').snips
    expect(snip).toMatchObject({ fromBy: 'post 40', toBy: 'post 120' })
    expect([snip!.from * 200 - 30, snip!.to * 200 - 30]).toEqual([60, 120].map((x) => expect.closeTo(x, 6) as number))
  })

  it('a snip whose crossing one window took away waits', () => {
    const { drawing } = both(drawingOf([snipped, ...posts]), move('post 40', 0, 300), move('across', 0, 1))
    expect(byId(drawing, 'across').snips[0]).toMatchObject({ idle: true })
  })

  it('lines lie under the light as if both had been done in one', () => {
    const ring = (id: string, x: number): Line => ({
      ...plainLine({ x, y: 20 }, { x: x + 60, y: 20 }, 6),
      id,
      path: polygon(x, 20, x + 60, 20, x + 60, 80, x, 80),
    })
    const start = makeEdit(
      drawingOf([ring('a', 0), ring('b', 100)]),
      'Light',
      (d) => void (d.settings.light = { at: { x: -200, y: -100 }, strength: 0.6, softness: 0.5, live: true }),
    )!.drawing
    const { drawing } = both(
      start,
      move('a', 0, 150),
      (d) => void (d.settings.light = { ...d.settings.light!, at: { x: 400, y: 300 } }),
    )
    const outsides = outsidesOf(items(drawing))
    for (const line of items(drawing)) {
      expect(litLine(line, outsides.get(line.id) ?? null, drawing.settings.light!)).toBe(line)
      expect(line.weight.unlit).toBeDefined()
    }
  })

  it('one retouches, the other changes Simplify: both stay, and nothing clashed', () => {
    const { drawing, clash } = both(
      drawingOf([across]),
      (d) => void (d.amendments = [{ id: 'r1', kind: 'retouch', at: { x: 0, y: 47 }, to: null }]),
      (d) => void (d.settings.shapes.simplify = 0.4),
    )
    expect(drawing).toMatchObject({ amendments: [{ id: 'r1' }], settings: { shapes: { simplify: 0.4 } } })
    expect(clash).toEqual([])
  })

  it('both retouch: both retouches stay', () => {
    const start = drawingOf([across], { amendments: [{ id: 'old', kind: 'retouch', at: { x: 9, y: 9 }, to: null }] })
    const add =
      (id: string): Recipe =>
      (d) =>
        void (d.amendments = [...d.amendments!, { id, kind: 'retouch', at: { x: 1, y: 2 }, to: 'add' }])
    const { drawing, clash } = both(start, add('theirs'), add('mine'))
    expect(drawing.amendments!.map((a) => a.id).sort()).toEqual(['mine', 'old', 'theirs'])
    expect(clash).toEqual([])
    const gone = both(start, (d) => void (d.amendments = []), add('mine'))
    expect(gone.drawing.amendments!.map((a) => a.id)).toEqual(['mine'])
  })

  it('both change the same setting: the words say so', () => {
    const simplify =
      (v: number): Recipe =>
      (d) =>
        void (d.settings.shapes.simplify = v)
    const { drawing, clash } = both(drawingOf([across]), simplify(0.3), simplify(0.7))
    expect(drawing.settings.shapes.simplify).toBe(0.7)
    expect(clash).toEqual(['Mine'])
  })
})
