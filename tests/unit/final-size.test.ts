import { describe, expect, it } from 'vitest'
import type { Drawing, Line } from '#core/model/model'
import { scaledLine } from '#core/editing/scale'
import { paintedBy } from '#core/editing/solids'
import { writeSvg } from '#core/formats/svg/write-svg'
import { cubicsOfPath } from '#core/geometry/path'
import { pointAt } from '#core/geometry/cubic'
import { distance } from '#core/geometry/point'
import { shapesOf } from '#core/ink/shapes-of'
import { gardenSnail } from '../../demo/drawings/garden-snail'
import { documentOf } from '../../demo/scenario'
import { parseSvg } from '#core/formats/svg/parse-svg'

/** The snail with everything a tenth, or ten times, as large. */
function scaled(k: number): Drawing {
  const drawing = documentOf(gardenSnail(), null)
  const layers = drawing.layers.map((l) =>
    l.kind === 'lines'
      ? { ...l, items: l.items.map((i): Line => scaledLine(i, (p) => ({ x: p.x * k, y: p.y * k }), k, true)) }
      : l,
  )
  const { page } = drawing
  return { ...drawing, layers, page: { ...page, width: page.width * k, height: page.height * k } }
}

describe('the same drawing on a small and on a large page', () => {
  const plain = shapesOf(scaled(1))
  // The grid of the arrangement has powers of two: at others single nodes fall otherwise.
  it.each([0.1, 10])('scaled by %s takes as many nodes, as near to the ink', (k) => {
    const other = shapesOf(scaled(k))
    expect(Math.abs(other.nodesAfter / plain.nodesAfter - 1)).toBeLessThan(0.02)
    expect(other.deviation / k).toBeCloseTo(plain.deviation, 2)
  })

  it.each([1 / 16, 16])('scaled by %s has the same outlines, scaled', (k) => {
    const other = shapesOf(scaled(k))
    expect(other.nodesAfter).toBe(plain.nodesAfter)
    expect(other.deviation / k).toBeCloseTo(plain.deviation, 4)
    other.shapes.forEach((shape, i) => {
      shape.contours.forEach((c, j) => {
        const [a, b] = [
          cubicsOfPath({ ...c, closed: true }),
          cubicsOfPath({ ...plain.shapes[i]!.contours[j]!, closed: true }),
        ]
        expect(a).toHaveLength(b.length)
        a.forEach((cubic, n) =>
          expect(
            distance(pointAt(cubic, 0.5), { x: pointAt(b[n]!, 0.5).x * k, y: pointAt(b[n]!, 0.5).y * k }),
          ).toBeLessThan(0.01 * k),
        )
      })
    })
    // Neither loses anything on its way into a file: a hundredth of the tolerance.
    const back = parseSvg(writeSvg(scaled(k), { content: 'outlines', shapes: other.shapes })).drawing.layers.flatMap(
      (l) => (l.kind === 'lines' || l.kind === 'sketch' ? [] : l.items),
    )
    back.forEach((shape, i) =>
      shape.contours.forEach((c, j) =>
        c.nodes.forEach((n, m) =>
          expect(distance(n.at, other.shapes[i]!.contours[j]!.nodes[m]!.at)).toBeLessThan(0.001 * Math.max(k, 1)),
        ),
      ),
    )
  })

  it('a blot is painted as finely on each', () => {
    const stroke = (k: number): Line =>
      scaledLine(gardenSnail().layers[0]!.lines[0]!, (p) => ({ x: p.x * k, y: p.y * k }), k, true)
    const [small, usual] = [0.1, 1].map((k) => paintedBy(stroke(k), k))
    expect(small!.map((c) => c.nodes.length)).toEqual(usual!.map((c) => c.nodes.length))
  })
})
