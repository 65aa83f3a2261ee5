import { describe, expect, it } from 'vitest'
import { pointAt } from '#core/geometry/cubic'
import { cubicsOfPath } from '#core/geometry/path'
import { Pen } from '~/instruments/pen'
import { click, drag, hand, plainLine, TestWorktop } from '../support/desk'

describe('the pen', () => {
  it('lays corners by clicks and finishes with Enter', () => {
    const worktop = new TestWorktop()
    const pen = new Pen(worktop)
    click(pen, 0, 0)
    click(pen, 50, 0)
    click(pen, 50, 50)
    expect(worktop.lines).toHaveLength(0)
    expect(pen.key('Enter')).toBe(true)
    expect(worktop.lines[0]!.path).toMatchObject({ closed: false })
    expect(worktop.lines[0]!.path.nodes.map((n) => n.at)).toEqual([
      { x: 0, y: 0 },
      { x: 50, y: 0 },
      { x: 50, y: 50 },
    ])
    expect(worktop.lines[0]!.path.nodes.every((n) => !n.in && !n.out)).toBe(true)
    expect(worktop.chosen).toEqual([worktop.lines[0]!.id])
  })

  it('lays a smooth node by a drag, its handles opposite', () => {
    const worktop = new TestWorktop()
    const pen = new Pen(worktop)
    click(pen, 0, 0)
    drag(pen, [50, 0, 60, 5, 70, 10])
    click(pen, 100, 50)
    pen.key('Enter')
    expect(worktop.lines[0]!.path.nodes[1]).toEqual({
      at: { x: 50, y: 0 },
      in: { x: 30, y: -10 },
      out: { x: 70, y: 10 },
      joint: 'smooth',
    })
  })

  it('with Alt pulls only the handle ahead', () => {
    const worktop = new TestWorktop()
    const pen = new Pen(worktop)
    click(pen, 0, 0)
    drag(pen, [50, 0, 70, 10], { alt: true })
    click(pen, 90, 0)
    pen.key('Enter')
    expect(worktop.lines[0]!.path.nodes[1]).toMatchObject({ in: null, out: { x: 70, y: 10 }, joint: 'corner' })
  })

  it('with Shift keeps to steps of 15 degrees', () => {
    const worktop = new TestWorktop()
    const pen = new Pen(worktop)
    click(pen, 0, 0)
    click(pen, 100, 4, { shift: true })
    pen.key('Enter')
    expect(worktop.lines[0]!.path.nodes[1]!.at.y).toBeCloseTo(0, 9)
  })

  it('closes on its start', () => {
    const worktop = new TestWorktop()
    const pen = new Pen(worktop)
    click(pen, 0, 0)
    click(pen, 50, 0)
    click(pen, 25, 40)
    expect(pen.marks().some((m) => m.kind === 'closer')).toBe(true)
    click(pen, 0, 0, { mark: { kind: 'closer' } })
    expect(worktop.lines[0]!.path.closed).toBe(true)
    expect(worktop.lines[0]!.path.nodes).toHaveLength(3)
  })

  it('finishes with a double-click without a node too many', () => {
    const worktop = new TestWorktop()
    const pen = new Pen(worktop)
    click(pen, 0, 0)
    click(pen, 50, 0)
    click(pen, 50, 0, { clicks: 2 })
    expect(worktop.lines[0]!.path.nodes).toHaveLength(2)
  })

  it('steps back with Backspace and drops with Escape', () => {
    const worktop = new TestWorktop()
    const pen = new Pen(worktop)
    click(pen, 0, 0)
    click(pen, 50, 0)
    click(pen, 99, 9)
    pen.key('Backspace')
    pen.key('Enter')
    expect(worktop.lines[0]!.path.nodes).toHaveLength(2)
    click(pen, 0, 0)
    click(pen, 50, 0)
    pen.key('Escape')
    pen.key('Enter')
    expect(worktop.lines).toHaveLength(1)
  })

  it('takes its last node back on undo, and leaves undo alone when nothing is laid', () => {
    const worktop = new TestWorktop()
    const pen = new Pen(worktop)
    expect(pen.stepBack()).toBe(false)
    for (const x of [0, 50, 99]) click(pen, x, 0)
    expect(pen.stepBack()).toBe(true)
    pen.key('Enter')
    expect(worktop.lines[0]!.path.nodes.map((n) => n.at.x)).toEqual([0, 50])
  })

  it('a double-click to begin with lays one node, not two', () => {
    const worktop = new TestWorktop()
    const pen = new Pen(worktop)
    click(pen, 0, 0)
    click(pen, 0, 0, { clicks: 2 })
    click(pen, 50, 0)
    pen.key('Enter')
    expect(worktop.lines[0]!.path.nodes).toHaveLength(2)
  })

  it('shows the next segment before it is placed', () => {
    const pen = new Pen(new TestWorktop())
    click(pen, 0, 0)
    pen.move(hand(30, 30))
    const next = pen.marks().find((m) => m.kind === 'paths' && m.tone === 'next')
    expect(next).toMatchObject({ paths: [{ nodes: [{ at: { x: 0, y: 0 } }, { at: { x: 30, y: 30 } }] }] })
  })

  it('keeps what is laid when it is put down, and one click is nothing', () => {
    const worktop = new TestWorktop()
    const pen = new Pen(worktop)
    click(pen, 0, 0)
    pen.leave()
    expect(worktop.lines).toHaveLength(0)
    click(pen, 0, 0)
    click(pen, 9, 0)
    pen.leave()
    expect(worktop.lines).toHaveLength(1)
  })

  it('does not begin where no layer takes ink', () => {
    const worktop = new TestWorktop()
    worktop.locked = true
    const pen = new Pen(worktop)
    click(pen, 0, 0)
    expect(pen.marks()).toEqual([])
  })

  it('never alters a line that is near or chosen', () => {
    const old = plainLine({ x: 0, y: 0 }, { x: 50, y: 0 })
    const worktop = new TestWorktop([old])
    worktop.select([old.id])
    const pen = new Pen(worktop)
    click(pen, 50, 0)
    click(pen, 90, 0)
    pen.key('Enter')
    expect(worktop.lines[0]).toEqual(old)
    expect(worktop.lines).toHaveLength(2)
  })

  it('lays a smooth curve through clicks when they join smoothly, and shows it ahead of the pointer', () => {
    const worktop = new TestWorktop()
    worktop.wants.penJoins = 'smooth'
    const pen = new Pen(worktop)
    for (const [x, y] of [
      [0, 0],
      [50, 40],
      [100, 0],
    ] as const)
      click(pen, x, y)
    pen.move(hand(150, 40))
    const next = pen.marks().find((m) => m.kind === 'paths' && m.tone === 'next')
    expect(next).toMatchObject({ paths: [{ nodes: [{ joint: 'smooth' }, { at: { x: 150, y: 40 } }] }] })
    pen.key('Enter')
    const { nodes } = worktop.lines[0]!.path
    expect(nodes.map((n) => n.joint)).toEqual(['corner', 'smooth', 'corner'])
    // The curve turns about the middle point level, as its neighbours lie level.
    expect(nodes[1]!.in!.y).toBeCloseTo(40, 9)
    expect(nodes[1]!.out!.y).toBeCloseTo(40, 9)
    for (const c of cubicsOfPath(worktop.lines[0]!.path))
      for (const t of [0.2, 0.5, 0.8]) expect(pointAt(c, t).y).toBeLessThanOrEqual(40 + 1e-9)
  })

  it('keeps all segments straight when asked to, also under a drag', () => {
    const worktop = new TestWorktop()
    worktop.wants.penJoins = 'straight'
    const pen = new Pen(worktop)
    click(pen, 0, 0)
    drag(pen, [50, 0, 70, 30])
    pen.key('Enter')
    expect(worktop.lines[0]!.path.nodes.every((n) => !n.in && !n.out && n.joint === 'corner')).toBe(true)
  })

  it('a press on the last node takes its outgoing handle back', () => {
    const worktop = new TestWorktop()
    const pen = new Pen(worktop)
    click(pen, 0, 0)
    drag(pen, [50, 0, 70, 10])
    click(pen, 50, 0, { mark: { kind: 'joint', index: 1 } })
    click(pen, 100, 0)
    pen.key('Enter')
    expect(worktop.lines[0]!.path.nodes).toHaveLength(3)
    expect(worktop.lines[0]!.path.nodes[1]).toMatchObject({ in: { x: 30, y: -10 }, out: null, joint: 'corner' })
  })

  it.each([
    [
      'last',
      [
        { x: 0, y: 0 },
        { x: 50, y: 0 },
        { x: 90, y: 9 },
      ],
    ],
    [
      'first',
      [
        { x: 90, y: 9 },
        { x: 0, y: 0 },
        { x: 50, y: 0 },
      ],
    ],
  ] as const)('goes on with a line from its %s end when its mark is pressed, and says so', (end, places) => {
    const old = plainLine({ x: 0, y: 0 }, { x: 50, y: 0 })
    const worktop = new TestWorktop([old])
    worktop.select([old.id])
    const pen = new Pen(worktop)
    expect(pen.hint()).toContain('end mark')
    expect(
      pen
        .marks()
        .filter((m) => m.kind === 'end')
        .map((m) => m.ref),
    ).toContainEqual({ kind: 'end', line: old.id, end })
    click(pen, 0, 0, { mark: { kind: 'end', line: old.id, end } })
    click(pen, 90, 9)
    pen.key('Enter')
    expect(worktop.lines).toHaveLength(1)
    expect(worktop.lines[0]!.id).toBe(old.id)
    expect(worktop.lines[0]!.path.nodes.map((n) => n.at)).toEqual(places)
    expect(worktop.labels).toEqual(['Go on with a line'])
  })

  it('lets a line that it goes on with be: dropped, stepped back, or changed by another hand', () => {
    const old = plainLine({ x: 0, y: 0 }, { x: 50, y: 0 })
    const worktop = new TestWorktop([old])
    const pen = new Pen(worktop)
    const begin = () => {
      click(pen, 0, 0, { mark: { kind: 'end', line: old.id, end: 'last' } })
      click(pen, 90, 9)
    }
    for (const letGo of [() => pen.key('Escape'), () => (pen.stepBack(), pen.stepBack()), () => pen.overtaken()]) {
      begin()
      letGo()
      pen.key('Enter')
      expect(worktop.lines).toEqual([old])
      expect(worktop.labels).toEqual([])
    }
  })
})
