import { describe, expect, it } from 'vitest'
import type { Line } from '#core/model/model'
import { reversedLine } from '#core/editing/edit-line'
import { newLine } from '#core/model/create'
import { Contact } from '~/instruments/contact'
import { Light } from '~/instruments/light'
import { Match } from '~/instruments/match'
import { Sweep } from '~/instruments/sweep'
import { around } from '../../../demo/kit/spline'
import { click, drag, hand, plainLine, TestWorktop } from '../support/desk'

const named = (id: string, ax: number, ay: number, bx: number, by: number): Line => ({
  ...plainLine({ x: ax, y: ay }, { x: bx, y: by }, 10),
  id,
})
const ring = (): Line => ({ ...newLine(around([160, 200], [200, 160], [240, 200], [200, 240])), id: 'ring' })

describe('contact', () => {
  it('is tried on and changes nothing until it is accepted; once accepted there is nothing more to do', () => {
    const worktop = new TestWorktop([named('a', 0, 0, 100, 0), named('b', 50, 0, 50, 90)])
    const tool = new Contact(worktop)
    const before = worktop.now
    expect(worktop.tried!.changes).toBe(true)
    expect(worktop.tried!.of(worktop.lines[0]!).weight.start).toMatchObject({ tip: 0 })
    expect(worktop.tried!.of(worktop.lines[0]!)).toBe(worktop.tried!.of(worktop.lines[0]!))
    expect(worktop.now).toBe(before)
    tool.key('Enter')
    expect(worktop.labels).toEqual(['Weight by contact'])
    expect(worktop.lines[1]!.weight.end).toMatchObject({ tip: 0 })
    expect(worktop.tried!.changes).toBe(false)
    tool.key('Enter')
    expect(worktop.labels).toHaveLength(1)
    expect(worktop.said.at(-1)).toContain('Every end has the weight')
  })

  it('goes away with the instrument and with Escape, and says when there is nothing to weigh', () => {
    const worktop = new TestWorktop([named('a', 0, 0, 100, 0)])
    const tool = new Contact(worktop)
    tool.key('Escape')
    expect(worktop.tried).toBeNull()
    tool.key('Enter')
    expect(worktop.tried).not.toBeNull()
    tool.leave()
    expect(worktop.tried).toBeNull()
    const empty = new TestWorktop([ring()])
    new Contact(empty).key('Enter')
    expect(empty.said.at(-1)).toContain('There is no end to weigh')
  })

  it('keeps what was decided of an end with the line, whichever way it goes', () => {
    const worktop = new TestWorktop([named('a', 0, 0, 100, 0), named('b', 50, 0, 50, 90)])
    const tool = new Contact(worktop)
    for (let i = 0; i < 2; i++) click(tool, 100, 0)
    tool.key('Enter')
    expect(worktop.lines[0]!.contact).toEqual({ last: 'leave' })
    expect(worktop.lines[0]!.weight.end).toBeNull()
    expect(worktop.lines[1]!.contact).toBeUndefined()
    // Another hand, another day: the end is as it was decided, though the line goes the other way by now.
    worktop.edit('Turn', (draft) => void (draft.layers[0]!.items[0] = reversedLine(worktop.lines[0]!)))
    const later = new Contact(worktop)
    const [ends] = later.marks().filter((m) => m.kind === 'contacts')
    expect(ends!.ends.filter((e) => e.decided).map((e) => [e.at.x, e.verdict])).toEqual([[100, 'leave']])
    expect(worktop.tried!.changes).toBe(false)
  })

  it('weighs what lies under a light, and the light falls on it again', () => {
    const worktop = new TestWorktop([named('a', 160, 0, 100, 0), ring(), named('b', 200, 160, 200, 100)])
    const light = new Light(worktop)
    drag(light, [300, 300, 20, 20, 10, 10])
    light.key('Enter')
    const lit = worktop.lines.find((l) => l.id === 'ring')!
    expect(lit.weight.unlit).toBeDefined()
    new Contact(worktop).key('Enter')
    expect(worktop.lines.find((l) => l.id === 'ring')).toEqual(lit)
    expect(worktop.lines.find((l) => l.id === 'b')!.weight.end).toMatchObject({ tip: 0 })
  })
})

describe('the light', () => {
  it('is nudged by arrows, put aside by Escape, and makes one step however it was moved', () => {
    const worktop = new TestWorktop([ring()])
    const tool = new Light(worktop)
    tool.key('ArrowLeft', true)
    tool.key('ArrowUp', false)
    expect(worktop.tried!.light!.strength).toBe(worktop.wants.light.strength)
    tool.key('Escape', false)
    expect(worktop.tried).toBeNull()
    drag(tool, [200, 20, 200, 10, 200, 0])
    worktop.wants.light.strength = 1
    tool.review()
    expect(worktop.labels).toEqual([])
    tool.key('Enter', false)
    expect(worktop.labels).toEqual(['Weight by light'])
    expect(worktop.now.settings.light).toMatchObject({ at: { x: 200, y: 0 }, strength: 1, live: false })
    tool.key('Enter', false)
    expect(worktop.labels).toHaveLength(1)
    expect(worktop.said.at(-1)).toContain('Every line has the weight that this light gives it')
  })

  it('remembers where it was, as a share of the page', () => {
    const worktop = new TestWorktop([ring()])
    const tool = new Light(worktop)
    drag(tool, [0, 0, 36, 20, 72, 52.4])
    tool.leave()
    expect(worktop.wants.light).toMatchObject({ x: expect.closeTo(0.1, 9), y: expect.closeTo(0.1, 9) })
  })
})

describe('match and sweep', () => {
  it('match leaves a pair out when one of it is clicked, and takes a drawn axis', () => {
    const worktop = new TestWorktop([named('a', 300, 100, 300, 200), named('b', 420, 100, 420, 200)])
    worktop.lines[0]!.weight.size = 3
    const tool = new Match(worktop)
    expect(worktop.tried!.summary).toContain('1 pair found')
    tool.press(hand(420, 150))
    tool.release()
    expect(worktop.tried!.changes).toBe(false)
    tool.press(hand(300, 150))
    tool.release()
    drag(tool, [100, 150, 200, 151, 600, 152], { shift: true })
    expect(worktop.tried!.summary).toContain('0 pairs')
    tool.press(hand(360, 50))
    tool.release()
    tool.key('Enter')
    expect(worktop.lines[1]!.weight.size).toBe(3)
    expect(worktop.labels).toEqual(['Match mirrored weights'])
  })

  it('match moves and turns its axis by key', () => {
    // Counterparts across an axis through the middle of the page that leans by 45 degrees.
    const { page } = new TestWorktop([]).now
    const [x, y] = [page.width / 2, page.height / 2]
    const worktop = new TestWorktop([
      named('a', x + 50, y - 20, x + 150, y - 20),
      named('b', x - 20, y + 50, x - 20, y + 150),
    ])
    const tool = new Match(worktop)
    expect(worktop.tried!.summary).toContain('0 pairs')
    for (let i = 0; i < 4; i++) tool.key('ArrowUp', true)
    for (let i = 0; i < 5; i++) tool.key('ArrowUp')
    expect(worktop.tried!.summary).toContain('1 pair found')
    for (let i = 0; i < 9; i++) tool.key('ArrowRight', true)
    expect(worktop.tried!.summary).toContain('0 pairs')
    tool.key('Escape')
    expect(tool.key('ArrowLeft', true)).toBe(true)
    for (let i = 0; i < 8; i++) tool.key('ArrowLeft', true)
    expect(worktop.tried!.summary).toContain('1 pair found')
  })

  it('sweep takes up a weight first, then paints what lies on its way, and Escape takes it back', () => {
    const worktop = new TestWorktop([named('a', 0, 0, 100, 0), named('b', 0, 40, 100, 40), named('c', 0, 80, 100, 80)])
    worktop.lines[0]!.weight.size = 2
    const tool = new Sweep(worktop)
    tool.press(hand(50, 200))
    expect(worktop.said.at(-1)).toContain('No weight is copied yet')
    tool.press(hand(50, 0))
    tool.release()
    expect(worktop.copied!.size).toBe(2)
    drag(tool, [50, 25, 50, 60, 50, 100])
    expect(worktop.lines.map((l) => l.weight.size)).toEqual([2, 2, 2])
    expect(worktop.labels).toEqual(['Weight on 2 lines'])
    worktop.wants.sweepPart = 'profile'
    tool.press(hand(50, 30))
    tool.move(hand(50, 50))
    tool.key('Escape')
    tool.release()
    expect(worktop.labels).toHaveLength(1)
    drag(tool, [50, 200, 50, 240, 50, 280])
    expect(worktop.labels).toHaveLength(1)
    expect(worktop.said.at(-1)).toContain('No line was under the sweep')
  })
})
