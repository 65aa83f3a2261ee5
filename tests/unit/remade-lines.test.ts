import { produce } from 'immer'
import { describe, expect, it } from 'vitest'
import { joinedLines, reversedLine, splitLine } from '#core/editing/edit-line'
import type { Drawing, Fill, Line, Trim } from '#core/model/model'
import { linesOf } from '#core/model/queries'
import type { Stretch } from '#core/editing/remade-lines'
import { cutAt, cutOpen, followRemade, goneOn, joinedAs, turnedRound } from '#core/editing/remade-lines'
import { arcOfPath } from '#core/geometry/known'
import { measureOfFace } from '#core/ink/regions/faces'
import { openInk } from '#core/ink/open-ink'
import { emptyRegions } from '#core/ink/session/region-hits'
import { atOnce } from '#core/turns'
import { documentOf, SCENARIO } from '../../demo/scenario'

/** A demo drawing with every region poured and some ends trimmed off beyond the lines that they cross. */
function worked(name: string): Drawing {
  const document = documentOf(
    SCENARIO.map((make) => make()).find((d) => d.name === name)!,
    null,
  )
  const plain: Drawing = { ...document, fills: [] }
  const { regions } = atOnce(emptyRegions(openInk(plain), 1, 4))
  const fence = new Set(
    linesOf(plain)
      .filter((_, i) => i % 3 === 0)
      .map((l) => l.id),
  )
  const trims = atOnce(openInk(plain).beyond(fence, 8)).map((hit, i): Trim => ({
    id: `trim ${i}`,
    kind: 'trim',
    ...hit.trim,
  }))
  const d: Drawing = { ...plain, amendments: [...(plain.amendments ?? []), ...trims] }
  return {
    ...d,
    fills: regions.map((r, i): Fill => ({
      id: `f${i}`,
      ink: plain.inks.at(-1)!.id,
      where: 'region',
      at: { x: 0, y: 0 },
      hold: r.hold,
      gap: 1 / plain.page.pxPerMm,
    })),
  }
}

const remake = (d: Drawing, each: (line: Line) => { parts: Line[]; stretches: Stretch[] }): Drawing =>
  produce(d, (draft) => {
    const remade = new Map<string, Stretch[]>()
    for (const layer of draft.layers) {
      if (layer.kind !== 'lines') continue
      layer.items = layer.items.flatMap((l) => {
        const { parts, stretches } = each(JSON.parse(JSON.stringify(l)) as Line)
        remade.set(l.id, stretches)
        return parts
      })
    }
    followRemade(d, draft as Drawing, remade)
  })

/** By fill how much it fills, px squared; by trim whether it found its piece. */
function came(d: Drawing): { areas: number[]; trims: boolean[] } {
  const session = openInk(d)
  return {
    areas: atOnce(session.fills()).poured.map((p) => p.faces.reduce((n, f) => n + measureOfFace(f).area, 0)),
    trims: atOnce(session.trimmed()).map((t) => !!t.piece),
  }
}

const turned = (d: Drawing): Drawing => remake(d, (l) => ({ parts: [reversedLine(l)], stretches: turnedRound(l.id) }))
/** Cut where the ink stays as it is: on the bodies of lines without snips. */
const cut = (d: Drawing): Drawing =>
  remake(d, (l) => {
    if (l.snips.length || l.path.nodes.length < 3) return { parts: [l], stretches: cutAt([], [l]) }
    const parts = splitLine(l, 0.4)
    return { parts, stretches: l.path.closed ? cutOpen([0.4], parts) : cutAt([0.4], parts) }
  })

describe('lines made anew without moving their ink', () => {
  const d = worked('Garden snail')
  const was = came(d)

  it('keep their fills and trims when they are turned round', () => {
    expect(was.areas.filter((a) => a > 0).length).toBeGreaterThan(6)
    expect(was.trims.filter(Boolean).length).toBeGreaterThan(0)
    const is = came(turned(d))
    is.areas.forEach((a, i) => expect(Math.abs(a - was.areas[i]!), `fill ${i}`).toBeLessThan(0.02 * was.areas[i]! + 1))
    expect(is.trims).toEqual(was.trims)
    // Without it they are lost: the same lines, but what was said of them not turned.
    const lost = came({ ...turned(d), fills: d.fills })
    expect(lost.areas.some((a, i) => Math.abs(a - was.areas[i]!) > 0.02 * was.areas[i]! + 1)).toBe(true)
  })

  it('keep their fills when they are cut in two', () => {
    const is = came(cut(d))
    is.areas.forEach((a, i) => expect(Math.abs(a - was.areas[i]!), `fill ${i}`).toBeLessThan(0.03 * was.areas[i]! + 2))
    // What holds a fill on both sides of the cut is on both parts.
    const fill: Fill = {
      id: 'f',
      ink: 'x',
      where: 'region',
      at: { x: 0, y: 0 },
      gap: 0,
      hold: [{ line: 'l', side: 'left', from: 0.2, to: 0.8 }],
    }
    const { hold } = produce({ ...d, fills: [fill] }, (draft) =>
      followRemade(d, draft as Drawing, new Map([['l', cutAt([0.4], [{ id: 'p' }, { id: 'q' }])]])),
    ).fills![0]!
    expect(hold.map((h) => [h.line, h.side, Number(h.from.toFixed(3)), Number(h.to.toFixed(3))])).toEqual([
      ['p', 'left', 0.5, 1],
      ['q', 'left', 0, 0.667],
    ])
  })

  it('keep them when two are joined, either of them turned round', () => {
    const [a, b] = [linesOf(d).find((l) => !l.path.closed)!, linesOf(d).filter((l) => !l.path.closed)[1]!]
    for (const [first, second] of [
      [false, false],
      [true, false],
      [false, true],
      [true, true],
    ] as const) {
      const one = joinedLines(first ? reversedLine(a) : a, second ? reversedLine(b) : b)
      const stretches = joinedAs(one, { line: a, turned: first }, { line: b, turned: second })
      for (const [line, u] of [
        [a, 0.2],
        [b, 0.7],
      ] as const) {
        const fill: Fill = {
          id: 'f',
          ink: 'x',
          where: 'region',
          at: { x: 0, y: 0 },
          gap: 0,
          hold: [{ line: line.id, side: 'left', from: u, to: u }],
        }
        const [held] = produce({ ...d, fills: [fill] }, (draft) => followRemade(d, draft as Drawing, stretches)).fills!
        const [h] = held!.hold
        const [p, q] = [pointOf(line, u), pointOf(one, h!.from)]
        expect(Math.hypot(p.x - q.x, p.y - q.y)).toBeLessThan(0.5)
        expect(h).toMatchObject({ line: one.id, side: (line === a ? first : second) ? 'right' : 'left' })
      }
    }
  })

  it('take along what was decided of their ends', () => {
    const [line, other] = linesOf(d)
    const amendments: Drawing['amendments'] = [
      {
        id: 'c',
        kind: 'corner',
        style: 'rounded',
        ends: [
          { line: line!.id, end: 'last' },
          { line: other!.id, end: 'first' },
        ],
      },
      { id: 'l', kind: 'leave', key: `blunt ${line!.id} last` },
    ]
    const follow = (remade: [string, Stretch[]][]) =>
      produce({ ...d, amendments }, (draft) => followRemade(d, draft as Drawing, new Map(remade))).amendments!
    expect(follow([[line!.id, turnedRound(line!.id)]])).toMatchObject([
      { ends: [{ line: line!.id, end: 'first' }, { end: 'first' }] },
      { key: `blunt ${line!.id} first` },
    ])
    expect(follow([[line!.id, cutAt([0.5], [{ id: line!.id }, { id: 'part' }])]])).toMatchObject([
      { ends: [{ line: 'part', end: 'last' }, { end: 'first' }] },
      { key: 'blunt part last' },
    ])
    // An end that lies within a line now is no end of a corner.
    const longer = {
      ...line!,
      path: {
        ...line!.path,
        nodes: [...line!.path.nodes, { at: { x: 900, y: 900 }, in: null, out: null, joint: 'corner' as const }],
      },
    }
    expect(follow([[line!.id, goneOn(longer, line!, 'last')]]).map((a) => a.id)).toEqual(['l'])
  })
})

function pointOf(line: Line, u: number): { x: number; y: number } {
  const arc = arcOfPath(line.path)
  return arc.point(u * arc.total)
}
