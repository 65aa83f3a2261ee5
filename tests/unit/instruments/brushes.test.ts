import { describe, expect, it } from 'vitest'
import { newFillsLayer } from '#core/drawing/create'
import { areaOfCubics } from '#core/geometry/area'
import type { Shape } from '#core/drawing/model'
import { cubicsOfPath } from '#core/geometry/path'
import { Blot } from '~/instruments/blot'
import { Scrape } from '~/instruments/scrape'
import { Select } from '~/instruments/select'
import { click, drag, hand, plainLine, TestBench } from '../support/desk'

const area = (s: Shape): number => s.contours.reduce((sum, c) => sum + areaOfCubics(cubicsOfPath({ ...c, closed: true })), 0)
const solids = (bench: TestBench): Shape[] => bench.allSolids()

describe('Blot', () => {
  it('paints a solid shape on a layer of its own above the lines, and chooses it', () => {
    const bench = new TestBench([plainLine({ x: 0, y: 300 }, { x: 100, y: 300 })])
    drag(new Blot(bench), [[0, 0], [50, 0], [100, 0]])
    expect(bench.now.layers.map((l) => l.kind)).toEqual(['lines', 'fills'])
    expect(area(solids(bench)[0]!)).toBeCloseTo(100 * 24 + Math.PI * 144, -1)
    expect(bench.chosenSolids).toEqual([solids(bench)[0]!.id])
    expect(bench.labels).toEqual(['Blot'])
  })

  it('becomes one with what it touches when asked, else stays by itself; a press alone is a dot', () => {
    const bench = new TestBench()
    const blot = new Blot(bench)
    drag(blot, [[0, 0], [100, 0]])
    drag(blot, [[50, 5], [50, 60]])
    expect(solids(bench)).toHaveLength(1)
    drag(blot, [[300, 0], [340, 0]])
    expect(solids(bench)).toHaveLength(2)
    bench.wants.blotMerges = false
    click(blot, 50, 0)
    expect(solids(bench)).toHaveLength(3)
    expect(area(solids(bench)[2]!)).toBeCloseTo(Math.PI * 144, 0)
  })

  it('is as wide as the hand presses, and is dropped with Escape', () => {
    const bench = new TestBench()
    bench.wants.variation = 0.5
    const blot = new Blot(bench)
    blot.press(hand(0, 0, { device: 'pen', pressure: 0 }))
    for (let i = 1; i <= 40; i++) blot.move(hand(i * 5, 0, { device: 'pen', pressure: i / 40 }))
    expect(blot.freshInk()).not.toBeNull()
    blot.release(hand(200, 0, { device: 'pen', pressure: 1 }))
    const all = area(solids(bench)[0]!)
    expect(all).toBeGreaterThan(200 * 12)
    expect(all).toBeLessThan(200 * 24)
    blot.press(hand(0, 0))
    blot.move(hand(50, 50))
    expect(blot.key('Escape')).toBe(true)
    blot.release(hand(60, 60))
    expect(solids(bench)).toHaveLength(1)
  })

  it('draws nothing where no layer takes it', () => {
    const bench = new TestBench()
    bench.locked = true
    drag(new Blot(bench), [[0, 0], [50, 0]])
    expect(bench.labels).toEqual([])
  })
})

describe('Scrape', () => {
  const withBlot = (): TestBench => {
    const bench = new TestBench([{ ...plainLine({ x: 0, y: 200 }, { x: 100, y: 200 }, 20), id: 'line' }])
    drag(new Blot(bench), [[0, 0], [100, 0]])
    return bench
  }

  it('carves only what is chosen', () => {
    const bench = withBlot()
    const before = area(solids(bench)[0]!)
    drag(new Scrape(bench), [[50, -60], [50, 260]])
    expect(area(solids(bench)[0]!)).toBeLessThan(before - 300)
    expect(bench.lines[0]!.scrapes).toBeUndefined()
    bench.chooseSolids([])
    bench.select(['line'])
    drag(new Scrape(bench), [[20, 160], [20, 240]])
    expect(bench.lines[0]!.scrapes).toHaveLength(1)
    expect(bench.labels).toEqual(['Blot', 'Scrape', 'Scrape'])
  })

  it('says so when nothing is chosen, and takes a shape away of which nothing is left', () => {
    const bench = withBlot()
    const scrape = new Scrape(bench)
    bench.wants.scrapeSize = 90
    bench.chooseSolids([])
    drag(scrape, [[0, 0], [100, 0]])
    expect(bench.said[0]).toContain('Nothing is chosen')
    bench.chooseSolids([solids(bench)[0]!.id])
    drag(scrape, [[-20, 0], [120, 0]])
    expect(solids(bench)).toHaveLength(0)
    expect(bench.chosenSolids).toEqual([])
  })
})

describe('Select, with blots', () => {
  it('chooses, moves and deletes them beside lines', () => {
    const shape: Shape = { id: 'blot', contours: [{ nodes: [[0, 0], [40, 0], [40, 40], [0, 40]].map(([x, y]) => ({ at: { x: x!, y: y! }, in: null, out: null, joint: 'corner' as const })), closed: true }], ink: 'black', from: [] }
    const bench = new TestBench([{ ...plainLine({ x: 0, y: 200 }, { x: 100, y: 200 }), id: 'line' }])
    bench.now = { ...bench.now, layers: [...bench.now.layers, newFillsLayer('Blots', [shape])] }
    const select = new Select(bench)
    click(select, 20, 20)
    expect(bench.chosenSolids).toEqual(['blot'])
    expect(select.hint()).toContain('A shape')
    drag(select, [[20, 20], [30, 60]])
    expect(solids(bench)[0]!.contours[0]!.nodes[0]!.at).toEqual({ x: 10, y: 40 })
    click(select, 50, 200, { shift: true })
    expect(select.hint()).toContain('A line and a shape')
    select.key('Delete', false)
    expect([solids(bench).length, bench.lines.length]).toEqual([0, 0])
  })
})
