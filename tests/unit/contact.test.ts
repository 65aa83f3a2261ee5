import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { evenWeight, newLine } from '#core/model/create'
import type { Line } from '#core/model/model'
import { arcOfPath } from '#core/geometry/known'
import type { ContactRule } from '#core/weight/by-contact'
import { keyOfEnd, proposeByContact, weightsByContact } from '#core/weight/by-contact'
import { contactsOf } from '#core/relations/end-contacts'
import { LineWidth } from '#core/weight/half-widths'
import { touchesOf } from '#core/relations/touches'
import { isBehind } from '#core/ink/front/as-seen'
import { openInk } from '#core/ink/open-ink'
import { atOnce } from '#core/turns'
import { withCopies } from '#core/repetition/with-copies'
import { linesOf } from '#core/model/queries'
import { documentOf, SCENARIO } from '../../demo/scenario'
import { plainLine, straightPath } from './support/desk'
import { randomLines } from './support/random-strokes'
import { polyline } from './support/paths'

const RULE: ContactRule = { reach: 1.5, overshoot: 8, strength: 1, taper: 40, pinned: false }

const named = (id: string, ax: number, ay: number, bx: number, by: number, size = 6): Line => ({
  ...plainLine({ x: ax, y: ay }, { x: bx, y: by }, size),
  id,
})
const kinds = (lines: Line[], rule = RULE) =>
  Object.fromEntries(contactsOf(lines, rule).map((c) => [keyOfEnd(c), c.point ? 'point' : c.kind]))

/** Lines as a rule leaves them. */
function weighed(lines: readonly Line[], rule = RULE): Line[] {
  const weights = weightsByContact(lines, proposeByContact(lines, null, rule), rule)
  return lines.map((l) => ({ ...l, weight: weights.get(l.id) ?? l.weight }))
}

/** Whole width of a line at a share of its length, px. */
function widthAt(line: Line, at: number): number {
  const { total } = arcOfPath(line.path)
  const h = new LineWidth(line.weight, line.finish.align, total, line.path.closed).at(at * total)
  return h.left + h.right
}

describe('an end', () => {
  const floor = named('floor', 0, 100, 200, 100, 10)

  it('is free in the open, meets a line on its ink or within reach, and crosses what it goes past', () => {
    expect(kinds([floor, named('a', 50, 20, 50, 100)])).toEqual({
      'floor first': 'free',
      'floor last': 'free',
      'a first': 'free',
      'a last': 'meeting',
    })
    // The ink of the floor begins at 95, and the reach goes 1.5 px beyond.
    expect(kinds([floor, named('a', 50, 20, 50, 93.6)])['a last']).toBe('meeting')
    expect(kinds([floor, named('a', 50, 20, 50, 93.4)])['a last']).toBe('free')
    expect(kinds([floor, named('a', 50, 20, 50, 107)])['a last']).toBe('crossing')
    expect(kinds([floor, named('a', 50, 20, 50, 120)])['a last']).toBe('free')
  })

  it('that comes to one place with others runs out to a point when they come from one side, else goes on in them', () => {
    expect(kinds([named('a', 0, 0, 100, 10), named('b', 0, 20, 100, 10)])['a last']).toBe('point')
    expect(kinds([named('a', 0, 0, 100, 10), named('b', 200, 20, 100, 10)])['a last']).toBe('meeting')
    // A third line that goes on from there makes it a junction.
    expect(kinds([named('a', 0, 0, 100, 10), named('b', 0, 20, 100, 10), named('c', 100, 10, 200, 10)])['a last']).toBe(
      'meeting',
    )
  })

  it('of a line that comes back to its own body meets it', () => {
    const loop = newLine(polyline(0, 0, 100, 0, 100, 80, 40, 80, 40, 0))
    expect(contactsOf([loop], RULE).map((c) => c.kind)).toEqual(['free', 'meeting'])
  })

  it('that is snipped off touches what cut it, arrives there full, and is met by nothing where it is hidden', () => {
    const wall = named('wall', 100, 0, 100, 80, 8)
    const long = { ...named('long', 0, 40, 180, 40), snips: [{ from: 100 / 180, to: 1, fromBy: 'wall' }] }
    const [, last] = contactsOf([wall, long], RULE, new Set(['long']))
    expect(last).toMatchObject({ kind: 'meeting', under: { line: 'wall', at: 0.5 }, at: { x: 100, y: 40 } })
    expect(last!.place).toBeCloseTo(100 / 180, 9)
    // Before, a taper began in the open, far behind the wall, and the line came thin to it.
    const thin = {
      ...long,
      weight: { ...long.weight, end: { length: 90, unit: '%' as const, tip: 0, ease: 'straight' as const } },
    }
    const after = weighed([wall, thin]).find((l) => l.id === 'long')!
    expect(widthAt(after, 100 / 180)).toBeCloseTo(6, 2)
    expect(weighed(weighed([wall, thin]))).toEqual(weighed([wall, thin]))
    // What ends on the hidden part ends in the open; what crosses it there crosses nothing.
    const ends = named('ends', 150, 90, 150, 41)
    const crosses = named('crosses', 160, 0, 160, 90)
    expect(kinds([wall, long, ends])['ends last']).toBe('free')
    expect(kinds([wall, { ...long, snips: [] }, ends])['ends last']).toBe('meeting')
    expect(touchesOf(long, [wall, long, ends, crosses], RULE).map((t) => t.by)).toEqual(['wall'])
    expect(touchesOf(crosses, [wall, long, ends, crosses], RULE)).toEqual([])
  })

  it('is told alike however the lines are ordered', () => {
    fc.assert(
      fc.property(randomLines, (lines) => {
        const there = kinds(lines)
        expect(kinds([...lines].reverse())).toEqual(there)
      }),
      { numRuns: 40, seed: 5 },
    )
  })
})

describe('weight by contact', () => {
  it('tapers free ends and fills meeting ones no wider than what they tuck under', () => {
    const lines = weighed([named('thin', 0, 100, 200, 100, 4), named('thick', 100, 10, 100, 100, 9)])
    const [thin, thick] = lines as [Line, Line]
    expect(widthAt(thin, 0)).toBe(0)
    expect(widthAt(thin, 0.5)).toBeCloseTo(4, 6)
    expect(widthAt(thick, 0)).toBe(0)
    expect(widthAt(thick, 1)).toBeCloseTo(4, 6)
    expect(widthAt(thick, 0.7)).toBeCloseTo(9, 6)
  })

  it('opens an end that ran out where it meets a line', () => {
    const tapered = named('a', 50, 20, 50, 100, 6)
    const { weight } = weighed([
      named('floor', 0, 100, 200, 100, 10),
      {
        ...tapered,
        weight: {
          ...tapered.weight,
          stops: [
            { at: 0, left: 0, right: 0 },
            { at: 0.5, left: 1, right: 1 },
            { at: 1, left: 0, right: 0 },
          ],
        },
      },
    ])[1]!
    expect(weight.stops.at(-1)).toMatchObject({ at: 1, left: 1, right: 1 })
    expect(weight.start).toBeNull()
  })

  it('goes as far as its strength', () => {
    const line = weighed([named('a', 0, 0, 100, 0, 8)], { ...RULE, strength: 0.6 })[0]!
    expect(widthAt(line, 0)).toBeCloseTo(0.4 * 8, 6)
  })

  it('heeds a verdict of the person, and only the lines asked for', () => {
    const lines = [named('a', 0, 0, 100, 0), named('b', 0, 50, 100, 50)]
    const proposals = proposeByContact(lines, new Set(['a']), RULE, new Map([['a first', 'leave' as const]]))
    expect(proposals.map(keyOfEnd)).toEqual(['a first', 'a last'])
    const weights = weightsByContact(lines, proposals, RULE)
    expect([...weights.keys()]).toEqual(['a'])
    expect(weights.get('a')!.start).toBeNull()
    expect(weights.get('a')!.end).toMatchObject({ tip: 0 })
  })

  it('never touches pinned lines unless asked, and has nothing to do the second time', () => {
    fc.assert(
      fc.property(randomLines, fc.double({ min: 0.2, max: 1, noNaN: true }), (lines, strength) => {
        const rule = { ...RULE, strength }
        const once = weighed(lines, rule)
        once.forEach((l, i) => {
          if (lines[i]!.weight.pinned) expect(l.weight).toBe(lines[i]!.weight)
        })
        const again = proposeByContact(once, null, rule)
        expect(weightsByContact(once, again, rule).size).toBe(0)
        expect(proposeByContact(lines, null, { ...rule, pinned: true }).length).toBe(
          2 * lines.filter((l) => !l.path.closed).length,
        )
      }),
      { numRuns: 60, seed: 9 },
    )
  })

  it('finds the ends of the demo drawings as their author weighed them', () => {
    let all = 0
    let alike = 0
    for (const make of SCENARIO) {
      const ink = openInk(documentOf(make(), null))
      const inFront = atOnce(ink.inFront())
      const lines = linesOf(withCopies(ink.drawing))
      for (const p of proposeByContact(lines, null, RULE)) {
        const line = lines.find((l) => l.id === p.line)!
        const arc = arcOfPath(line.path)
        if (isBehind(arc.point(p.end === 'first' ? 0 : arc.total), inFront.get(line.id))) continue
        const widest = Math.max(...Array.from({ length: 101 }, (_, i) => widthAt(line, i / 100)))
        const thin = widthAt(line, p.end === 'first' ? 0 : 1) < 0.25 * widest
        all++
        if (thin === (p.verdict === 'taper')) alike++
      }
    }
    expect(all).toBeGreaterThan(300)
    expect(alike / all).toBeGreaterThanOrEqual(0.98)
  })

  it('has nothing to say of no lines, and of lines without length', () => {
    expect(contactsOf([], RULE)).toEqual([])
    expect(
      contactsOf([newLine(straightPath({ x: 1, y: 1 }, { x: 1, y: 1 }), { weight: evenWeight(5) })], RULE),
    ).toEqual([])
  })
})
