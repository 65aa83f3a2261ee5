import { describe, expect, it } from 'vitest'
import type { Path } from '#core/geometry/path'
import { figurePath } from '#core/editing/figures'
import type { SnapKind } from '#core/geometry/snap'
import { SNAP_KINDS, snapOf } from '#core/geometry/snap'
import { straightPath } from './support/desk'

const all = new Set<SnapKind>(SNAP_KINDS)
const circle = figurePath({ kind: 'ellipse', sides: 5, depth: 0.5, turns: 3 }, { x: 0, y: 0 }, { x: 100, y: 100 })
const flat = straightPath({ x: 0, y: 0 }, { x: 100, y: 0 })
const steep = straightPath({ x: 30, y: -50 }, { x: 30, y: 50 })

const at = (x: number, y: number, paths: Path[], over: Partial<Parameters<typeof snapOf>[2]> = {}) =>
  snapOf({ x, y }, paths, { reach: 6, kinds: all, grid: 0, ...over })

describe('snapping', () => {
  it('finds ends, nodes, crossings, middles and lines, the strongest first', () => {
    expect(at(2, 3, [flat])).toMatchObject({ kind: 'end', at: { x: 0, y: 0 } })
    expect(at(97, 2, [circle].concat(flat))).toMatchObject({ kind: 'end' })
    const crossing = at(32, 2, [flat, steep])!
    expect(crossing.kind).toBe('crossing')
    expect(crossing.at.x).toBeCloseTo(30, 9)
    expect(at(52, 2, [flat])).toMatchObject({ kind: 'middle', at: { x: 50, y: 0 } })
    const on = at(70, 4, [flat])!
    expect(on.kind).toBe('line')
    expect(on.at.x).toBeCloseTo(70, 6)
    expect(on.at.y).toBeCloseTo(0, 9)
    expect(at(98, 52, [circle])).toMatchObject({ kind: 'node' })
  })

  it('finds where a straight line from the last point touches a curve', () => {
    // From (-50, 50) the tangents of the circle about (50, 50) with radius 50 touch it at 60 degrees.
    const snap = at(26, 92, [circle], { from: { x: -50, y: 50 }, kinds: new Set(['tangent']) })!
    expect(snap.kind).toBe('tangent')
    expect(snap.at.x).toBeCloseTo(25, 0)
    expect(snap.at.y).toBeCloseTo(50 + 50 * Math.sin(Math.PI / 3), 0)
    expect(at(70, 1, [flat], { from: { x: -50, y: 0 }, kinds: new Set(['tangent']) })).toBeNull()
  })

  it('draws to the grid last, to nothing that is not wanted, and to nothing out of reach', () => {
    expect(at(47, 25, [], { grid: 24 })).toMatchObject({ kind: 'grid', at: { x: 48, y: 24 } })
    expect(at(47, 4, [flat], { grid: 24, kinds: new Set<SnapKind>(['grid', 'line']) })).toMatchObject({ kind: 'line' })
    expect(at(50, 20, [flat])).toBeNull()
    expect(at(1, 1, [])).toBeNull()
    expect(at(2, 3, [flat], { kinds: new Set() })).toBeNull()
  })
})
