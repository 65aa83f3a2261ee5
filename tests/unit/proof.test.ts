import { describe, expect, it } from 'vitest'
import { evenWeight, newDrawing, newLine, newLinesLayer } from '#core/model/create'
import { changed } from '#core/document/edits'
import { checkDrawing } from '#core/document/check-drawing'
import type { Drawing, Line } from '#core/model/model'
import { linesOf } from '#core/model/queries'
import { pointAt } from '#core/geometry/cubic'
import { cubicsOfPath } from '#core/geometry/path'
import { openInk } from '#core/ink/open-ink'
import { findingsIn, findingsOf, openFindings } from '#core/proof/findings-of'
import type { Finding, FindingKind } from '#core/proof/finding'
import { KINDS } from '#core/proof/finding'
import { mendAll } from '#core/proof/mend'
import { atOnce } from '#core/turns'
import { faultySheet } from '../../demo/faults'
import { documentOf, SCENARIO } from '../../demo/scenario'

/** A finding is the fault that lies so near, px: a cell is 64 wide. */
const NEAR = 28

function judged(seed: number): Record<FindingKind, { planted: number; found: number; wrong: number }> {
  const { drawing, faults } = faultySheet(seed)
  const findings = findingsOf(drawing)
  return Object.fromEntries(
    KINDS.map((kind) => {
      const planted = faults.filter((f) => f.kind === kind)
      const mine = findings.filter((f) => f.kind === kind)
      const is = (a: { x: number; y: number }, b: { x: number; y: number }): boolean =>
        Math.hypot(a.x - b.x, a.y - b.y) < NEAR
      return [
        kind,
        {
          planted: planted.length,
          found: planted.filter((p) => mine.some((f) => is(f.at, p.at))).length,
          wrong: mine.filter((f) => !planted.some((p) => is(f.at, p.at))).length,
        },
      ]
    }),
  ) as ReturnType<typeof judged>
}

const mended = (d: Drawing, findings: readonly Finding[]): Drawing => changed(d, (draft) => mendAll(draft, findings))

/** How far any place of a line has moved, px, where both have it. */
function moved(a: Line, b: Line): number {
  const places = (l: Line) => cubicsOfPath(l.path).map((c) => pointAt(c, 0.5))
  const [p, q] = [places(a), places(b)]
  return Math.max(0, ...p.map((v, i) => (q[i] ? Math.hypot(v.x - q[i].x, v.y - q[i].y) : 0)))
}

describe('Proof', () => {
  it('finds every fault of the sheet, of every kind, and nothing else', () => {
    for (const seed of [1, 2, 3]) {
      expect(checkDrawing(faultySheet(seed).drawing)).toBeTruthy()
      const rows = judged(seed)
      for (const kind of KINDS) {
        // What cannot be worked out cannot be planted either: nothing is known that would be.
        const planted = kind === 'failed' ? 0 : 6
        expect({ kind, ...rows[kind] }).toEqual({ kind, planted, found: planted, wrong: 0 })
      }
    }
  })

  it.each(SCENARIO.map((make) => documentOf(make(), null)).map((d) => [d.name, d] as const))(
    'finds nothing in %s',
    (_, d) => {
      expect(findingsOf(d)).toEqual([])
    },
  )

  it('finds a pinhole that three lines leave between them, and closes it', () => {
    // The hole's own corners, 0.2 px squared between them; each line lies half its width outside of an edge.
    const hole = [
      { x: 300, y: 200 },
      { x: 300.9, y: 200.1 },
      { x: 300.3, y: 200.5 },
    ]
    const lines = [5, 6.5, 8].map((size, k) => {
      const [p, q] = [hole[k]!, hole[(k + 1) % 3]!]
      const l = Math.hypot(q.x - p.x, q.y - p.y)
      const [u, v] = [(q.x - p.x) / l, (q.y - p.y) / l]
      const at = (s: number) => ({ x: p.x + s * u + (size / 2) * v, y: p.y + s * v - (size / 2) * u })
      return newLine(
        {
          closed: false,
          nodes: [at(-70 - 9 * k), at(60 + 13 * k)].map((p) => ({ at: p, in: null, out: null, joint: 'corner' })),
        },
        { weight: evenWeight(size) },
      )
    })
    const drawing = newDrawing('Pinhole', { layers: [newLinesLayer('Lines', lines)] })
    const holes = findingsOf(drawing).filter((f) => f.kind === 'sliver')
    expect(holes.map((f) => [Math.round(f.at.x / 2), Math.round(f.at.y / 2)])).toEqual([[150, 100]])
    expect(findingsOf(mended(drawing, holes)).filter((f) => f.kind === 'sliver')).toEqual([])
  })

  it('knows a lump by the lines that make it, wherever they go', () => {
    const bar = (id: string, x: number, to: number, y: number, size: number) =>
      newLine(
        {
          closed: false,
          nodes: [
            { x, y },
            { x: to, y: y + (to - x) / 9 },
          ].map((at) => ({ at, in: null, out: null, joint: 'corner' as const })),
        },
        { id, weight: evenWeight(size) },
      )
    const lumps = (dx: number, dy: number): string[] => {
      const lines = [bar('long', 60 + dx, 240 + dx, 90 + dy, 5), bar('blob', 150 + dx, 150.6 + dx, 100 + dy, 6.4)]
      return findingsOf(newDrawing('Lump', { layers: [newLinesLayer('Lines', lines)] }))
        .filter((f) => f.kind === 'lump')
        .map((f) => f.key)
    }
    expect(lumps(0, 0)).toHaveLength(2)
    expect(new Set(lumps(0, 0)).size).toBe(2)
    expect(lumps(31, 17)).toEqual(lumps(0, 0))
  })

  it('tells ends past a line with tucking off, too', () => {
    const { drawing } = faultySheet()
    expect(
      findingsOf({ ...drawing, settings: { ...drawing.settings, tuck: false } }).filter((f) => f.kind === 'past'),
    ).toHaveLength(6)
  })

  it('mends the end that it names, and leaves the other where it is', () => {
    const { drawing } = faultySheet()
    const lines = (d: Drawing): Map<string, Line> => new Map(linesOf(d).map((l) => [l.id, l]))
    const found = findingsOf(drawing).filter((f) => f.mend?.do === 'close' || f.mend?.do === 'meet')
    expect(new Set(found.map((f) => f.mend!.do)).size).toBe(2)
    const [was, is] = [lines(drawing), lines(mended(drawing, found))]
    for (const { mend } of found) {
      if (mend?.do !== 'close' && mend?.do !== 'meet') continue
      const off = (p: { x: number; y: number }, lines: Map<string, Line>, last: boolean): number => {
        const { at } = lines.get(mend.line)!.path.nodes.at(last ? -1 : 0)!
        return Math.hypot(at.x - p.x, at.y - p.y)
      }
      const other = was.get(mend.line)!.path.nodes.at(mend.end === 'last' ? 0 : -1)!.at
      expect([off(mend.to, is, mend.end === 'last') < 0.001, off(other, is, mend.end === 'first') < 0.001]).toEqual([
        true,
        true,
      ])
    }
  })

  // Only a hand can tell what an edge should be.
  const BY_HAND: readonly FindingKind[] = ['lump', 'notch', 'failed']

  it.each(KINDS.filter((k) => !BY_HAND.includes(k)))(
    'mended, nothing of its kind is left, and nothing else moves: %s',
    (kind) => {
      const { drawing } = faultySheet()
      const all = findingsOf(drawing)
      const mine = all.filter((f) => f.kind === kind && f.mend)
      expect(mine.length).toBeGreaterThan(0)
      const after = mended(drawing, mine)
      expect(findingsOf(after).filter((f) => f.kind === kind && f.mend)).toEqual([])
      const touched = new Set(mine.flatMap((f) => (f.mend && 'line' in f.mend ? [f.mend.line] : [])))
      const was = new Map(linesOf(drawing).map((l) => [l.id, l]))
      for (const l of linesOf(after)) if (!touched.has(l.id)) expect(moved(was.get(l.id)!, l)).toBe(0)
    },
  )

  it('what is left as it is, is told no more, and comes back when it is taken back', () => {
    const { drawing } = faultySheet()
    const [first] = findingsOf(drawing)
    const left: Drawing = {
      ...drawing,
      amendments: [...drawing.amendments!, { id: 'leave', kind: 'leave', key: first!.key }],
    }
    expect(findingsOf(left).map((f) => f.key)).not.toContain(first!.key)
    expect(openFindings(drawing, atOnce(findingsIn(openInk(left)))).map((f) => f.key)).toContain(first!.key)
  })

  it('says the same after edits as from a fresh start', () => {
    const { drawing } = faultySheet(5)
    const session = openInk(drawing)
    atOnce(findingsIn(session))
    let now = drawing
    for (const seed of [3, 8, 21, 34]) {
      const next = changed(now, (d) => {
        const line = (d.layers[0]!.items as Line[])[seed % d.layers[0]!.items.length]!
        line.path.nodes[0]!.at.x += 9
        line.weight.size *= 1.3
      })
      session.apply([
        {
          op: 'replace',
          path: [
            'layers',
            now.layers[0]!.id,
            'items',
            (next.layers[0]!.items as Line[])[seed % next.layers[0]!.items.length]!.id,
            'path',
          ],
          value: (next.layers[0]!.items as Line[])[seed % next.layers[0]!.items.length]!.path,
        },
      ])
      now = session.drawing
      expect(openFindings(now, atOnce(findingsIn(session)))).toEqual(findingsOf(now))
    }
  })
})
