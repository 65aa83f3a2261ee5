import { describe, expect, it } from 'vitest'
import { newLine } from '#core/model/create'
import { movedLine } from '#core/editing/move'
import { merged, paintedBy, scrapedLine, scrapedShape, touchedBy } from '#core/editing/solids'
import type { Path } from '#core/geometry/path'
import type { Shape } from '#core/model/model'
import { areaOfCubics } from '#core/geometry/area'
import { closedFigure } from '#core/geometry/close-strokes'
import { cubicsOfPath } from '#core/geometry/path'
import { expandLine } from '#core/outline/expand'
import { plainLine, straightPath } from './support/desk'
import { polyline } from './support/paths'

const area = (contours: readonly Path[]): number =>
  contours.reduce((sum, c) => sum + areaOfCubics(cubicsOfPath({ ...c, closed: true })), 0)
const band = (y: number, width = 20): Path[] => paintedBy(plainLine({ x: 0, y }, { x: 100, y }, width))
const shape = (contours: Path[], id = 'a'): Shape => ({ id, contours, ink: 'black', from: [] })

describe('solid marks', () => {
  it('are the area that the brush goes over, with few nodes', () => {
    const painted = band(0)
    expect(area(painted)).toBeCloseTo(100 * 20 + Math.PI * 100, 0)
    expect(painted.flatMap((c) => c.nodes).length).toBeLessThanOrEqual(8)
  })

  it('become one with those that they touch, and leave the others alone', () => {
    const [near, far] = [shape(band(10), 'near'), shape(band(200), 'far')]
    const touched = touchedBy(band(0), [near, far])
    expect(touched).toEqual([near])
    const one = merged(band(0), 'black', touched)
    expect(one.id).toBe('near')
    // Two bands 20 wide, half over each other.
    expect(area(one.contours)).toBeGreaterThan(area(band(0)) + 900)
    expect(area(one.contours)).toBeLessThan(2 * area(band(0)) - 900)
    expect(merged(band(0), 'black', []).contours).toEqual(band(0))
  })

  it('are scraped: a part goes, all goes, or nothing changes', () => {
    const whole = shape(band(0))
    const across = paintedBy(plainLine({ x: 50, y: -60 }, { x: 50, y: 60 }, 10))
    const cut = scrapedShape(whole, across)!
    expect(cut.contours).toHaveLength(2)
    expect(area(cut.contours)).toBeCloseTo(area(whole.contours) - 200, 0)
    expect(scrapedShape(whole, band(0, 60))).toBeNull()
    expect(scrapedShape(whole, band(300))).toBe(whole)
  })
})

describe('a scraped line', () => {
  const line = plainLine({ x: 0, y: 0 }, { x: 100, y: 0 }, 20)
  const across = (x: number): Path[] => paintedBy(plainLine({ x, y: -60 }, { x, y: 60 }, 10))
  const ink = (l: typeof line): number => area(expandLine(l, { tolerance: 0.01 }))

  it('keeps its path and loses ink; scrapings add up, move along and can be taken back', () => {
    const once = scrapedLine(line, across(30))
    const twice = scrapedLine(once, across(60))
    expect(twice.path).toBe(line.path)
    expect(ink(once)).toBeCloseTo(ink(line) - 200, 0)
    expect(ink(twice)).toBeCloseTo(ink(line) - 400, 0)
    expect(ink(movedLine(twice, { x: 17, y: -40 }))).toBeCloseTo(ink(twice), 3)
    expect(ink({ ...twice, scrapes: undefined })).toBeCloseTo(ink(line), 6)
  })

  it('is left alone by a scraper that misses its ink', () => {
    expect(scrapedLine(line, across(300))).toBe(line)
  })
})

describe('a figure drawn in several strokes', () => {
  it('closes by the nearest ends, whichever way and order the strokes were drawn in', () => {
    const sides: Path[] = [
      straightPath({ x: 0, y: 0 }, { x: 100, y: 0 }),
      straightPath({ x: 100, y: 80 }, { x: 100, y: 0.2 }),
      straightPath({ x: 0, y: 3 }, { x: 0, y: 78 }),
      straightPath({ x: 2, y: 80 }, { x: 97, y: 80 }),
    ]
    const figure = closedFigure([sides[0]!, sides[3]!, sides[2]!, sides[1]!])!
    expect(figure.closed).toBe(true)
    expect(Math.abs(areaOfCubics(cubicsOfPath(figure)))).toBeGreaterThan(7700)
    expect(Math.abs(areaOfCubics(cubicsOfPath(figure)))).toBeLessThanOrEqual(8010)
  })

  it('of one stroke closes straight across; of a closed one is that one; of none is none', () => {
    expect(closedFigure([straightPath({ x: 0, y: 0 }, { x: 9, y: 0 })])).toMatchObject({
      closed: true,
      nodes: [{}, {}],
    })
    const ring = { ...straightPath({ x: 0, y: 0 }, { x: 9, y: 0 }), closed: true }
    expect(closedFigure([ring])).toBe(ring)
    expect(closedFigure([])).toBeNull()
    expect(closedFigure([newLine(polyline(0, 0)).path])).toBeNull()
  })
})
