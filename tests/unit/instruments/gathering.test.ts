import { describe, expect, it } from 'vitest'
import { Freehand } from '~/instruments/freehand'
import { Nodes } from '~/instruments/nodes'
import { frameAbout, scaling, turning } from '~/instruments/node-frame'
import { Pen } from '~/instruments/pen'
import { Select } from '~/instruments/select'
import { click, drag, hand, plainLine, TestWorktop } from '../support/desk'

const lines = () => [
  { ...plainLine({ x: 0, y: 0 }, { x: 100, y: 0 }), id: 'top' },
  { ...plainLine({ x: 0, y: 50 }, { x: 100, y: 50 }), id: 'middle' },
  { ...plainLine({ x: 0, y: 100 }, { x: 300, y: 100 }), id: 'long' },
]

describe('gathering lines', () => {
  it('a box takes what has any part in it, also where no node does', () => {
    const worktop = new TestWorktop(lines())
    drag(new Select(worktop), [40, 20, 60, 120])
    expect(worktop.chosen).toEqual(['middle', 'long'])
  })

  it('a lasso takes what lies wholly in it', () => {
    const worktop = new TestWorktop(lines())
    worktop.wants.gather = 'lasso'
    drag(new Select(worktop), [-20, 25, 150, 25, 150, 130, -20, 130])
    expect(worktop.chosen).toEqual(['middle'])
  })

  it('a touch takes what it goes over; Shift adds', () => {
    const worktop = new TestWorktop(lines())
    worktop.wants.gather = 'touch'
    drag(new Select(worktop), [200, 60, 200, 140])
    expect(worktop.chosen).toEqual(['long'])
    drag(new Select(worktop), [50, 25, 50, 70], { shift: true })
    expect(worktop.chosen).toEqual(['long', 'middle'])
  })
})

describe('gathering nodes', () => {
  it('takes those of several lines, and moves them together', () => {
    const worktop = new TestWorktop(lines())
    const nodes = new Nodes(worktop)
    drag(nodes, [80, -30, 130, 70])
    expect(worktop.chosenNodes).toEqual([
      { line: 'top', index: 1 },
      { line: 'middle', index: 1 },
    ])
    expect(nodes.marks().some((m) => m.kind === 'frame')).toBe(true)
    drag(nodes, [100, 0, 120, 10], { mark: { kind: 'node', line: 'top', index: 1 } })
    expect(worktop.lines.map((l) => l.path.nodes[1]!.at)).toEqual([
      { x: 120, y: 10 },
      { x: 120, y: 60 },
      { x: 300, y: 100 },
    ])
    expect(worktop.labels).toEqual(['Move nodes'])
  })

  it('scales and turns them by the frame, and Escape takes that back', () => {
    const worktop = new TestWorktop(lines())
    const nodes = new Nodes(worktop)
    drag(nodes, [80, -30, 130, 70])
    const before = worktop.now
    nodes.press(hand(110, 60, { mark: { kind: 'corner', index: 2 } }))
    nodes.move(hand(110, 130))
    expect(worktop.lines[1]!.path.nodes[1]!.at.y).toBeGreaterThan(100)
    nodes.key('Escape', false)
    expect(worktop.now).toBe(before)
    drag(nodes, [100, -44, 200, 25], { mark: { kind: 'turner' } })
    const [a, b] = worktop.lines.map((l) => l.path.nodes[1]!.at)
    expect(a!.y).toBeCloseTo(25, 6)
    expect(b!.x).toBeCloseTo(75, 6)
    expect(worktop.labels).toEqual(['Turn nodes'])
  })

  it('frames: proportion, middle, steps; one node has none', () => {
    expect(frameAbout([{ x: 0, y: 0 }], 1)).toBeNull()
    const frame = frameAbout(
      [
        { x: 10, y: 10 },
        { x: 90, y: 50 },
      ],
      1,
    )!
    expect(frame.corners[2]).toEqual({ x: 100, y: 60 })
    const even = scaling(frame, 2, { x: 100, y: 60 }, true, false)({ x: 100, y: 60 })
    expect([even.x, even.y]).toEqual([200, 120])
    const central = scaling(frame, 2, { x: 10, y: 0 }, false, true)
    expect(central({ x: 50, y: 30 })).toEqual({ x: 50, y: 30 })
    expect(central({ x: 0, y: 0 }).x).toBe(-10)
    const quarter = turning(frame, { x: 200, y: 31 }, true)({ x: 90, y: 30 })
    expect(quarter.x).toBeCloseTo(50, 6)
    expect(quarter.y).toBeCloseTo(70, 6)
  })
})

describe('the hand is drawn to places', () => {
  it('by the pen: to the end of a line, not with the key held, not where it is switched off', () => {
    for (const [free, ends, x] of [
      [false, true, 100],
      [true, true, 103],
      [false, false, 103],
    ] as const) {
      const worktop = new TestWorktop([lines()[0]!])
      Object.assign(worktop.wants.snaps, { end: ends, node: false, crossing: false, line: false })
      const pen = new Pen(worktop)
      click(pen, 200, 100, { free })
      pen.move(hand(103, 2, { free }))
      expect(pen.marks().some((m) => m.kind === 'snap' && /End · \d/.test(m.text))).toBe(x === 100)
      click(pen, 103, 2, { free })
      pen.key('Enter')
      expect(worktop.lines[1]!.path.nodes[1]!.at.x).toBe(x)
    }
  })

  it('by a node that is moved: its own line does not draw it', () => {
    const worktop = new TestWorktop([lines()[0]!, lines()[1]!])
    worktop.select(['top'])
    drag(new Nodes(worktop), [100, 0, 97, 47], { mark: { kind: 'node', line: 'top', index: 1 } })
    expect(worktop.lines[0]!.path.nodes[1]!.at).toEqual({ x: 100, y: 50 })
    drag(new Nodes(worktop), [100, 50, 4, 3], { mark: { kind: 'node', line: 'top', index: 1 } })
    expect(worktop.lines[0]!.path.nodes[1]!.at).toEqual({ x: 4, y: 3 })
  })
})

describe('an end mark', () => {
  it('stands out under the hand, and the hint says what a press on it does', () => {
    for (const make of [(b: TestWorktop) => new Pen(b), (b: TestWorktop) => new Freehand(b)]) {
      const worktop = new TestWorktop(lines())
      worktop.select(['top'])
      const tool = make(worktop)
      tool.move!(hand(109, 0, { mark: { kind: 'end', line: 'top', end: 'last' } }))
      expect(tool.marks().filter((m) => m.kind === 'end' && m.hot)).toHaveLength(1)
      expect(tool.hint()).toMatch(/go on with this line/)
      tool.move!(hand(150, 50))
      expect(tool.marks().some((m) => m.kind === 'end' && m.hot)).toBe(false)
    }
  })
})
