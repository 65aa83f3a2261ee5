import { sampleCount } from '#core/model/line-trace'
import { describe, expect, it } from 'vitest'
import { Practice } from '~/instruments/practice'
import { click, hand, TestWorktop } from '../support/desk'

const samples = Array.from({ length: 80 }, (_, i) => ({
  x: 10 + i * 2,
  y: 50 + 20 * Math.sin(i / 12),
  t: i * 8,
  pressure: 0.2 + (0.7 * i) / 79,
}))

const ready = (): { worktop: TestWorktop; pen: Practice } => {
  const worktop = new TestWorktop()
  worktop.trace = samples
  return { worktop, pen: new Practice(worktop) }
}

const rounded = ({ x, y }: { x: number; y: number }): number[] => [x, y].map((v) => Math.round(v * 1e6) / 1e6)

describe('the practice pen', () => {
  it('plays a trace from where the hand clicks, in its own time, with its pressure', () => {
    const { worktop, pen } = ready()
    click(pen, 110, 150)
    expect(worktop.frames!(100)).toBe(true)
    expect(pen.freshInk()).not.toBeNull()
    expect(worktop.lines).toHaveLength(0)
    expect(worktop.frames!(320)).toBe(true)
    expect(worktop.frames!(700)).toBe(false)
    const [line] = worktop.lines
    expect(line!.trace).toMatchObject({ device: 'practice' })
    expect(sampleCount(line!.trace!)).toBe(80)
    expect(rounded(line!.path.nodes[0]!.at)).toEqual([110, 150])
    expect(line!.weight.stops[0]!.left).toBeLessThan(line!.weight.stops.at(-1)!.left)
  })

  it('plays faster when asked, in its own place by Enter, and at once by a second click', () => {
    const { worktop, pen } = ready()
    worktop.wants.practice.fast = true
    pen.key('Enter')
    expect(worktop.frames!(90)).toBe(false)
    expect(rounded(worktop.lines[0]!.path.nodes[0]!.at)).toEqual([10, 50])
    click(pen, 0, 0)
    worktop.frames!(8)
    pen.press(hand(0, 0))
    expect(worktop.lines).toHaveLength(2)
  })

  it('is dropped by Escape or undo, and kept to its end when put down', () => {
    const { worktop, pen } = ready()
    click(pen, 0, 0)
    worktop.frames!(100)
    expect(pen.key('Escape')).toBe(true)
    expect([worktop.frames, worktop.lines.length]).toEqual([null, 0])
    click(pen, 0, 0)
    worktop.frames!(100)
    expect(pen.stepBack()).toBe(true)
    expect(worktop.lines).toHaveLength(0)
    click(pen, 0, 0)
    worktop.frames!(100)
    pen.leave()
    expect(sampleCount(worktop.lines[0]!.trace!)).toBe(80)
  })

  it('says so when there is no trace, and draws nothing on a locked layer', () => {
    const { worktop, pen } = ready()
    worktop.trace = null
    click(pen, 0, 0)
    expect(worktop.said[0]).toContain('No trace')
    worktop.trace = samples
    worktop.locked = true
    click(pen, 0, 0)
    expect(worktop.frames).toBeNull()
  })
})
