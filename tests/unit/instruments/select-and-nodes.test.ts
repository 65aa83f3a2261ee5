import type { PenTrace } from '#core/model/model'
import { describe, expect, it } from 'vitest'
import { movedLine } from '#core/editing/move'
import { pointAt } from '#core/geometry/cubic'
import { cubicsOfPath } from '#core/geometry/path'
import { distance } from '#core/geometry/point'
import { Nodes } from '~/instruments/nodes'
import { Select } from '~/instruments/select'
import { click, drag, hand, plainLine, TestWorktop } from '../support/desk'

describe('select', () => {
  it('chooses a line, adds with Shift, lets go on paper', () => {
    const [a, b] = [plainLine({ x: 0, y: 0 }, { x: 50, y: 0 }), plainLine({ x: 0, y: 50 }, { x: 50, y: 50 })]
    const worktop = new TestWorktop([a, b])
    const tool = new Select(worktop)
    click(tool, 20, 1)
    expect(worktop.chosen).toEqual([a.id])
    click(tool, 20, 51, { shift: true })
    expect(worktop.chosen).toEqual([a.id, b.id])
    click(tool, 200, 200)
    expect(worktop.chosen).toEqual([])
  })

  it('moves what is chosen in one step', () => {
    const a = plainLine({ x: 0, y: 0 }, { x: 50, y: 0 })
    const worktop = new TestWorktop([a])
    drag(new Select(worktop), [20, 0, 30, 10, 40, 25])
    expect(worktop.lines[0]!.path.nodes[0]!.at).toEqual({ x: 20, y: 25 })
    expect(worktop.labels).toEqual(['Move a line'])
  })

  it('chooses by a box over paper', () => {
    const lines = [plainLine({ x: 0, y: 0 }, { x: 50, y: 0 }), plainLine({ x: 0, y: 300 }, { x: 50, y: 300 })]
    const worktop = new TestWorktop(lines)
    drag(new Select(worktop), [-30, -30, 80, 80])
    expect(worktop.chosen).toEqual([lines[0]!.id])
  })

  it('nudges and deletes by key, and takes a move back with Escape', () => {
    const a = plainLine({ x: 0, y: 0 }, { x: 50, y: 0 })
    const worktop = new TestWorktop([a])
    const tool = new Select(worktop)
    click(tool, 20, 0)
    tool.key('ArrowRight', true)
    expect(worktop.lines[0]!.path.nodes[0]!.at.x).toBe(10)
    tool.press(hand(30, 0))
    tool.move(hand(30, 90))
    tool.key('Escape', false)
    expect(worktop.lines[0]!.path.nodes[0]!.at.y).toBe(0)
    tool.key('Delete', false)
    expect(worktop.lines).toHaveLength(0)
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
    const worktop = new TestWorktop([line])
    worktop.select([line.id])
    drag(new Nodes(worktop), [50, 20, 60, 35], { mark: { kind: 'node', line: line.id, index: 1 } })
    expect(worktop.lines[0]!.path.nodes[1]).toMatchObject({
      at: { x: 60, y: 35 },
      in: { x: 40, y: 35 },
      out: { x: 90, y: 35 },
    })
  })

  it('turns the far handle of a smooth node along, keeping its length', () => {
    const line = bent()
    const worktop = new TestWorktop([line])
    drag(new Nodes(worktop), [80, 20, 50, 50], { mark: { kind: 'handle', line: line.id, index: 1, side: 'out' } })
    const n = worktop.lines[0]!.path.nodes[1]!
    expect(n.in!.x).toBeCloseTo(50)
    expect(n.in!.y).toBeCloseTo(0)
    expect(n.joint).toBe('smooth')
  })

  it('with Alt moves one handle alone and makes a corner', () => {
    const line = bent()
    const worktop = new TestWorktop([line])
    drag(new Nodes(worktop), [80, 20, 50, 50], {
      mark: { kind: 'handle', line: line.id, index: 1, side: 'out' },
      alt: true,
    })
    expect(worktop.lines[0]!.path.nodes[1]).toMatchObject({
      in: { x: 30, y: 20 },
      out: { x: 50, y: 50 },
      joint: 'corner',
    })
  })

  it('turns smooth to corner and back with a double-click', () => {
    const line = bent()
    const worktop = new TestWorktop([line])
    const tool = new Nodes(worktop)
    click(tool, 50, 20, { mark: { kind: 'node', line: line.id, index: 1 }, clicks: 2 })
    expect(worktop.lines[0]!.path.nodes[1]).toMatchObject({ in: null, out: null, joint: 'corner' })
    click(tool, 50, 20, { mark: { kind: 'node', line: line.id, index: 1 }, clicks: 2 })
    expect(worktop.lines[0]!.path.nodes[1]!.joint).toBe('smooth')
    expect(worktop.lines[0]!.path.nodes[1]!.out).not.toBeNull()
  })

  it('a hand that trembles while it clicks moves nothing, and a drag right after a click moves', () => {
    const worktop = new TestWorktop([plainLine({ x: 0, y: 0 }, { x: 100, y: 0 })])
    const [line] = worktop.lines
    worktop.select([line!.id])
    const tool = new Nodes(worktop)
    const mark = { kind: 'node', line: line!.id, index: 1 } as const
    drag(tool, [100, 0, 101, 1, 100, 0], { mark })
    expect(worktop.lines[0]).toEqual(line)
    expect(worktop.labels).toEqual([])
    drag(tool, [100, 0, 110, 0, 120, 0], { mark, clicks: 2 })
    expect(worktop.lines[0]!.path.nodes[1]).toMatchObject({ at: { x: 120, y: 0 }, joint: 'corner' })
  })

  it('deletes a node; a line with one node left goes', () => {
    const line = bent()
    const worktop = new TestWorktop([line])
    const tool = new Nodes(worktop)
    click(tool, 50, 20, { mark: { kind: 'node', line: line.id, index: 1 } })
    tool.key('Delete', false)
    expect(worktop.lines[0]!.path.nodes).toHaveLength(2)
    click(tool, 0, 0, { mark: { kind: 'node', line: line.id, index: 0 } })
    tool.key('Delete', false)
    expect(worktop.lines).toHaveLength(0)
  })

  it('bends a chosen line where it is dragged, in one step; Escape takes it back', () => {
    const line = plainLine({ x: 0, y: 0 }, { x: 100, y: 0 })
    const worktop = new TestWorktop([line])
    worktop.select([line.id])
    const tool = new Nodes(worktop)
    drag(tool, [50, 0, 50, 20, 50, 40])
    const [c] = cubicsOfPath(worktop.lines[0]!.path)
    expect(distance(pointAt(c!, 0.5), { x: 50, y: 40 })).toBeLessThan(1e-5)
    expect(worktop.labels).toEqual(['Bend a segment'])
    const bentOnce = worktop.lines[0]
    tool.press(hand(50, 40))
    tool.move(hand(50, 90))
    tool.key('Escape', false)
    expect(worktop.lines[0]).toEqual(bentOnce)
  })

  it('a double-click on a chosen line adds a node there and chooses it; a click alone changes nothing', () => {
    const line = plainLine({ x: 0, y: 0 }, { x: 100, y: 0 })
    const worktop = new TestWorktop([line])
    worktop.select([line.id])
    const tool = new Nodes(worktop)
    click(tool, 30, 0)
    expect(worktop.lines[0]).toEqual(line)
    click(tool, 30, 0, { clicks: 2 })
    expect(worktop.lines[0]!.path.nodes.map((n) => n.at.x)).toEqual([0, expect.closeTo(30, 6), 100])
    expect(worktop.chosenNodes).toEqual([{ line: line.id, index: 1 }])
    expect(worktop.labels).toEqual(['Add a node'])
  })

  it('deleting a node that was added gives the line back as it was', () => {
    const line = bent()
    const worktop = new TestWorktop([line])
    worktop.select([line.id])
    const tool = new Nodes(worktop)
    const [c] = cubicsOfPath(line.path)
    const p = pointAt(c!, 0.4)
    click(tool, p.x, p.y, { clicks: 2 })
    expect(worktop.lines[0]!.path.nodes).toHaveLength(4)
    tool.key('Delete', false)
    const [back] = cubicsOfPath(worktop.lines[0]!.path)
    for (const t of [0.2, 0.5, 0.8]) expect(distance(pointAt(back!, t), pointAt(c!, t))).toBeLessThan(0.05)
  })
})

describe('a moved line', () => {
  it('takes its trace along', () => {
    const line = {
      ...plainLine({ x: 0, y: 0 }, { x: 9, y: 0 }),
      trace: { samples: [{ x: 1, y: 2, t: 0, pressure: 0.5 }], device: 'pen' as const, steadiness: 0, response: 1 },
    }
    const moved = movedLine(line, { x: 5, y: -2 })
    expect(moved.path.nodes[0]!.at).toEqual({ x: 5, y: -2 })
    expect((moved.trace as PenTrace).samples[0]).toMatchObject({ x: 6, y: 0, pressure: 0.5 })
    expect(line.trace.samples[0]!.x).toBe(1)
  })

  it('lights the line that a click would take, and clicks on one place step through those that lie there', () => {
    const worktop = new TestWorktop([
      plainLine({ x: 0, y: 0 }, { x: 100, y: 0 }),
      plainLine({ x: 50, y: -50 }, { x: 50, y: 50 }),
      plainLine({ x: 0, y: 40 }, { x: 90, y: 40 }),
    ])
    const [flat, upright] = worktop.lines.map((l) => l.id)
    for (const Instrument of [Select, Nodes]) {
      const it = new Instrument(worktop)
      worktop.select([])
      it.move(hand(50, 0))
      expect(it.marks()).toContainEqual(expect.objectContaining({ kind: 'paths', tone: 'strong' }))
      expect(it.hint()).toContain('the next of 2 here')
      const taken = [0, 1, 2].map(() => {
        click(it, 50, 0)
        return worktop.chosen.join()
      })
      expect(taken).toEqual([upright, flat, upright])
      it.move(hand(20, 20))
      expect(it.marks().some((m) => m.kind === 'paths' && m.tone === 'strong')).toBe(false)
    }
  })
})
