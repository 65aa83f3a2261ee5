import { describe, expect, it } from 'vitest'
import type { Path } from '#core/geometry/path'
import type { Shape } from '#core/model/model'
import { InputError } from '#core/errors'
import { pathOfCubics } from '#core/geometry/path'
import { arc } from '#core/outline/arc'
import { unionShapes } from '#core/shapes/combine'
import { simplifyContours } from '#core/shapes/simplify'
import { dropSpecks } from '#core/shapes/specks'
import { polygon } from './support/paths'

const box = (x: number, y: number, w: number, h: number): Path => polygon(x, y, x + w, y, x + w, y + h, x, y + h)
const hole = (p: Path): Path => ({ ...p, nodes: [...p.nodes].reverse() })
const shape = (...contours: Path[]): Shape => ({ id: 's', ink: 'black', from: [], contours })

describe('specks and slivers', () => {
  const big = box(0, 0, 50, 50)

  it('below the area go, ink and holes alike, and are listed', () => {
    const { contours, dropped } = dropSpecks(
      [big, hole(box(10, 10, 1, 1)), hole(box(30, 30, 8, 8)), box(80, 0, 1, 2)],
      { area: 3, width: 0 },
    )
    expect(contours).toEqual([big, hole(box(30, 30, 8, 8))])
    expect(dropped.map((d) => [d.kind, Math.round(d.area * 1e6) / 1e6])).toEqual([
      ['hole', 1],
      ['ink', 2],
    ])
  })

  it('narrower than the width go, however long', () => {
    const { contours, dropped } = dropSpecks([big, box(100, 0, 200, 0.2)], { area: 0, width: 0.5 })
    expect(contours).toEqual([big])
    expect(dropped[0]!.width).toBeCloseTo(0.2, 2)
  })

  it('take what lies in them along', () => {
    const ring = [box(80, 0, 3, 3), hole(box(81, 1, 1, 1))]
    expect(dropSpecks([big, ...ring], { area: 10, width: 0 }).contours).toEqual([big])
    expect(dropSpecks([big, hole(box(10, 10, 3, 3)), box(11, 11, 1, 1)], { area: 10, width: 0 }).contours).toEqual([
      big,
    ])
  })

  it('limits of nothing keep everything; limits that are no numbers are refused by name', () => {
    expect(dropSpecks([big, box(80, 0, 0.01, 0.01)], { area: 0, width: 0 }).contours).toHaveLength(2)
    expect(() => dropSpecks([big], { area: Number.NaN, width: 0 })).toThrow(InputError)
    expect(() => dropSpecks([big], { area: 0, width: -1 })).toThrow(/width/)
  })
})

describe('simplify keeps what an eye would', () => {
  it('a circle of many pieces is a circle of four even cubics', () => {
    const many = pathOfCubics(arc({ x: 30, y: 40 }, { x: 25, y: 0 }, 2 * Math.PI, 1e-9), true)
    const { contours } = simplifyContours([many], { tolerance: 0.1 })
    expect(contours[0]!.nodes).toHaveLength(4)
    for (const n of contours[0]!.nodes) expect(Math.hypot(n.at.x - 30, n.at.y - 40)).toBeCloseTo(25, 1)
  })

  it('a long straight side between curves stays straight', () => {
    const round = unionShapes(
      [
        shape(box(0, 0, 100, 40)),
        shape(pathOfCubics(arc({ x: 100, y: 20 }, { x: 20, y: 0 }, 2 * Math.PI, 1e-6), true)),
        shape(pathOfCubics(arc({ x: 0, y: 20 }, { x: 20, y: 0 }, 2 * Math.PI, 1e-6), true)),
      ],
      { tolerance: 0.05 },
    )
    const { contours } = simplifyContours(round, { tolerance: 0.2 })
    const straights = contours[0]!.nodes.filter((n, i, all) => {
      const next = all[(i + 1) % all.length]!
      return !n.out && !next.in && Math.hypot(next.at.x - n.at.x, next.at.y - n.at.y) > 90
    })
    expect(straights).toHaveLength(2)
    expect(contours[0]!.nodes.length).toBeLessThan(round[0]!.nodes.length)
  })

  it('the caller says what a corner is', () => {
    const bent: Path = polygon(0, 0, 50, 0, 99, 9, 100, 80, 50, 90, 0, 80)
    const sharp = simplifyContours([bent], { tolerance: 3, corner: 0.05 }).nodesAfter
    expect(sharp).toBe(6)
  })
})
