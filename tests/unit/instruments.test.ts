import { describe, expect, it } from 'vitest'
import { acrossAt, Caliper } from '~/instruments/caliper'
import { Freehand } from '~/instruments/freehand'
import { newSketchLayer } from '#core/drawing/create'
import type { SketchLayer } from '#core/drawing/model'
import { movedLine } from '#core/drawing/move'
import { cornersOf, PlaceSketch } from '~/instruments/place-sketch'
import { Nodes } from '~/instruments/nodes'
import { Pen } from '~/instruments/pen'
import { Select } from '~/instruments/select'
import { click, drag, hand, plainLine, TestBench } from './support/desk'

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
    const next = pen.marks().find((m) => m.kind === 'path' && m.tone === 'next')
    expect(next).toMatchObject({ path: { nodes: [{ at: { x: 0, y: 0 } }, { at: { x: 30, y: 30 } }] } })
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

describe('freehand', () => {
  const stroke = Array.from({ length: 80 }, (_, i): [number, number] => [i * 3, 60 + 30 * Math.sin(i / 12)])

  it('draws a line of few nodes and keeps the trace', () => {
    const bench = new TestBench()
    drag(new Freehand(bench), stroke)
    const [line] = bench.lines
    expect(line!.path.nodes.length).toBeLessThanOrEqual(7)
    expect(line!.trace).toMatchObject({ device: 'mouse', steadiness: 0.4 })
    expect(line!.trace!.samples.length).toBeGreaterThanOrEqual(80)
    expect(bench.labels).toEqual(['Draw freehand'])
  })

  it('shows its ink while drawing, and that ink is what stays', () => {
    const bench = new TestBench()
    const tool = new Freehand(bench)
    tool.press(hand(...stroke[0]!))
    for (const p of stroke.slice(1)) tool.move(hand(...p))
    const before = tool.freshInk()!
    tool.release(hand(...stroke.at(-1)!))
    expect(bench.lines[0]!.path.nodes.length).toBe(before.path.nodes.length)
    expect(tool.freshInk()).toBeNull()
  })

  it('turns a pen\'s pressure into width', () => {
    const bench = new TestBench()
    const tool = new Freehand(bench)
    const at = (i: number) => hand(...stroke[i]!, { device: 'pen', pressure: 0.1 + 0.8 * (i / 79) })
    tool.press(at(0))
    for (let i = 1; i < 80; i++) tool.move(at(i))
    tool.release(at(79))
    const { stops } = bench.lines[0]!.weight
    expect(stops[0]!.left).toBeLessThan(0.35)
    expect(stops.at(-1)!.left).toBeGreaterThan(0.8)
  })

  it('keeps the stroke when another instrument is taken up in the middle of it', () => {
    const bench = new TestBench()
    const tool = new Freehand(bench)
    tool.press(hand(0, 0))
    for (let x = 5; x <= 60; x += 5) tool.move(hand(x, 0))
    tool.leave()
    expect(bench.lines).toHaveLength(1)
    tool.release(hand(90, 0))
    expect(bench.lines).toHaveLength(1)
  })

  it('drops with Escape, and a slip of the hand is no line', () => {
    const bench = new TestBench()
    const tool = new Freehand(bench)
    tool.press(hand(0, 0))
    tool.move(hand(50, 50))
    tool.key('Escape')
    tool.release(hand(60, 60))
    click(tool, 5, 5)
    expect(bench.lines).toHaveLength(0)
  })
})

describe('select', () => {
  it('chooses a line, adds with Shift, lets go on paper', () => {
    const [a, b] = [plainLine({ x: 0, y: 0 }, { x: 50, y: 0 }), plainLine({ x: 0, y: 50 }, { x: 50, y: 50 })]
    const bench = new TestBench([a, b])
    const tool = new Select(bench)
    click(tool, 20, 1)
    expect(bench.chosen).toEqual([a.id])
    click(tool, 20, 51, { shift: true })
    expect(bench.chosen).toEqual([a.id, b.id])
    click(tool, 200, 200)
    expect(bench.chosen).toEqual([])
  })

  it('moves what is chosen in one step', () => {
    const a = plainLine({ x: 0, y: 0 }, { x: 50, y: 0 })
    const bench = new TestBench([a])
    drag(new Select(bench), [[20, 0], [30, 10], [40, 25]])
    expect(bench.lines[0]!.path.nodes[0]!.at).toEqual({ x: 20, y: 25 })
    expect(bench.labels).toEqual(['Move a line'])
  })

  it('chooses by a box over paper', () => {
    const lines = [plainLine({ x: 0, y: 0 }, { x: 50, y: 0 }), plainLine({ x: 0, y: 300 }, { x: 50, y: 300 })]
    const bench = new TestBench(lines)
    drag(new Select(bench), [[-30, -30], [80, 80]])
    expect(bench.chosen).toEqual([lines[0]!.id])
  })

  it('nudges and deletes by key, and takes a move back with Escape', () => {
    const a = plainLine({ x: 0, y: 0 }, { x: 50, y: 0 })
    const bench = new TestBench([a])
    const tool = new Select(bench)
    click(tool, 20, 0)
    tool.key('ArrowRight', true)
    expect(bench.lines[0]!.path.nodes[0]!.at.x).toBe(10)
    tool.press(hand(30, 0))
    tool.move(hand(30, 90))
    tool.key('Escape', false)
    expect(bench.lines[0]!.path.nodes[0]!.at.y).toBe(0)
    tool.key('Delete', false)
    expect(bench.lines).toHaveLength(0)
  })
})

describe('nodes', () => {
  const bent = () => {
    const line = plainLine({ x: 0, y: 0 }, { x: 100, y: 0 })
    line.path.nodes.splice(1, 0, { at: { x: 50, y: 20 }, in: { x: 30, y: 20 }, out: { x: 80, y: 20 }, joint: 'smooth' })
    return line
  }

  it('moves a node with its handles', () => {
    const line = bent()
    const bench = new TestBench([line])
    bench.select([line.id])
    drag(new Nodes(bench), [[50, 20], [60, 35]], { mark: { kind: 'node', line: line.id, index: 1 } })
    expect(bench.lines[0]!.path.nodes[1]).toMatchObject({ at: { x: 60, y: 35 }, in: { x: 40, y: 35 }, out: { x: 90, y: 35 } })
  })

  it('turns the far handle of a smooth node along, keeping its length', () => {
    const line = bent()
    const bench = new TestBench([line])
    drag(new Nodes(bench), [[80, 20], [50, 50]], { mark: { kind: 'handle', line: line.id, index: 1, side: 'out' } })
    const n = bench.lines[0]!.path.nodes[1]!
    expect(n.in!.x).toBeCloseTo(50)
    expect(n.in!.y).toBeCloseTo(0)
    expect(n.joint).toBe('smooth')
  })

  it('with Alt moves one handle alone and makes a corner', () => {
    const line = bent()
    const bench = new TestBench([line])
    drag(new Nodes(bench), [[80, 20], [50, 50]], { mark: { kind: 'handle', line: line.id, index: 1, side: 'out' }, alt: true })
    expect(bench.lines[0]!.path.nodes[1]).toMatchObject({ in: { x: 30, y: 20 }, out: { x: 50, y: 50 }, joint: 'corner' })
  })

  it('turns smooth to corner and back with a double-click', () => {
    const line = bent()
    const bench = new TestBench([line])
    const tool = new Nodes(bench)
    click(tool, 50, 20, { mark: { kind: 'node', line: line.id, index: 1 }, clicks: 2 })
    expect(bench.lines[0]!.path.nodes[1]).toMatchObject({ in: null, out: null, joint: 'corner' })
    click(tool, 50, 20, { mark: { kind: 'node', line: line.id, index: 1 }, clicks: 2 })
    expect(bench.lines[0]!.path.nodes[1]!.joint).toBe('smooth')
    expect(bench.lines[0]!.path.nodes[1]!.out).not.toBeNull()
  })

  it('deletes a node; a line with one node left goes', () => {
    const line = bent()
    const bench = new TestBench([line])
    const tool = new Nodes(bench)
    click(tool, 50, 20, { mark: { kind: 'node', line: line.id, index: 1 } })
    tool.key('Delete', false)
    expect(bench.lines[0]!.path.nodes).toHaveLength(2)
    click(tool, 0, 0, { mark: { kind: 'node', line: line.id, index: 0 } })
    tool.key('Delete', false)
    expect(bench.lines).toHaveLength(0)
  })
})

describe('the caliper', () => {
  const flat = () => plainLine({ x: 0, y: 0 }, { x: 100, y: 0 }, 10)

  it('adds a stop where the line is dragged, as wide as the hand goes', () => {
    const line = flat()
    const bench = new TestBench([line])
    drag(new Caliper(bench), [[50, -5], [50, -12], [50, -15]])
    const { stops } = bench.lines[0]!.weight
    expect(stops).toHaveLength(3)
    expect(stops[1]!.at).toBeCloseTo(0.5, 6)
    expect(stops[1]!.left).toBeCloseTo(3)
    expect(stops[1]!.right).toBeCloseTo(3)
    expect(bench.labels).toEqual(['Add a width stop'])
  })

  it('within a taper, and on a line that lies to one side, the edge is where the hand lets go', () => {
    const tapered = flat()
    tapered.weight.start = { length: 80, unit: 'px', tip: 0, ease: 'straight' }
    const aside = { ...flat(), finish: { ...flat().finish, align: 'left' as const } }
    for (const line of [tapered, aside]) {
      const bench = new TestBench([line])
      const edge = acrossAt(line, 0.4).left
      drag(new Caliper(bench), [[40, -edge], [40, -edge - 6], [40, -edge - 8]])
      expect(acrossAt(bench.lines[0]!, 0.4).left).toBeCloseTo(edge + 8, 6)
    }
  })

  it('with Alt widens the dragged side alone', () => {
    const bench = new TestBench([flat()])
    drag(new Caliper(bench), [[50, 5], [50, 12], [50, 15]], { alt: true })
    // Right of a line that runs to the right is down.
    expect(bench.lines[0]!.weight.stops[1]).toMatchObject({ left: 1 })
    expect(bench.lines[0]!.weight.stops[1]!.right).toBeCloseTo(3)
  })

  it('a click alone changes nothing', () => {
    const line = flat()
    const bench = new TestBench([line])
    click(new Caliper(bench), 50, 0)
    expect(bench.lines[0]).toEqual(line)
    expect(bench.labels).toEqual([])
  })

  it('slides a stop by its pin and widens by its jaw', () => {
    const line = flat()
    line.weight.stops = [{ at: 0.2, left: 1, right: 1 }, { at: 0.6, left: 1, right: 1 }]
    const bench = new TestBench([line])
    const tool = new Caliper(bench)
    drag(tool, [[60, 0], [66, 0], [75, 1]], { mark: { kind: 'stop', line: line.id, index: 1 } })
    expect(bench.lines[0]!.weight.stops[1]!.at).toBeCloseTo(0.75)
    drag(tool, [[20, -5], [20, -9], [20, -10]], { mark: { kind: 'jaw', line: line.id, index: 0, side: 'left' } })
    expect(bench.lines[0]!.weight.stops[0]!.left).toBeCloseTo(2)
  })

  it('removes a stop with a double-click or Delete', () => {
    const line = flat()
    line.weight.stops = [0.1, 0.5, 0.9].map((at) => ({ at, left: 1, right: 1 }))
    const bench = new TestBench([line])
    const tool = new Caliper(bench)
    click(tool, 50, 0, { mark: { kind: 'stop', line: line.id, index: 1 }, clicks: 2 })
    expect(bench.lines[0]!.weight.stops.map((s) => s.at)).toEqual([0.1, 0.9])
    click(tool, 90, 0, { mark: { kind: 'stop', line: line.id, index: 1 } })
    tool.key('Delete')
    expect(bench.lines[0]!.weight.stops.map((s) => s.at)).toEqual([0.1])
  })

  it('lets go when undo takes the line away under the hand', () => {
    const line = flat()
    const bench = new TestBench([line])
    for (const mark of [null, { kind: 'jaw', line: line.id, index: 0, side: 'left' }, { kind: 'stop', line: line.id, index: 0 }] as const) {
      const tool = new Caliper(bench)
      tool.press(hand(50, -5, { mark }))
      tool.move(hand(50, -20))
      bench.drop()
      const before = bench.now
      bench.edit('Gone', (d) => void d.layers[0]!.items.pop())
      tool.overtaken()
      tool.move(hand(50, -30))
      tool.release()
      expect(bench.lines).toHaveLength(0)
      bench.now = before
    }
  })

  it('Escape takes a drag back', () => {
    const line = flat()
    const bench = new TestBench([line])
    const tool = new Caliper(bench)
    tool.press(hand(50, -5))
    tool.move(hand(50, -30))
    tool.key('Escape')
    tool.release()
    expect(bench.lines[0]).toEqual(line)
  })

  it('shows the width under the pointer', () => {
    const bench = new TestBench([flat()])
    const tool = new Caliper(bench)
    tool.move(hand(50, 2))
    expect(tool.marks()).toContainEqual(expect.objectContaining({ kind: 'tag', text: '10.0 px' }))
  })
})

describe('placing the sketch', () => {
  const withSketch = (locked: boolean, angle = 0) => {
    const bench = new TestBench()
    const layer = { ...newSketchLayer({ id: 'sk', image: 'a'.repeat(64), x: 10, y: 20, width: 200, height: 100, angle }), locked }
    bench.now = { ...bench.now, layers: [layer, ...bench.now.layers] }
    const sketch = () => (bench.now.layers[0] as SketchLayer).items[0]!
    return { bench, sketch }
  }

  it('moves it, and scales it from the opposite corner with its proportions', () => {
    const { bench, sketch } = withSketch(false)
    const tool = new PlaceSketch(bench)
    drag(tool, [[50, 50], [60, 55], [70, 60]])
    expect(sketch()).toMatchObject({ x: 30, y: 30, width: 200 })
    drag(tool, [[230, 130], [130, 80]], { mark: { kind: 'corner', index: 2 } })
    expect(sketch()).toMatchObject({ x: 30, y: 30, width: 100, height: 50 })
    expect(bench.labels).toEqual(['Move the sketch', 'Scale the sketch'])
  })

  it('keeps the opposite corner of a turned sketch where it is', () => {
    const { bench, sketch } = withSketch(false, 30)
    const before = cornersOf(sketch())
    drag(new PlaceSketch(bench), [[before[1].x, before[1].y], [before[1].x + 40, before[1].y - 10]], { mark: { kind: 'corner', index: 1 } })
    const after = cornersOf(sketch())
    expect(after[3].x).toBeCloseTo(before[3].x, 9)
    expect(after[3].y).toBeCloseTo(before[3].y, 9)
    expect(sketch().width / sketch().height).toBeCloseTo(2, 9)
    expect(sketch().width).not.toBeCloseTo(200, 0)
  })

  it('never scales it away or inside out', () => {
    const { bench, sketch } = withSketch(false)
    drag(new PlaceSketch(bench), [[210, 120], [-900, -900]], { mark: { kind: 'corner', index: 2 } })
    expect(sketch().width).toBeGreaterThan(0)
    expect(sketch().height).toBeCloseTo(8, 6)
  })

  it('says why a locked one does not move', () => {
    const { bench, sketch } = withSketch(true)
    const tool = new PlaceSketch(bench)
    drag(tool, [[50, 50], [90, 90]])
    expect(sketch().x).toBe(10)
    expect(bench.said[0]).toContain('is locked. Unlock it')
    expect(tool.marks()).toEqual([])
  })

  it('nudges with the arrows and takes a move back with Escape', () => {
    const { bench, sketch } = withSketch(false)
    const tool = new PlaceSketch(bench)
    tool.key('ArrowDown', true)
    expect(sketch().y).toBe(30)
    tool.press(hand(50, 50))
    tool.move(hand(90, 90))
    tool.key('Escape', false)
    tool.release()
    expect(sketch()).toMatchObject({ x: 10, y: 30 })
  })
})

describe('a moved line', () => {
  it('takes its trace along', () => {
    const line = { ...plainLine({ x: 0, y: 0 }, { x: 9, y: 0 }), trace: { samples: [{ x: 1, y: 2, t: 0, pressure: 0.5 }], device: 'pen' as const, steadiness: 0, response: 1 } }
    const moved = movedLine(line, { x: 5, y: -2 })
    expect(moved.path.nodes[0]!.at).toEqual({ x: 5, y: -2 })
    expect(moved.trace!.samples[0]).toMatchObject({ x: 6, y: 0, pressure: 0.5 })
    expect(line.trace.samples[0]!.x).toBe(1)
  })
})
