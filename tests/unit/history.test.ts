import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { newDrawing, newLine } from '#core/model/create'
import type { Edit } from '#core/document/edits'
import { applyEdit, makeEdit, walkOver } from '#core/document/edits'
import { advance, emptyHistory, replay } from '#core/document/history'
import type { Drawing } from '#core/model/model'
import { checkTouched } from '#core/document/check-drawing'
import { randomLine } from './support/random-lines'

const start = newDrawing('Start')

type Act = 'add' | 'remove' | 'rename' | 'undo' | 'redo'

/** Plays acts; answers the journal, the documents along the way and the history kept step by step. */
function play(acts: Act[]) {
  let drawing: Drawing = start
  let history = emptyHistory()
  const journal: Edit[] = []
  acts.forEach((act, i) => {
    let edit: Edit | undefined
    if (act === 'undo' || act === 'redo') {
      const step = history[act].at(-1)
      edit = step && walkOver(step, act)
    } else {
      edit = makeEdit(drawing, act, (d) => {
        const layer = d.layers[0]!
        if (act === 'add') layer.items.push(newLine(randomLine(i + 1).path) as never)
        else if (act === 'remove') layer.items.shift()
        else d.name = `Name ${i}`
      })?.edit
    }
    if (!edit) return
    drawing = applyEdit(drawing, edit)
    history = advance(history, edit)
    journal.push(edit)
  })
  return { drawing, history, journal }
}

const acts = fc.array(fc.constantFrom<Act>('add', 'remove', 'rename', 'undo', 'redo'), { maxLength: 40 })

describe('the history', () => {
  it('read back from the journal is the history that was kept', () => {
    fc.assert(
      fc.property(acts, (all) => {
        const { history, journal } = play(all)
        const again = replay(journal)
        expect(again.undo.map((e) => e.id)).toEqual(history.undo.map((e) => e.id))
        expect(again.redo.map((e) => e.id)).toEqual(history.redo.map((e) => e.id))
      }),
      { seed: 1 },
    )
  })

  it('undoing everything leads back to the start, redoing everything to the end', () => {
    fc.assert(
      fc.property(acts, (all) => {
        const played = play(all)
        let { drawing, history } = played
        for (const way of ['undo', 'redo'] as const) {
          for (;;) {
            const step = history[way].at(-1)
            if (!step) break
            const edit = walkOver(step, way)
            drawing = applyEdit(drawing, edit)
            history = advance(history, edit)
          }
          if (way === 'undo') expect(drawing).toEqual(start)
        }
        const end = replay(played.journal).redo.length === 0 ? played.drawing : null
        if (end) expect(drawing).toEqual(end)
      }),
      { seed: 2 },
    )
  })

  it('survives JSON', () => {
    const { journal, drawing } = play(['add', 'add', 'remove', 'rename', 'undo'])
    let again: Drawing = JSON.parse(JSON.stringify(start)) as Drawing
    for (const edit of JSON.parse(JSON.stringify(journal)) as Edit[]) again = applyEdit(again, edit)
    expect(again).toEqual(drawing)
  })

  it('an edit that changes nothing is none', () => {
    expect(makeEdit(start, 'x', () => undefined)).toBeNull()
  })

  it('a new edit forgets what was undone', () => {
    expect(play(['add', 'undo', 'rename']).history.redo).toEqual([])
  })
})

describe('checking what an edit touched', () => {
  const withLine = makeEdit(start, 'add', (d) => void d.layers[0]!.items.push(newLine(randomLine(1).path) as never))!

  it('passes good edits', () => {
    expect(() => checkTouched(withLine.drawing, withLine.edit.patches)).not.toThrow()
  })

  it.each([
    [
      'a line that was added',
      (d: Drawing) => void d.layers[0]!.items.push({ ...newLine(randomLine(2).path), weight: null } as never),
    ],
    [
      'a width deep in a line',
      (d: Drawing) => void ((d.layers[0]!.items[0] as { weight: { size: number } }).weight.size = -4),
    ],
    ['a layer', (d: Drawing) => void (d.layers[0]!.opacity = 7)],
    ['the drawing', (d: Drawing) => void (d.name = '')],
  ])('refuses a bad value in %s', (_name, recipe) => {
    const bad = makeEdit(withLine.drawing, 'bad', recipe)!
    expect(() => checkTouched(bad.drawing, bad.edit.patches)).toThrow()
  })
})
