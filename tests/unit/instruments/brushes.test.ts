import { describe, expect, it } from 'vitest'
import { newFillsLayer } from '#core/model/create'
import { areaOfCubics } from '#core/geometry/area'
import type { Shape } from '#core/model/model'
import { cubicsOfPath } from '#core/geometry/path'
import { Blot } from '~/instruments/blot'
import { Scrape } from '~/instruments/scrape'
import { Select } from '~/instruments/select'
import { click, drag, hand, plainLine, TestWorktop } from '../support/desk'
import { polygon } from '../support/paths'

const area = (s: Shape): number =>
  s.contours.reduce((sum, c) => sum + areaOfCubics(cubicsOfPath({ ...c, closed: true })), 0)
const solids = (worktop: TestWorktop): readonly Shape[] => worktop.allSolids()

describe('Blot', () => {
  it('paints a solid shape on a layer of its own above the lines, and chooses it', () => {
    const worktop = new TestWorktop([plainLine({ x: 0, y: 300 }, { x: 100, y: 300 })])
    drag(new Blot(worktop), [0, 0, 50, 0, 100, 0])
    expect(worktop.now.layers.map((l) => l.kind)).toEqual(['lines', 'fills'])
    expect(area(solids(worktop)[0]!)).toBeCloseTo(100 * 24 + Math.PI * 144, -1)
    expect(worktop.chosenSolids).toEqual([solids(worktop)[0]!.id])
    expect(worktop.labels).toEqual(['Blot'])
  })

  it('becomes one with what it touches when asked, else stays by itself; a press alone is a dot', () => {
    const worktop = new TestWorktop()
    const blot = new Blot(worktop)
    drag(blot, [0, 0, 100, 0])
    drag(blot, [50, 5, 50, 60])
    expect(solids(worktop)).toHaveLength(1)
    drag(blot, [300, 0, 340, 0])
    expect(solids(worktop)).toHaveLength(2)
    worktop.wants.blotMerges = false
    click(blot, 50, 0)
    expect(solids(worktop)).toHaveLength(3)
    expect(area(solids(worktop)[2]!)).toBeCloseTo(Math.PI * 144, 0)
  })

  it('is as wide as the hand presses, and is dropped with Escape', () => {
    const worktop = new TestWorktop()
    worktop.wants.variation = 0.5
    const blot = new Blot(worktop)
    blot.press(hand(0, 0, { device: 'pen', pressure: 0 }))
    for (let i = 1; i <= 40; i++) blot.move(hand(i * 5, 0, { device: 'pen', pressure: i / 40 }))
    expect(blot.freshInk()).not.toBeNull()
    blot.release(hand(200, 0, { device: 'pen', pressure: 1 }))
    const all = area(solids(worktop)[0]!)
    expect(all).toBeGreaterThan(200 * 12)
    expect(all).toBeLessThan(200 * 24)
    blot.press(hand(0, 0))
    blot.move(hand(50, 50))
    expect(blot.key('Escape')).toBe(true)
    blot.release(hand(60, 60))
    expect(solids(worktop)).toHaveLength(1)
  })

  it('draws nothing where no layer takes it', () => {
    const worktop = new TestWorktop()
    worktop.locked = true
    drag(new Blot(worktop), [0, 0, 50, 0])
    expect(worktop.labels).toEqual([])
  })
})

describe('Scrape', () => {
  const withBlot = (): TestWorktop => {
    const worktop = new TestWorktop([{ ...plainLine({ x: 0, y: 200 }, { x: 100, y: 200 }, 20), id: 'line' }])
    drag(new Blot(worktop), [0, 0, 100, 0])
    return worktop
  }

  it('carves only what is chosen', () => {
    const worktop = withBlot()
    const before = area(solids(worktop)[0]!)
    drag(new Scrape(worktop), [50, -60, 50, 260])
    expect(area(solids(worktop)[0]!)).toBeLessThan(before - 300)
    expect(worktop.lines[0]!.scrapes).toBeUndefined()
    worktop.chooseSolids([])
    worktop.select(['line'])
    drag(new Scrape(worktop), [20, 160, 20, 240])
    expect(worktop.lines[0]!.scrapes).toHaveLength(1)
    expect(worktop.labels).toEqual(['Blot', 'Scrape', 'Scrape'])
  })

  it('says so when nothing is chosen, and takes a shape away of which nothing is left', () => {
    const worktop = withBlot()
    const scrape = new Scrape(worktop)
    worktop.wants.scrapeSize = 90
    worktop.chooseSolids([])
    drag(scrape, [0, 0, 100, 0])
    expect(worktop.said[0]).toContain('Nothing is chosen')
    worktop.chooseSolids([solids(worktop)[0]!.id])
    drag(scrape, [-20, 0, 120, 0])
    expect(solids(worktop)).toHaveLength(0)
    expect(worktop.chosenSolids).toEqual([])
  })
})

describe('Select, with blots', () => {
  it('chooses, moves and deletes them beside lines', () => {
    const shape: Shape = {
      id: 'blot',
      contours: [polygon(0, 0, 40, 0, 40, 40, 0, 40)],
      ink: 'black',
      from: [],
    }
    const worktop = new TestWorktop([{ ...plainLine({ x: 0, y: 200 }, { x: 100, y: 200 }), id: 'line' }])
    worktop.now = { ...worktop.now, layers: [...worktop.now.layers, newFillsLayer('Blots', [shape])] }
    const select = new Select(worktop)
    click(select, 20, 20)
    expect(worktop.chosenSolids).toEqual(['blot'])
    expect(select.hint()).toContain('A shape')
    drag(select, [20, 20, 30, 60])
    expect(solids(worktop)[0]!.contours[0]!.nodes[0]!.at).toEqual({ x: 10, y: 40 })
    click(select, 50, 200, { shift: true })
    expect(select.hint()).toContain('A line and a shape')
    select.key('Delete', false)
    expect([solids(worktop).length, worktop.lines.length]).toEqual([0, 0])
  })
})
