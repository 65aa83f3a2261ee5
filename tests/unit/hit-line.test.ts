import { describe, expect, it } from 'vitest'
import { evenWeight, newLine } from '#core/model/create'
import type { Line } from '#core/model/model'
import { outlineOf } from '#core/outline/expand'
import { hitLine } from '#core/outline/hit-line'
import { FlatOutline } from './support/flat-outline'
import { seeded } from './support/random-lines'

const line = (over: Partial<Line['weight']>, align: Line['finish']['align'] = 'centre'): Line => {
  const l = newLine(
    {
      nodes: [
        { at: { x: 50, y: 100 }, in: null, out: { x: 120, y: 40 }, joint: 'corner' },
        { at: { x: 250, y: 100 }, in: { x: 180, y: 160 }, out: null, joint: 'corner' },
      ],
      closed: false,
    },
    { weight: { ...evenWeight(6), ...over } },
  )
  return { ...l, finish: { ...l.finish, align, startCap: 'butt', endCap: 'butt' } }
}

describe('a line is hit where its ink is', () => {
  const cases: [string, Line][] = [
    ['even', line({})],
    [
      'ten times as wide at a stop',
      line({
        stops: [
          { at: 0, left: 1, right: 1 },
          { at: 0.5, left: 10, right: 10 },
          { at: 1, left: 1, right: 1 },
        ],
      }),
    ],
    ['wide on one side', line({ stops: [{ at: 0, left: 8, right: 0.5 }] })],
    ['all of it on the left', line({ size: 24 }, 'left')],
    ['tapered', line({ size: 30, start: { length: 60, unit: '%', tip: 0, ease: 'round' } })],
    ['a flat nib', line({ size: 20, nib: { width: 1.5, height: 0.2, angle: 30 } })],
  ]
  it.each(cases)('%s', (_, l) => {
    const ink = new FlatOutline(outlineOf(l, 0.05), 0.02)
    const r = seeded(4)
    let on = 0
    for (let i = 0; i < 4000; i++) {
      const p = { x: 20 + r() * 260, y: 20 + r() * 160 }
      // Close to an edge, and beyond the ends, where a nib and a cap reach, either answer will do.
      if (ink.distance(p) < 1.5 || p.x < 70 || p.x > 230) continue
      const inked = ink.row(p.y, p.x, 1, 1)[0] !== 0
      if (inked) on++
      expect(!!hitLine(l, p, 0), `${p.x} ${p.y}`).toBe(inked)
    }
    expect(on).toBeGreaterThan(20)
  })

  it('and within reach of its path, wherever that is', () => {
    expect(hitLine(line({ size: 0.1 }), { x: 150, y: 104 }, 8)).toMatchObject({ at: expect.closeTo(0.5, 1) as number })
    expect(hitLine(line({ size: 0.1 }), { x: 150, y: 130 }, 8)).toBeNull()
  })
})
