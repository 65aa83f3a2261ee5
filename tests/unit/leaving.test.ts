import { Resvg } from '@resvg/resvg-js'
import { describe, expect, it } from 'vitest'
import { evenWeight, newDrawing, newLine, newLinesLayer } from '#core/model/create'
import type { Drawing, Line, Shape } from '#core/model/model'
import { writeSvg } from '#core/formats/svg/write-svg'
import { areaOfCubics } from '#core/geometry/area'
import { cubicsOfPath } from '#core/geometry/path'
import { shapesOf } from '#core/ink/shapes-of'
import { intersectShapes, unionShapes } from '#core/shapes/combine'
import type { Leaving } from '#core/ink/fills/knockout'
import { knockedOutShapes } from '#core/ink/fills/knockout'
import { seeded } from './support/random-lines'

const TOLERANCE = 0.05
const COLOURS = { black: '#211c1a', white: '#ffffff', plum: '#7a2b58', cream: '#f2ead2' }

/** Strokes in four inks over each other, the white ones often on top. */
function tangle(seed: number): Drawing {
  const r = seeded(seed)
  const lines = Array.from({ length: 22 }, (_, i): Line => {
    const p = (): { x: number; y: number } => ({ x: 40 + r() * 320, y: 40 + r() * 220 })
    return newLine(
      {
        nodes: [
          { at: p(), in: null, out: p(), joint: 'corner' },
          { at: p(), in: p(), out: null, joint: 'corner' },
        ],
        closed: false,
      },
      { id: `l${i}`, weight: evenWeight(4 + r() * 22), ink: Object.keys(COLOURS)[Math.floor(r() * 4)]! },
    )
  })
  const d = newDrawing('Tangle', { layers: [newLinesLayer('Ink', lines)] })
  return {
    ...d,
    page: { ...d.page, width: 400, height: 300 },
    inks: Object.entries(COLOURS).map(([id, colour]) => ({ id, name: id, colour })),
  }
}
const leave = (d: Drawing, how: Leaving): Shape[] =>
  knockedOutShapes(shapesOf(d).shapes, d.inks, how, { tolerance: TOLERANCE })
const areaOf = (contours: Shape['contours']): number => contours.reduce((n, c) => n + areaOfCubics(cubicsOfPath(c)), 0)

/** Rendered at 4x over `ground`, grey 0..255. */
function rendered(d: Drawing, shapes: readonly Shape[], ground: string): Uint8Array {
  const pixels = new Resvg(writeSvg(d, { content: 'outlines', shapes }), {
    fitTo: { mode: 'zoom', value: 4 },
    background: ground,
  }).render().pixels
  return Uint8Array.from({ length: pixels.length / 4 }, (_, i) => pixels[4 * i + 1]!)
}
/** Pixels that differ by more than `by`, of all. */
const differing = (a: Uint8Array, b: Uint8Array, by: number): number =>
  a.filter((v, i) => Math.abs(v - b[i]!) > by).length / a.length

describe.each([1, 2, 3])('shapes that leave (drawing %s)', (seed) => {
  const d = tangle(seed)
  const stacked = leave(d, 'stacked')
  const cut = leave(d, 'cut-out')

  it('cut out overlap nowhere', () => {
    const all = areaOf(unionShapes(cut, { tolerance: TOLERANCE }))
    expect(cut.reduce((n, s) => n + areaOf(s.contours), 0)).toBeCloseTo(all, 0)
    for (const [i, a] of cut.entries())
      for (const b of cut.slice(i + 1))
        expect(areaOf(intersectShapes([a, b], { tolerance: TOLERANCE }))).toBeLessThan(0.05)
    expect(stacked.reduce((n, s) => n + areaOf(s.contours), 0)).toBeGreaterThan(all * 1.05)
  })

  it('cut out look the same as stacked', () => {
    // Along borders neighbours let a little of the ground through: edges are smoothed one by one.
    const [a, b] = [rendered(d, stacked, '#808080'), rendered(d, cut, '#808080')]
    expect(differing(a, b, 100)).toBeLessThan(2e-4)
    const largest = Math.max(...cut.map((s) => areaOf(s.contours)))
    expect(
      differing(
        a,
        rendered(
          d,
          cut.filter((s) => areaOf(s.contours) < largest),
          '#808080',
        ),
        60,
      ),
    ).toBeGreaterThan(2e-3)
  })

  it('as one ink are one shape: dark where the dark is on top', () => {
    const one = leave(d, 'one')
    expect(one).toHaveLength(1)
    const dark = new Set(['black', 'plum'])
    const flat: Drawing = { ...d, inks: d.inks.map((i) => ({ ...i, colour: dark.has(i.id) ? '#000000' : '#ffffff' })) }
    const a = rendered(flat, stacked, '#ffffff')
    const b = rendered({ ...flat, inks: flat.inks.map((i) => ({ ...i, colour: '#000000' })) }, one, '#ffffff')
    expect(differing(a, b, 100)).toBeLessThan(2e-4)
  })
})
