import { expect, it } from 'vitest'
import { applyPatches } from '#core/document/apply-patches'
import { makeEdit } from '#core/document/edits'
import { newDrawing, newLine, newLinesLayer } from '#core/model/create'
import { noteStep, patchesTo } from '~/workers/known-steps'
import { polyline } from './support/paths'

it('patches of the newest step are those that were noted; between any other drawings they are found, and lead there', () => {
  const start = newDrawing('Steps', {
    layers: [newLinesLayer('Lines', [newLine(polyline(3, 5, 80, 41)), newLine(polyline(9, 70, 64, 12, 90, 33))])],
  })
  const first = makeEdit(start, 'Name', (d) => void (d.layers[0]!.name = 'Stalks'))!
  const second = makeEdit(first.drawing, 'Gone', (d) => void d.layers[0]!.items.splice(1, 1))!
  noteStep(start, first.drawing, first.edit.patches)
  expect(patchesTo(start, first.drawing)).toBe(first.edit.patches)
  expect(applyPatches(start, [...patchesTo(start, second.drawing)])).toEqual(second.drawing)
  expect(applyPatches(second.drawing, [...patchesTo(second.drawing, first.drawing)])).toEqual(first.drawing)
  noteStep(first.drawing, second.drawing, second.edit.patches)
  expect(patchesTo(start, first.drawing)).not.toBe(first.edit.patches)
  expect(patchesTo(first.drawing, second.drawing)).toBe(second.edit.patches)
})
