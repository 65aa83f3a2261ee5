import { describe, expect, it } from 'vitest'
import type { Line } from '#core/model/model'
import type { Path } from '#core/geometry/path'
import type { Vec } from '#core/geometry/point'
import { newLine } from '#core/model/create'
import { mapPath, reversePath } from '#core/geometry/path'
import { arcOfPath } from '#core/geometry/known'
import { acrossAt } from '~/instruments/across'
import type { Axis } from '#core/weight/mirror-match'
import { mirrored, mirroredWeight, mirrorPairs } from '#core/weight/mirror-match'
import { through } from '../../demo/kit/spline'
import { plainLine } from './support/desk'

const AXIS: Axis = { a: { x: 100, y: 0 }, b: { x: 130, y: 200 } }
const named = (id: string, path: Path): Line => ({ ...newLine(path), id })
const bent = through([20, 20], [60, 60], [40, 120])
const image = (path: Path): Path => mapPath(path, (p) => mirrored(p, AXIS))

/** The two edges of a line's ink at a share of its length. */
function edges(line: Line, at: number): [Vec, Vec] {
  const { centre, normal, left, right } = acrossAt(line, at)
  return [
    { x: centre.x + normal.x * left, y: centre.y + normal.y * left },
    { x: centre.x - normal.x * right, y: centre.y - normal.y * right },
  ]
}

describe('mirror match', () => {
  it('mirrors there and back', () => {
    const p = { x: 12, y: 34 }
    const there = mirrored(p, AXIS)
    expect(mirrored(there, AXIS).x).toBeCloseTo(p.x, 9)
    expect(mirrored(AXIS.a, AXIS)).toEqual(AXIS.a)
  })

  it('finds counterparts whichever way they run, each once, the closest first', () => {
    const source = named('a', bent)
    const near = named('near', reversePath(mapPath(image(bent), (p) => ({ x: p.x + 2, y: p.y }))))
    const far = named(
      'far',
      mapPath(image(bent), (p) => ({ x: p.x + 6, y: p.y })),
    )
    const pairs = mirrorPairs([source], [source, far, near], AXIS, 10)
    expect(pairs).toHaveLength(1)
    expect(pairs[0]).toMatchObject({ from: 'a', to: 'near', reversed: true })
    expect(pairs[0]!.off).toBeCloseTo(2, 0)
    expect(mirrorPairs([source], [source, far], AXIS, 10)[0]).toMatchObject({ to: 'far', reversed: false })
    expect(mirrorPairs([source], [source, far], AXIS, 5)).toEqual([])
  })

  it('pairs no line with itself, with one on its own side, or with one of another length', () => {
    const across = named('across', plainLine({ x: 60, y: 100 }, mirrored({ x: 60, y: 100 }, AXIS)).path)
    const short = named('short', plainLine({ x: 180, y: 40 }, { x: 180, y: 45 }).path)
    const beside = named(
      'beside',
      mapPath(bent, (p) => ({ x: p.x + 1, y: p.y })),
    )
    expect(mirrorPairs([across], [across, short], AXIS, 20)).toEqual([])
    expect(mirrorPairs([named('a', bent)], [beside], AXIS, 200)).toEqual([])
  })

  it.each([false, true])('gives the counterpart the mirror image of the ink (reversed: %s)', (reversed) => {
    const weight = {
      ...newLine(bent).weight,
      size: 8,
      stops: [
        { at: 0, left: 2, right: 0.4 },
        { at: 0.7, left: 0.5, right: 1 },
        { at: 1, left: 1, right: 1 },
      ],
      start: { length: 20, unit: 'px' as const, tip: 0, ease: 'straight' as const },
    }
    const source = { ...named('a', bent), weight }
    const path = reversed ? reversePath(image(bent)) : image(bent)
    const target = { ...named('b', path), weight: mirroredWeight(newLine(path).weight, weight, reversed) }
    expect(arcOfPath(path).total).toBeCloseTo(arcOfPath(bent).total, 9)
    for (const at of [0.05, 0.3, 0.7, 0.9]) {
      const there = edges(target, reversed ? 1 - at : at)
      for (const p of edges(source, at).map((e) => mirrored(e, AXIS)))
        expect(Math.min(...there.map((q) => Math.hypot(p.x - q.x, p.y - q.y)))).toBeLessThan(1e-6)
    }
  })
})
