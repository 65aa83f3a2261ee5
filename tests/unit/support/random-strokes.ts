import fc from 'fast-check'
import { newLine } from '#core/model/create'
import type { Line, Weight } from '#core/model/model'
import { cubicsOfPath, pathOfCubics } from '#core/geometry/path'

const near = (least: number, most: number) => fc.integer({ min: least * 2, max: most * 2 }).map((v) => v / 2)
const point = fc.record({ x: near(0, 120), y: near(0, 120) })
const width = fc.integer({ min: 0, max: 15 }).map((v) => v / 10)

const weight: fc.Arbitrary<Weight> = fc.record({
  size: fc.integer({ min: 1, max: 14 }),
  stops: fc
    .uniqueArray(fc.record({ at: fc.integer({ min: 0, max: 20 }).map((v) => v / 20), left: width, right: width }), {
      minLength: 1,
      maxLength: 5,
      selector: (s) => s.at,
    })
    .map((all) => all.sort((a, b) => a.at - b.at)),
  start: fc.constant(null),
  end: fc.constant(null),
  nib: fc.constant(null),
  pinned: fc.boolean(),
})

const line: fc.Arbitrary<Line> = fc
  .record({
    points: fc.tuple(point, point, point, point),
    closed: fc.integer({ min: 0, max: 5 }).map((v) => v === 0),
    weight,
  })
  .filter(({ points: [a, b, c, d] }) => Math.hypot(a.x - d.x, a.y - d.y) + Math.hypot(b.x - c.x, b.y - c.y) > 20)
  .map(({ points: [p0, p1, p2, p3], closed, weight: w }) => {
    const path = pathOfCubics([{ p0, p1, p2, p3 }], false)
    return newLine({ ...path, closed }, { weight: w })
  })

/** A few curved strokes close together, some pinned, some closed: many meet and cross. */
export const randomLines: fc.Arbitrary<Line[]> = fc
  .array(line, { minLength: 1, maxLength: 9 })
  .map((lines) => lines.filter((l) => cubicsOfPath(l.path).length > 0))
