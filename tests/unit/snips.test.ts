import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { copiedLines } from '#core/editing/copies'
import { newDrawing, newLine, newLinesLayer } from '#core/model/create'
import { makeEdit } from '#core/document/edits'
import type { Drawing, Line, LinesLayer } from '#core/model/model'
import type { Path } from '#core/geometry/path'
import type { Vec } from '#core/geometry/point'
import { movedLine } from '#core/editing/move'
import { cutsOf, stretchAround } from '#core/editing/snips'
import { expandLine } from '#core/outline/expand'
import { arcOfPath } from '#core/geometry/known'
import { boxOfCubics } from '#core/geometry/bounds'
import { cubicsOfPath } from '#core/geometry/path'
import { plainLine, straightPath } from './support/desk'

const across = (x: number): Line => ({ ...plainLine({ x, y: -50 }, { x, y: 50 }, 4), id: `at ${x}` })
const along = (): Line => ({ ...plainLine({ x: 0, y: 0 }, { x: 100, y: 0 }, 4), id: 'along' })

const drawingOf = (lines: Line[]): Drawing => newDrawing('Test', { layers: [newLinesLayer('Lines', lines)] })
const line = (d: Drawing, id: string): Line => (d.layers[0] as LinesLayer).items.find((l) => l.id === id)!
const edited = (d: Drawing, id: string, change: (l: Line) => Line): Drawing =>
  makeEdit(d, 'Edit', (draft) => {
    const items = (draft.layers[0] as LinesLayer).items
    items[items.findIndex((l) => l.id === id)] = change(items.find((l) => l.id === id)!)
  })?.drawing ?? d

/** The drawing with what lies around `at` of "along" snipped. */
const snipped = (lines: Line[], at: number): Drawing => {
  const drawing = drawingOf(lines)
  return edited(drawing, 'along', (l) => ({ ...l, snips: [stretchAround(l, lines, at)!] }))
}

describe('a snip of a copy', () => {
  it('keeps to the copy of the line that bounds it, or to where that line crosses the copy', () => {
    const drawing = snipped([along(), across(30), across(80)], 0.5)
    const lines = (drawing.layers[0] as LinesLayer).items
    const all = copiedLines(lines, { x: 10, y: 5 }, lines)
    expect(all[0]!.snips).toEqual([
      {
        from: expect.closeTo(0.3, 9) as number,
        to: expect.closeTo(0.8, 9) as number,
        fromBy: all[1]!.id,
        toBy: all[2]!.id,
      },
    ])
    // Copied alone, it ends where the lines that stay cross it now; what crosses it no longer bounds nothing.
    const [alone] = copiedLines([line(drawing, 'along')], { x: 10, y: 5 }, lines)
    expect(alone!.snips).toEqual([
      { from: expect.closeTo(0.2, 9) as number, to: expect.closeTo(0.7, 9) as number, fromBy: 'at 30', toBy: 'at 80' },
    ])
    const [away] = copiedLines([line(drawing, 'along')], { x: 10, y: 500 }, lines)
    expect(away!.snips).toEqual([{ from: expect.closeTo(0.3, 9) as number, to: expect.closeTo(0.8, 9) as number }])
  })
})

describe('a snip', () => {
  it('hides what lies beyond a crossing or between two, cut square where the line crosses', () => {
    const lines = [along(), across(30), across(80)]
    expect(cutsOf(lines[0]!, lines).map((c) => [Math.round(c.at * 1e9) / 1e9, c.by])).toEqual([
      [0.3, 'at 30'],
      [0.8, 'at 80'],
    ])
    const box = (at: number): number[] => {
      const b = boxOfCubics(
        expandLine(line(snipped(lines, at), 'along'), { tolerance: 0.01 }).flatMap((c) =>
          cubicsOfPath({ ...c, closed: true }),
        ),
      )
      return [b.minX, b.maxX].map((v) => Math.round(v * 10) / 10)
    }
    expect(box(0.1)).toEqual([30, 102])
    expect(box(0.9)).toEqual([-2, 80])
    const between = expandLine(line(snipped(lines, 0.5), 'along'), { tolerance: 0.01 })
    expect(between).toHaveLength(2)
  })

  it('is nothing where no line crosses', () => {
    expect(stretchAround(along(), [], 0.5)).toBeNull()
    expect(stretchAround(along(), [across(400)], 0.5)).toBeNull()
  })

  it('follows its crossing when either line moves or is bent, and undo restores it exactly', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -25, max: 15, noNaN: true }),
        fc.double({ min: -20, max: 20, noNaN: true }),
        fc.boolean(),
        (dx, dy, other) => {
          const before = snipped([along(), across(80)], 0.9)
          const id = other ? 'at 80' : 'along'
          const edit = makeEdit(before, 'Move', (draft) => {
            const items = (draft.layers[0] as LinesLayer).items
            const i = items.findIndex((l) => l.id === id)
            items[i] = movedLine(items[i]!, { x: dx, y: dy })
          })
          if (!edit) return
          const now = line(edit.drawing, 'along')
          const [snip] = now.snips
          const hidden = arcOfPath(now.path).point(snip!.from * arcOfPath(now.path).total)
          expect(snip!.idle ?? false).toBe(false)
          expect(hidden.x).toBeCloseTo(other ? 80 + dx : 80, 6)
          expect(snip!.to).toBe(1)
          const back = makeEdit(edit.drawing, 'Back', (draft) => {
            const items = (draft.layers[0] as LinesLayer).items
            items[items.findIndex((l) => l.id === id)] = line(before, id)
          })!
          expect(line(back.drawing, 'along').snips[0]!.from).toBeCloseTo(line(before, 'along').snips[0]!.from, 9)
        },
      ),
      { seed: 8, numRuns: 60 },
    )
  })

  it('keeps to its crossing by number where two lines cross twice', () => {
    const wave: Path = {
      closed: false,
      nodes: [
        { at: { x: 10, y: -20 }, in: null, out: { x: 30, y: 60 }, joint: 'corner' },
        { at: { x: 90, y: -20 }, in: { x: 70, y: 60 }, out: null, joint: 'corner' },
      ],
    }
    const bent = { ...newLine(wave), id: 'wave' }
    const before = snipped([along(), bent], 0.5)
    const [first, second] = cutsOf(along(), [bent]).map((c) => c.at)
    expect(line(before, 'along').snips[0]).toMatchObject({ from: first, to: second, fromBy: 'wave', toBy: 'wave' })
    const after = edited(before, 'wave', (l) => movedLine(l, { x: 10, y: 0 }))
    const snip = line(after, 'along').snips[0]!
    expect(snip.from).toBeCloseTo(first! + 0.1, 6)
    expect(snip.to).toBeCloseTo(second! + 0.1, 6)
  })

  it('waits while the lines do not cross, and hides again when they do', () => {
    const before = snipped([along(), across(80)], 0.9)
    const apart = edited(before, 'at 80', (l) => movedLine(l, { x: 0, y: 200 }))
    expect(line(apart, 'along').snips[0]).toMatchObject({ idle: true })
    const whole = boxOfCubics(
      expandLine(line(apart, 'along'), { tolerance: 0.01 }).flatMap((c) => cubicsOfPath({ ...c, closed: true })),
    )
    expect(whole.maxX).toBeCloseTo(102, 1)
    const again = edited(apart, 'at 80', (l) => movedLine(l, { x: -20, y: -200 }))
    expect(line(again, 'along').snips[0]!.idle).toBeUndefined()
    expect(line(again, 'along').snips[0]!.from).toBeCloseTo(0.6, 6)
    const gone = makeEdit(before, 'Delete', (draft) => void (draft.layers[0] as LinesLayer).items.splice(1, 1))!
    expect(line(gone.drawing, 'along').snips[0]).toMatchObject({ idle: true })
  })

  it('of a closed line may go round by way of its first node, and leaves no notch there', () => {
    const corner = (x: number, y: number): Path['nodes'][number] => ({
      at: { x, y },
      in: null,
      out: null,
      joint: 'corner',
    })
    const square = {
      ...newLine({ nodes: [corner(0, 0), corner(100, 0), corner(100, 100), corner(0, 100)], closed: true }),
      id: 'along',
    }
    const cut = { ...newLine(straightPath({ x: -50, y: 50 }, { x: 150, y: 50 })), id: 'cut' }
    const top = stretchAround(square, [cut], 0.01)!
    expect(top.from).toBeCloseTo(0.875, 6)
    expect(top.to).toBeCloseTo(0.375, 6)
    const hidden = boxOfCubics(
      expandLine({ ...square, snips: [top] }, { tolerance: 0.01 }).flatMap((c) => cubicsOfPath({ ...c, closed: true })),
    )
    expect(hidden.minY).toBeCloseTo(50, 3)
    const bottom = expandLine({ ...square, snips: [stretchAround(square, [cut], 0.6)!] }, { tolerance: 0.01 })
    expect(bottom).toHaveLength(1)
    const points: Vec[] = bottom[0]!.nodes.map((n) => n.at)
    expect(Math.min(...points.map((p) => p.y))).toBeCloseTo(-3, 1)
    expect(Math.max(...points.map((p) => p.y))).toBeCloseTo(50, 3)
  })
})
