import { describe, expect, it } from 'vitest'
import { Pen } from '~/instruments/pen'
import { click, drag, hand, plainLine, TestBench } from '../support/desk'

describe('the pen', () => {
  it('lays corners by clicks and finishes with Enter', () => {
    const bench = new TestBench()
    const pen = new Pen(bench)
    click(pen, 0, 0)
    click(pen, 50, 0)
    click(pen, 50, 50)
    expect(bench.lines).toHaveLength(0)
    expect(pen.key('Enter')).toBe(true)
    expect(bench.lines[0]!.path).toMatchObject({ closed: false })
    expect(bench.lines[0]!.path.nodes.map((n) => n.at)).toEqual([{ x: 0, y: 0 }, { x: 50, y: 0 }, { x: 50, y: 50 }])
    expect(bench.lines[0]!.path.nodes.every((n) => !n.in && !n.out)).toBe(true)
    expect(bench.chosen).toEqual([bench.lines[0]!.id])
  })

  it('lays a smooth node by a drag, its handles opposite', () => {
    const bench = new TestBench()
    const pen = new Pen(bench)
    click(pen, 0, 0)
    drag(pen, [[50, 0], [60, 5], [70, 10]])
    click(pen, 100, 50)
    pen.key('Enter')
    expect(bench.lines[0]!.path.nodes[1]).toEqual({ at: { x: 50, y: 0 }, in: { x: 30, y: -10 }, out: { x: 70, y: 10 }, joint: 'smooth' })
  })

  it('with Alt pulls only the handle ahead', () => {
    const bench = new TestBench()
    const pen = new Pen(bench)
    click(pen, 0, 0)
    drag(pen, [[50, 0], [70, 10]], { alt: true })
    click(pen, 90, 0)
    pen.key('Enter')
    expect(bench.lines[0]!.path.nodes[1]).toMatchObject({ in: null, out: { x: 70, y: 10 }, joint: 'corner' })
  })

  it('with Shift keeps to steps of 15 degrees', () => {
    const bench = new TestBench()
    const pen = new Pen(bench)
    click(pen, 0, 0)
    click(pen, 100, 4, { shift: true })
    pen.key('Enter')
    expect(bench.lines[0]!.path.nodes[1]!.at.y).toBeCloseTo(0, 9)
  })

  it('closes on its start', () => {
    const bench = new TestBench()
    const pen = new Pen(bench)
    click(pen, 0, 0)
    click(pen, 50, 0)
    click(pen, 25, 40)
    expect(pen.marks().some((m) => m.kind === 'closer')).toBe(true)
    click(pen, 0, 0, { mark: { kind: 'closer' } })
    expect(bench.lines[0]!.path.closed).toBe(true)
    expect(bench.lines[0]!.path.nodes).toHaveLength(3)
  })

  it('finishes with a double-click without a node too many', () => {
    const bench = new TestBench()
    const pen = new Pen(bench)
    click(pen, 0, 0)
    click(pen, 50, 0)
    click(pen, 50, 0, { clicks: 2 })
    expect(bench.lines[0]!.path.nodes).toHaveLength(2)
  })

  it('steps back with Backspace and drops with Escape', () => {
    const bench = new TestBench()
    const pen = new Pen(bench)
    click(pen, 0, 0)
    click(pen, 50, 0)
    click(pen, 99, 9)
    pen.key('Backspace')
    pen.key('Enter')
    expect(bench.lines[0]!.path.nodes).toHaveLength(2)
    click(pen, 0, 0)
    click(pen, 50, 0)
    pen.key('Escape')
    pen.key('Enter')
    expect(bench.lines).toHaveLength(1)
  })

  it('takes its last node back on undo, and leaves undo alone when nothing is laid', () => {
    const bench = new TestBench()
    const pen = new Pen(bench)
    expect(pen.stepBack()).toBe(false)
    for (const x of [0, 50, 99]) click(pen, x, 0)
    expect(pen.stepBack()).toBe(true)
    pen.key('Enter')
    expect(bench.lines[0]!.path.nodes.map((n) => n.at.x)).toEqual([0, 50])
  })

  it('a double-click to begin with lays one node, not two', () => {
    const bench = new TestBench()
    const pen = new Pen(bench)
    click(pen, 0, 0)
    click(pen, 0, 0, { clicks: 2 })
    click(pen, 50, 0)
    pen.key('Enter')
    expect(bench.lines[0]!.path.nodes).toHaveLength(2)
  })

  it('shows the next segment before it is placed', () => {
    const pen = new Pen(new TestBench())
    click(pen, 0, 0)
    pen.move(hand(30, 30))
    const next = pen.marks().find((m) => m.kind === 'paths' && m.tone === 'next')
    expect(next).toMatchObject({ paths: [{ nodes: [{ at: { x: 0, y: 0 } }, { at: { x: 30, y: 30 } }] }] })
  })

  it('keeps what is laid when it is put down, and one click is nothing', () => {
    const bench = new TestBench()
    const pen = new Pen(bench)
    click(pen, 0, 0)
    pen.leave()
    expect(bench.lines).toHaveLength(0)
    click(pen, 0, 0)
    click(pen, 9, 0)
    pen.leave()
    expect(bench.lines).toHaveLength(1)
  })

  it('does not begin where no layer takes ink', () => {
    const bench = new TestBench()
    bench.locked = true
    const pen = new Pen(bench)
    click(pen, 0, 0)
    expect(pen.marks()).toEqual([])
  })

  it('never alters a line that is near or chosen', () => {
    const old = plainLine({ x: 0, y: 0 }, { x: 50, y: 0 })
    const bench = new TestBench([old])
    bench.select([old.id])
    const pen = new Pen(bench)
    click(pen, 50, 0)
    click(pen, 90, 0)
    pen.key('Enter')
    expect(bench.lines[0]).toEqual(old)
    expect(bench.lines).toHaveLength(2)
  })
})
