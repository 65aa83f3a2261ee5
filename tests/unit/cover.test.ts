import { describe, expect, it } from 'vitest'
import { newDrawing, newLine, newLinesLayer } from '#core/model/create'
import type { Line } from '#core/model/model'
import { movedLine } from '#core/editing/move'
import { figurePath } from '#core/editing/figures'
import { areaOfCubics } from '#core/geometry/area'
import { cubicsOfPath } from '#core/geometry/path'
import { shapesOf } from '#core/ink/shapes-of'
import { plainLine } from './support/desk'

const ellipse = (over: Partial<Line> = {}): Line => ({
  ...newLine(figurePath({ kind: 'ellipse', sides: 5, depth: 0.5, turns: 3 }, { x: 20, y: -30 }, { x: 80, y: 30 })),
  id: 'over',
  ink: 'red',
  cover: true,
  ...over,
})
const behind = { ...plainLine({ x: 0, y: 0 }, { x: 100, y: 0 }, 4), id: 'behind' }

/** Area of the black ink of these lines, px squared. */
function blackArea(lines: Line[]): number {
  const drawing = newDrawing('Test', {
    layers: [newLinesLayer('Lines', lines)],
    settings: { shapes: { unite: true, tolerance: 0.01, simplify: 0 } },
  })
  const black = shapesOf(drawing).shapes.filter((s) => s.ink === 'black')
  return black.reduce(
    (sum, s) => sum + s.contours.reduce((a, c) => a + areaOfCubics(cubicsOfPath({ ...c, closed: true })), 0),
    0,
  )
}

describe('a closed line that covers', () => {
  const whole = blackArea([behind])

  it('hides what lies behind it in the stack, and that alone', () => {
    expect(whole).toBeCloseTo(400 + Math.PI * 4, 0)
    // The line is 4 px wide and lies along the middle of an ellipse 60 px wide.
    expect(blackArea([behind, ellipse()])).toBeCloseTo(whole - 60 * 4, 0)
    expect(blackArea([ellipse(), behind])).toBeCloseTo(whole, 6)
    expect(blackArea([behind, ellipse({ cover: false })])).toBeCloseTo(whole, 6)
  })

  it('lets the hidden part come back when either line moves away', () => {
    expect(blackArea([behind, movedLine(ellipse(), { x: 0, y: 50 })])).toBeCloseTo(whole, 6)
    expect(blackArea([movedLine(behind, { x: 0, y: -60 }), ellipse()])).toBeCloseTo(whole, 6)
    expect(blackArea([behind, movedLine(ellipse(), { x: 50, y: 0 })])).toBeCloseTo(whole - 30 * 4 - Math.PI * 2, 0)
  })

  it('that is open covers nothing', () => {
    const open = ellipse()
    expect(blackArea([behind, { ...open, path: { ...open.path, closed: false } }])).toBeCloseTo(whole, 6)
  })
})
