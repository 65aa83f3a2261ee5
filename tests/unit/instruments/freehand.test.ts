import { pointOnGrid } from '#core/document/grid'
import { sampleCount } from '#core/model/line-trace'
import { describe, expect, it } from 'vitest'
import { Freehand } from '~/instruments/freehand'
import { click, drag, hand, TestWorktop } from '../support/desk'

const rounded = ({ x, y }: { x: number; y: number }): number[] => [x, y].map((v) => Math.round(v * 1e6) / 1e6)

describe('freehand', () => {
  const stroke = Array.from({ length: 80 }, (_, i): [number, number] => [i * 3, 60 + 30 * Math.sin(i / 12)])

  it('draws a line of few nodes and keeps the trace', () => {
    const worktop = new TestWorktop()
    drag(new Freehand(worktop), stroke)
    const [line] = worktop.lines
    expect(line!.path.nodes.length).toBeLessThanOrEqual(7)
    expect(line!.trace).toMatchObject({ device: 'mouse', steadiness: 0.4 })
    expect(sampleCount(line!.trace!)).toBeGreaterThanOrEqual(80)
    expect(worktop.labels).toEqual(['Draw freehand'])
  })

  it('shows its ink while drawing, and that ink is what stays', () => {
    const worktop = new TestWorktop()
    const tool = new Freehand(worktop)
    tool.press(hand(...stroke[0]!))
    for (const p of stroke.slice(1)) tool.move(hand(...p))
    const before = tool.freshInk()!
    tool.release(hand(...stroke.at(-1)!))
    expect(worktop.lines[0]!.path.nodes.length).toBe(before.path.nodes.length)
    expect(tool.freshInk()).toBeNull()
  })

  it("turns a pen's pressure into width", () => {
    const worktop = new TestWorktop()
    worktop.wants.variation = 0.85
    const tool = new Freehand(worktop)
    const at = (i: number) => hand(...stroke[i]!, { device: 'pen', pressure: 0.1 + 0.8 * (i / 79) })
    tool.press(at(0))
    for (let i = 1; i < 80; i++) tool.move(at(i))
    tool.release(at(79))
    const { stops } = worktop.lines[0]!.weight
    expect(stops[0]!.left).toBeLessThan(0.35)
    expect(stops.at(-1)!.left).toBeGreaterThan(0.8)
  })

  it('keeps the stroke when another instrument is taken up in the middle of it', () => {
    const worktop = new TestWorktop()
    const tool = new Freehand(worktop)
    tool.press(hand(0, 0))
    for (let x = 5; x <= 60; x += 5) tool.move(hand(x, 0))
    tool.leave()
    expect(worktop.lines).toHaveLength(1)
    tool.release(hand(90, 0))
    expect(worktop.lines).toHaveLength(1)
  })

  it('shows its nib where a pen or a mouse hovers, and not under a finger or a stroke', () => {
    const worktop = new TestWorktop()
    const tool = new Freehand(worktop)
    const shown = () => tool.marks().filter((m) => m.kind === 'brush')
    tool.move(hand(40, 30, { device: 'pen', pressure: 0 }))
    const { size, nib } = worktop.nextWeight()
    expect(shown()).toEqual([{ kind: 'brush', at: { x: 40, y: 30 }, width: size, nib }])
    tool.press(hand(40, 30))
    expect(shown()).toEqual([])
    tool.cancel()
    tool.move(hand(44, 31, { device: 'touch' }))
    expect(shown()).toEqual([])
    tool.move(hand(45, 32))
    tool.away()
    expect(shown()).toEqual([])
  })

  it('drops with Escape, and a slip of the hand is no line', () => {
    const worktop = new TestWorktop()
    const tool = new Freehand(worktop)
    tool.press(hand(0, 0))
    tool.move(hand(50, 50))
    tool.key('Escape')
    tool.release(hand(60, 60))
    click(tool, 5, 5)
    expect(worktop.lines).toHaveLength(0)
  })

  it('goes on with a line from its end mark, at either end, and never otherwise', () => {
    const worktop = new TestWorktop()
    const tool = new Freehand(worktop)
    drag(tool, [100, 0, 140, 0, 200, 0])
    const id = worktop.lines[0]!.id
    drag(tool, [209, 0, 230, 30, 260, 60], { mark: { kind: 'end', line: id, end: 'last' } })
    expect(worktop.lines).toHaveLength(1)
    expect(rounded(worktop.lines[0]!.path.nodes.at(-1)!.at)).toEqual([260, 60])
    drag(tool, [91, 0, 60, 30, 20, 60], { mark: { kind: 'end', line: id, end: 'first' } })
    expect(rounded(worktop.lines[0]!.path.nodes[0]!.at)).toEqual([20, 60])
    expect(rounded(worktop.lines[0]!.path.nodes.at(-1)!.at)).toEqual([260, 60])
    expect(worktop.lines[0]!.id).toBe(id)
    drag(tool, [261, 60, 300, 60, 340, 60])
    expect(worktop.lines).toHaveLength(2)
  })

  it('follows a long stroke with the same ink at its ends as it will have', () => {
    const worktop = new TestWorktop()
    const tool = new Freehand(worktop)
    const at = (i: number): [number, number] => [
      300 + (40 + i * 0.1) * Math.cos(i / 20),
      300 + (40 + i * 0.1) * Math.sin(i / 20),
    ]
    tool.press(hand(...at(0)))
    for (let i = 1; i < 900; i++) tool.move(hand(...at(i)))
    const live = tool.freshInk()!
    tool.release(hand(...at(899)))
    const [line] = worktop.lines
    for (const end of [0, -1]) expect(pointOnGrid(live.path.nodes.at(end)!.at)).toEqual(line!.path.nodes.at(end)!.at)
    expect(line!.path.nodes.length).toBeLessThanOrEqual(live.path.nodes.length)
  })
})
