import { describe, expect, it } from 'vitest'
import { changed } from '#core/document/edits'
import { patchesBetween } from '#core/document/patches-between'
import { CASTS, decideFronts, throwFrom } from '#core/editing/fronts'
import { movedLine } from '#core/editing/move'
import { cubicsOfPath } from '#core/geometry/path'
import type { Vec } from '#core/geometry/point'
import { windingAt } from '#core/geometry/winding-at'
import { openInk } from '#core/ink/open-ink'
import { shapesOf } from '#core/ink/shapes-of'
import { evenWeight, newDrawing, newLine, newLinesLayer } from '#core/model/create'
import type { Drawing } from '#core/model/model'
import { atOnce } from '#core/turns'
import { polygon } from './support/paths'

const wall = newLine(polygon(40, 40, 300, 52, 280, 220, 30, 200), { id: 'wall', weight: evenWeight(2) })
const pot = newLine(polygon(120, 90, 200, 84, 210, 160, 128, 170), { id: 'pot', weight: evenWeight(2) })
// From the upper left: the right and the lower edge of the pot face away.
const base: Drawing = newDrawing('Thrown', {
  page: { width: 400, height: 300, unit: 'px', pxPerMm: 4 },
  layers: [newLinesLayer('Lines', [wall, pot])],
})
const lit: Drawing = {
  ...base,
  settings: { ...base.settings, light: { at: { x: 0, y: 20 }, strength: 0.5, softness: 0.5, live: false } },
}
const before = (d: Drawing): Drawing =>
  changed(d, (draft) => decideFronts(draft, [{ form: ['pot'], to: ['wall'], choice: 'before' }]))
const throwing = (d: Drawing, to: keyof typeof CASTS): Drawing =>
  changed(d, (draft) => throwFrom(draft, ['pot'], CASTS[to]))
const inkAt = (drawing: Drawing, points: readonly Vec[]): boolean[] => {
  const contours = shapesOf(drawing).shapes.flatMap((s) => s.contours.map((c) => cubicsOfPath(c)))
  return points.map((p) => windingAt(contours, p) !== 0)
}

/** Right of the pot, below it, left of it, above it, within it. */
const ABOUT = [
  { x: 210, y: 130 },
  { x: 170, y: 169 },
  { x: 120, y: 130 },
  { x: 160, y: 83 },
  { x: 200, y: 130 },
]

describe('what a form throws', () => {
  it('lies along its edge away from the light, on what it lies in front of', () => {
    const drawing = throwing(before(lit), 'black')
    expect(inkAt(before(lit), ABOUT)).toEqual([false, false, false, false, false])
    expect(inkAt(drawing, ABOUT)).toEqual([true, true, false, false, false])
    // On nothing else: neither where it lies in front of nothing, nor beyond what is behind it.
    expect(inkAt(throwing(lit, 'black'), ABOUT)).toEqual([false, false, false, false, false])
    const edge = movedLine(pot, { x: 76, y: 0 })
    const out = { ...drawing, layers: [newLinesLayer('Lines', [wall, edge])] }
    expect(
      inkAt(out, [
        { x: 294, y: 130 },
        { x: 246, y: 169 },
      ]),
    ).toEqual([false, true])
    // With the light on the other side it falls there.
    const turned = {
      ...drawing,
      settings: { ...drawing.settings, light: { ...lit.settings.light!, at: { x: 400, y: 280 } } },
    }
    expect(inkAt(turned, [{ x: 121, y: 130 }, ABOUT[0]!])).toEqual([true, false])
  })

  it('is a line off the edge where that is wished, and goes where its form goes', () => {
    const drawing = throwing(before(lit), 'line')
    const across = Array.from({ length: 60 }, (_, i) => ({ x: 206 + i * 0.1, y: 130 }))
    const runs = inkAt(drawing, across).reduce<boolean[]>((all, is) => (all.at(-1) === is ? all : [...all, is]), [])
    // The outline of the pot, paper, the line, paper.
    expect(runs).toEqual([true, false, true, false])
    const ink = openInk(drawing)
    atOnce(ink.shapes())
    const moved = changed(drawing, (d) => {
      d.layers[0]!.items = [wall, movedLine(pot, { x: -30, y: 10 })]
    })
    ink.apply(patchesBetween(drawing, moved))
    const [kept, fresh] = [atOnce(ink.shapes()), shapesOf(moved)]
    expect(kept.shapes.map((s) => s.contours)).toEqual(fresh.shapes.map((s) => s.contours))
    const there = inkAt(
      moved,
      across.map((p) => ({ x: p.x - 30, y: p.y + 10 })),
    )
    // As wide as before, but for what the light falls otherwise there.
    const wide = (all: boolean[]): number => all.filter(Boolean).length
    expect(Math.abs(wide(there) - wide(inkAt(drawing, across)))).toBeLessThan(3)
    expect(there.slice(20)).toContain(true)
  })

  it('waits while its form is gone, and is taken back', () => {
    const drawing = throwing(before(lit), 'black')
    const [cast] = drawing.amendments!.filter((a) => a.kind === 'cast')
    expect(shapesOf({ ...drawing, layers: [newLinesLayer('Lines', [wall])] }).waits).toContain(cast!.id)
    expect(changed(drawing, (d) => throwFrom(d, ['pot'], null)).amendments).toEqual(
      before(lit).amendments!.map((a) => ({ ...a, id: expect.any(String) as string })),
    )
  })
})
