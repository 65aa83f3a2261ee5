import { describe, expect, it } from 'vitest'
import { evenWeight } from '#core/model/create'
import { acrossAt } from '~/instruments/across'
import { Caliper } from '~/instruments/caliper'
import { click, drag, hand, plainLine, TestWorktop } from '../support/desk'

describe('the caliper', () => {
  const flat = () => plainLine({ x: 0, y: 0 }, { x: 100, y: 0 }, 10)

  it('adds a stop where the line is dragged, as wide as the hand goes', () => {
    const line = flat()
    const worktop = new TestWorktop([line])
    drag(new Caliper(worktop), [50, -5, 50, -12, 50, -15])
    const { stops } = worktop.lines[0]!.weight
    expect(stops).toHaveLength(4)
    expect(stops[2]!.at).toBeCloseTo(0.5, 6)
    expect(stops[2]!.left).toBeCloseTo(3)
    expect(stops[2]!.right).toBeCloseTo(3)
    expect(worktop.labels).toEqual(['Add a width stop'])
  })

  it('a first swell widens the line as far as it reaches, and nothing beyond', () => {
    const widths = (reach: number): number[] => {
      const worktop = new TestWorktop([flat()])
      worktop.wants.swellReach = reach
      drag(new Caliper(worktop), [50, -5, 50, -12, 50, -15])
      return [10, 25, 50, 75, 90].map((x) => acrossAt(worktop.lines[0]!, x / 100).left)
    }
    const near = widths(0.2)
    expect(near.map((w) => Math.round(w * 1e6) / 1e6)).toEqual([5, 5, 15, 5, 5])
    // Without a reach everything up to the ends swells with it.
    expect(widths(0)[1]).toBeGreaterThan(6)
    // A stop that is nearer already holds the line itself.
    const worktop = new TestWorktop([
      {
        ...flat(),
        weight: {
          ...flat().weight,
          stops: [
            { at: 0.45, left: 1, right: 1 },
            { at: 0.55, left: 1, right: 1 },
          ],
        },
      },
    ])
    drag(new Caliper(worktop), [50, -5, 50, -12, 50, -15])
    expect(worktop.lines[0]!.weight.stops.map((s) => s.at)).toEqual([0.45, expect.closeTo(0.5, 6), 0.55])
  })

  it('within a taper, and on a line that lies to one side, the edge is where the hand lets go', () => {
    const tapered = flat()
    tapered.weight.start = { length: 80, unit: 'px', tip: 0, ease: 'straight' }
    const aside = { ...flat(), finish: { ...flat().finish, align: 'left' as const } }
    for (const line of [tapered, aside]) {
      const worktop = new TestWorktop([line])
      const edge = acrossAt(line, 0.4).left
      drag(new Caliper(worktop), [40, -edge, 40, -edge - 6, 40, -edge - 8])
      expect(acrossAt(worktop.lines[0]!, 0.4).left).toBeCloseTo(edge + 8, 6)
    }
  })

  it('with Alt widens the dragged side alone', () => {
    const worktop = new TestWorktop([flat()])
    drag(new Caliper(worktop), [50, 5, 50, 12, 50, 15], { alt: true })
    // Right of a line that runs to the right is down.
    expect(worktop.lines[0]!.weight.stops[2]).toMatchObject({ left: 1 })
    expect(worktop.lines[0]!.weight.stops[2]!.right).toBeCloseTo(3)
  })

  it('a click alone changes nothing', () => {
    const line = flat()
    const worktop = new TestWorktop([line])
    click(new Caliper(worktop), 50, 0)
    expect(worktop.lines[0]).toEqual(line)
    expect(worktop.labels).toEqual([])
  })

  it('slides a stop by its pin and widens by its jaw', () => {
    const line = flat()
    line.weight.stops = [
      { at: 0.2, left: 1, right: 1 },
      { at: 0.6, left: 1, right: 1 },
    ]
    const worktop = new TestWorktop([line])
    const tool = new Caliper(worktop)
    drag(tool, [60, 0, 66, 0, 75, 1], { mark: { kind: 'stop', line: line.id, index: 1 } })
    expect(worktop.lines[0]!.weight.stops[1]!.at).toBeCloseTo(0.75)
    drag(tool, [20, -5, 20, -9, 20, -10], { mark: { kind: 'jaw', line: line.id, index: 0, side: 'left' } })
    expect(worktop.lines[0]!.weight.stops[0]!.left).toBeCloseTo(2)
  })

  it('nudges all chosen stops by arrow keys, each change a step', () => {
    const line = {
      ...plainLine({ x: 0, y: 0 }, { x: 100, y: 0 }),
      weight: {
        ...evenWeight(10),
        stops: [
          [0, 1, 1],
          [0.4, 2, 1],
          [0.8, 1, 1],
        ].map(([at, left, right]) => ({ at: at!, left: left!, right: right! })),
      },
    }
    const worktop = new TestWorktop([line])
    const tool = new Caliper(worktop)
    worktop.select([line.id])
    worktop.chooseStops([1, 2].map((index) => ({ line: line.id, index })))
    expect(tool.key('ArrowRight', true)).toBe(true)
    expect(worktop.lines[0]!.weight.stops.map((s) => s.at)).toEqual([
      0,
      expect.closeTo(0.45, 9),
      expect.closeTo(0.85, 9),
    ])
    tool.key('ArrowUp')
    expect(worktop.lines[0]!.weight.stops.map((s) => [s.left, s.right])).toEqual([
      [1, 1],
      [2.02, 1.02],
      [1.02, 1.02],
    ])
    worktop.wants.sidesLinked = false
    tool.key('ArrowDown')
    expect(worktop.lines[0]!.weight.stops.map((s) => s.right)).toEqual([1, 1.02, 1.02])
    expect(worktop.labels).toEqual(['Slide 2 width stops', 'Change 2 width stops', 'Change 2 width stops'])
    expect(worktop.stops()).toHaveLength(2)
    expect(tool.key('x')).toBe(false)
  })

  it('removes a stop with a double-click or Delete', () => {
    const line = flat()
    line.weight.stops = [0.1, 0.5, 0.9].map((at) => ({ at, left: 1, right: 1 }))
    const worktop = new TestWorktop([line])
    const tool = new Caliper(worktop)
    click(tool, 50, 0, { mark: { kind: 'stop', line: line.id, index: 1 }, clicks: 2 })
    expect(worktop.lines[0]!.weight.stops.map((s) => s.at)).toEqual([0.1, 0.9])
    click(tool, 90, 0, { mark: { kind: 'stop', line: line.id, index: 1 } })
    tool.key('Delete')
    expect(worktop.lines[0]!.weight.stops.map((s) => s.at)).toEqual([0.1])
  })

  it('a quick drag right after a click is a drag, not a double-click', () => {
    const line = flat()
    line.weight.stops = [0.1, 0.5, 0.9].map((at) => ({ at, left: 1, right: 1 }))
    const worktop = new TestWorktop([line])
    const tool = new Caliper(worktop)
    const mark = { kind: 'jaw', line: line.id, index: 1, side: 'left' } as const
    click(tool, 50, -5, { mark })
    drag(tool, [50, -5, 50, -9, 50, -10], { mark, clicks: 2 })
    expect(worktop.lines[0]!.weight.stops.map((s) => s.left)).toEqual([1, 2, 1])
  })

  it('lets go when undo takes the line away under the hand', () => {
    const line = flat()
    const worktop = new TestWorktop([line])
    for (const mark of [
      null,
      { kind: 'jaw', line: line.id, index: 0, side: 'left' },
      { kind: 'stop', line: line.id, index: 0 },
    ] as const) {
      const tool = new Caliper(worktop)
      tool.press(hand(50, -5, { mark }))
      tool.move(hand(50, -20))
      worktop.drop()
      const before = worktop.now
      worktop.edit('Gone', (d) => void d.layers[0]!.items.pop())
      tool.overtaken()
      tool.move(hand(50, -30))
      tool.release(hand(0, 0))
      expect(worktop.lines).toHaveLength(0)
      worktop.now = before
    }
  })

  it('Escape takes a drag back', () => {
    const line = flat()
    const worktop = new TestWorktop([line])
    const tool = new Caliper(worktop)
    tool.press(hand(50, -5))
    tool.move(hand(50, -30))
    tool.key('Escape')
    tool.release(hand(0, 0))
    expect(worktop.lines[0]).toEqual(line)
  })

  it('shows the width under the pointer', () => {
    const worktop = new TestWorktop([flat()])
    const tool = new Caliper(worktop)
    tool.move(hand(50, 2))
    expect(tool.marks()).toContainEqual(expect.objectContaining({ kind: 'tag', text: '10.0 px' }))
  })
})
