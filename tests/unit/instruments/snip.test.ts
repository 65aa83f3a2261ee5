import { describe, expect, it } from 'vitest'
import { Snip } from '~/instruments/snip'
import { click, drag, hand, plainLine, TestWorktop } from '../support/desk'

const along = () => ({ ...plainLine({ x: 0, y: 0 }, { x: 100, y: 0 }), id: 'along' })
const across = (x: number) => ({ ...plainLine({ x, y: -50 }, { x, y: 50 }), id: `at ${x}` })

describe('Snip', () => {
  it('says and shows which part it would hide, hides it, and brings it back', () => {
    const worktop = new TestWorktop([along(), across(80)])
    const snip = new Snip(worktop)
    snip.move(hand(95, 0))
    expect(snip.hint()).toContain('hide this part')
    expect(snip.marks().at(-1)).toMatchObject({ kind: 'paths', tone: 'strong' })
    click(snip, 95, 0)
    expect(worktop.lines[0]!.snips).toMatchObject([{ to: 1, fromBy: 'at 80' }])
    expect(worktop.lines[0]!.path).toEqual(along().path)
    snip.move(hand(95, 0))
    expect(snip.hint()).toContain('bring this part back')
    click(snip, 95, 0)
    expect(worktop.lines[0]!.snips).toEqual([])
    expect(worktop.labels).toEqual(['Snip', 'Bring back a part'])
  })

  it('sweeps several parts in one step, and Esc takes the sweep back', () => {
    const worktop = new TestWorktop([
      across(20),
      across(50),
      { ...plainLine({ x: -20, y: -20 }, { x: 100, y: -20 }), id: 'top' },
    ])
    const snip = new Snip(worktop)
    drag(snip, [10, -40, 60, -40])
    expect(worktop.lines.map((l) => l.snips.length)).toEqual([1, 1, 0])
    expect(worktop.labels).toEqual(['Snip 2 parts'])
    snip.press(hand(95, -20))
    expect(worktop.lines[2]!.snips).toHaveLength(1)
    expect(snip.key('Escape')).toBe(true)
    expect(worktop.lines[2]!.snips).toHaveLength(0)
  })

  it('says so where nothing crosses, and changes nothing', () => {
    const worktop = new TestWorktop([along()])
    const snip = new Snip(worktop)
    snip.move(hand(50, 0))
    expect(snip.hint()).toContain('No line crosses')
    click(snip, 50, 0)
    expect(worktop.labels).toEqual([])
  })
})
