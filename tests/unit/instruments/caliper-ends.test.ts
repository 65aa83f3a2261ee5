import { describe, expect, it } from 'vitest'
import { Caliper } from '~/instruments/caliper'
import { drag, hand, plainLine, TestWorktop } from '../support/desk'

const flat = () => plainLine({ x: 0, y: 0 }, { x: 200, y: 0 }, 10)

describe('the ends under the caliper', () => {
  it('taper to a point when dragged inwards, and are full again when dragged out', () => {
    const worktop = new TestWorktop([flat()])
    const tool = new Caliper(worktop)
    drag(tool, [198, 0, 180, 1, 140, 1])
    expect(worktop.lines[0]!.weight.end).toEqual({ length: expect.closeTo(60, 6), unit: 'px', tip: 0, ease: 'round' })
    expect(worktop.lines[0]!.weight.start).toBeNull()
    expect(worktop.labels).toEqual(['Taper an end'])
    drag(tool, [214, 0, 225, 0, 240, 0], { mark: { kind: 'tip', line: worktop.lines[0]!.id, end: 'last' } })
    expect(worktop.lines[0]!.weight.end).toBeNull()
  })

  it('get a width when dragged across, or a tip where they taper', () => {
    const worktop = new TestWorktop([flat()])
    const { id } = worktop.lines[0]!
    drag(new Caliper(worktop), [-14, 0, -14, -4, -14, -10], { mark: { kind: 'tip', line: id, end: 'first' } })
    expect(worktop.lines[0]!.weight.stops[0]).toMatchObject({ at: 0, left: 3, right: 3 })
    const tapered = new TestWorktop([
      { ...flat(), weight: { ...flat().weight, end: { length: 50, unit: 'px', tip: 0, ease: 'straight' } } },
    ])
    drag(new Caliper(tapered), [214, 0, 214, -2, 214, -4], {
      mark: { kind: 'tip', line: tapered.lines[0]!.id, end: 'last' },
    })
    expect(tapered.lines[0]!.weight.end!.tip).toBeCloseTo(0.8, 6)
    expect(tapered.lines[0]!.weight.end!.length).toBe(50)
  })

  it('keep the unit of a taper whose inner end is dragged, and never taper past the line', () => {
    const line = {
      ...flat(),
      weight: { ...flat().weight, start: { length: 20, unit: '%' as const, tip: 0.2, ease: 'needle' as const } },
    }
    const worktop = new TestWorktop([line])
    const mark = { kind: 'taper', line: line.id, end: 'first' } as const
    drag(new Caliper(worktop), [40, -20, 60, 0, 100, 0], { mark })
    expect(worktop.lines[0]!.weight.start).toEqual({
      length: expect.closeTo(50, 6),
      unit: '%',
      tip: 0.2,
      ease: 'needle',
    })
    drag(new Caliper(worktop), [100, -20, 150, 0, 400, 0], { mark })
    expect(worktop.lines[0]!.weight.start!.length).toBeCloseTo(100, 6)
  })
})

describe('several stops under the caliper', () => {
  const stops = [0.2, 0.5, 0.8].map((at) => ({ at, left: 1, right: 1 }))
  const start = () => {
    const line = { ...flat(), weight: { ...flat().weight, stops } }
    const worktop = new TestWorktop([line])
    worktop.chosen = [line.id]
    return { worktop, id: line.id, tool: new Caliper(worktop) }
  }

  it('are chosen with Shift, and widen in proportion and slide together as far as there is room', () => {
    const { worktop, id, tool } = start()
    tool.press(hand(40, 0, { mark: { kind: 'stop', line: id, index: 0 } }))
    tool.release(hand(0, 0))
    tool.press(hand(100, 0, { mark: { kind: 'stop', line: id, index: 1 }, shift: true }))
    tool.release(hand(0, 0))
    expect(worktop.chosenStops.map((s) => s.index)).toEqual([0, 1])
    drag(tool, [100, -5, 100, -8, 100, -10], { mark: { kind: 'jaw', line: id, index: 1, side: 'left' } })
    expect(worktop.lines[0]!.weight.stops.map((s) => s.left)).toEqual([2, 2, 1])
    drag(tool, [100, 0, 120, 0, 190, 0], { mark: { kind: 'stop', line: id, index: 1 } })
    const [a, b, c] = worktop.lines[0]!.weight.stops.map((s) => s.at)
    expect(b! - a!).toBeCloseTo(0.3, 9)
    expect(b!).toBeLessThan(c!)
    expect(worktop.labels).toEqual(['Change 2 width stops', 'Slide 2 width stops'])
    tool.key('Delete')
    expect(worktop.lines[0]!.weight.stops).toHaveLength(1)
    tool.key('A', true)
    expect(worktop.chosenStops).toEqual([{ line: id, index: 0 }])
  })

  it('apart from each other, one side alone follows the hand', () => {
    const { worktop, id, tool } = start()
    worktop.wants.sidesLinked = false
    drag(tool, [100, -5, 100, -8, 100, -10], { mark: { kind: 'jaw', line: id, index: 1, side: 'left' } })
    expect(worktop.lines[0]!.weight.stops[1]).toMatchObject({ left: 2, right: 1 })
    drag(tool, [100, 5, 100, 8, 100, 10], { mark: { kind: 'jaw', line: id, index: 1, side: 'right' }, alt: true })
    expect(worktop.lines[0]!.weight.stops[1]).toMatchObject({ left: 2, right: 2 })
  })
})
