import { describe, expect, it } from 'vitest'
import { Freehand } from '~/instruments/freehand'
import { click, drag, hand, TestBench } from '../support/desk'

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
    bench.wants.variation = 0.85
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
