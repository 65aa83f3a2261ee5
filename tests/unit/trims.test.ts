import { describe, expect, it } from 'vitest'
import { evenWeight, newDrawing, newLine, newLinesLayer } from '#core/model/create'
import { carriedAmendments, copiedLines } from '#core/editing/copies'
import { makeEdit } from '#core/document/edits'
import type { Drawing, Line, Trim } from '#core/model/model'
import type { Patch } from '#core/document/patch'
import { areaOfCubics } from '#core/geometry/area'
import { cubicsOfPath } from '#core/geometry/path'
import type { InkSession } from '#core/ink/open-ink'
import { openInk } from '#core/ink/open-ink'
import { regionHitAt } from '#core/ink/session/region-hits'
import { atOnce } from '#core/turns'
import { FlatOutline } from './support/flat-outline'
import { polyline } from './support/paths'

type Point = [number, number]
const bar = (id: string, a: Point, b: Point, size = 8, ink = 'black'): Line =>
  newLine(polyline(...a, ...b), { id, weight: evenWeight(size), ink })

/** A wall, and a bar that goes 30 px past it. */
const crossed = (): Drawing => {
  const d = newDrawing('Trim', {
    layers: [newLinesLayer('Ink', [bar('wall', [100, 20], [100, 180]), bar('a', [20, 100], [130, 100])])],
  })
  return { ...d, settings: { ...d.settings, shapes: { ...d.settings.shapes, simplify: 0 } } }
}

const isInked = (session: InkSession, x: number, y: number): boolean =>
  new FlatOutline(atOnce(session.shapes()).shapes.flatMap((s) => s.contours.map(cubicsOfPath))).winding({ x, y }) !== 0
const area = (session: InkSession): number =>
  atOnce(session.shapes())
    .shapes.flatMap((s) => s.contours)
    .reduce((n, c) => n + areaOfCubics(cubicsOfPath(c)), 0)

function edit(session: InkSession, recipe: (d: Drawing) => void): Patch[] {
  const made = makeEdit(session.drawing, 'Edit', recipe)!
  session.apply(made.edit.patches)
  return made.edit.inverse
}
const lineIn = (d: Drawing, id: string): Line => d.layers.flatMap((l) => l.items as Line[]).find((l) => l.id === id)!

function trimmedAt(session: InkSession, x: number, y: number): Trim {
  const hit = atOnce(session.piecesAt({ x, y }))[0]!
  const trim: Trim = { id: `trim ${x} ${y}`, kind: 'trim', ...hit.trim }
  edit(session, (d) => void (d.amendments = [...(d.amendments ?? []), trim]))
  return trim
}
const waiting = (session: InkSession): number => atOnce(session.trimmed()).filter((t) => !t.piece).length

describe('loose ends and specks in a region', () => {
  const specked = (): Drawing => {
    const d = newDrawing('Specks', {
      layers: [
        newLinesLayer('Ink', [
          ...(
            [
              [20, 20, 180, 20],
              [180, 20, 180, 180],
              [180, 180, 20, 180],
              [20, 180, 20, 20],
            ] as const
          ).map(([a, b, c, e], i) => bar(`wall ${i}`, [a, b], [c, e])),
          bar('speck', [90, 90], [91, 90], 1),
          bar('eye', [120, 120], [126, 120], 12),
          bar('outside', [195, 90], [196, 90], 1),
          bar('on ink', [100, 20], [101, 20], 1),
          bar('past', [60, -10], [60, 40], 4),
          bar('ends in it', [140, 100], [140, 200], 4),
        ]),
      ],
    })
    return { ...d, settings: { ...d.settings, shapes: { ...d.settings.shapes, simplify: 0 } } }
  }

  it('are found where nothing holds them, and taken away; they follow, and can be brought back', () => {
    const session = openInk(specked())
    const region = atOnce(regionHitAt(session, { x: 60, y: 60 }, 0))!
    const found = atOnce(session.litter([{ outer: region.contours[0]!, hold: region.hold }], { most: 8, least: 4 }))
    // What sticks in by more than eight of its sizes was meant to.
    expect(found.map((f) => f.trim.line)).toEqual(['speck', 'past'])
    edit(session, (d) => void (d.amendments = found.map((f, i): Trim => ({ id: `t${i}`, kind: 'trim', ...f.trim }))))
    expect([
      isInked(session, 90.5, 90),
      isInked(session, 60, 35),
      isInked(session, 60, 5),
      isInked(session, 123, 120),
      isInked(session, 140, 110),
      waiting(session),
    ]).toEqual([false, false, true, true, true, 0])
    // Poured again, there is nothing more to clear.
    expect(atOnce(session.litter([{ outer: region.contours[0]!, hold: region.hold }], { most: 8, least: 4 }))).toEqual(
      [],
    )
    edit(session, (d) => lineIn(d, 'speck').path.nodes.forEach((n) => (n.at.x += 30)))
    expect(isInked(session, 120.5, 90)).toBe(false)
    const [hit] = atOnce(session.piecesAt({ x: 120.5, y: 90 }))
    expect(hit!.taken).toBe('t0')
    edit(session, (d) => void (d.amendments = []))
    expect(isInked(session, 120.5, 90)).toBe(true)
  })
})

describe('a piece that is trimmed', () => {
  it('is the part beyond the line that bounds it, of one line only', () => {
    const session = openInk(crossed())
    const whole = area(session)
    const [front] = atOnce(session.piecesAt({ x: 115, y: 100 }))
    expect(front!.trim).toMatchObject({ line: 'a', over: [], bounds: [{ by: 'wall', side: -1 }] })
    trimmedAt(session, 115, 100)
    expect(isInked(session, 115, 100)).toBe(false)
    expect(isInked(session, 60, 100)).toBe(true)
    // 26 px beyond the wall's edge, with a round cap.
    expect(whole - area(session)).toBeCloseTo(26 * 8 + (Math.PI * 16) / 2, 0)
    expect(atOnce(session.piecesAt({ x: 115, y: 100 }))[0]!.taken).toBe('trim 115 100')
  })

  it('stays away when its line or the one that bounds it is edited, and after undo', () => {
    const session = openInk(crossed())
    trimmedAt(session, 115, 100)
    const inverse = edit(session, (d) => {
      lineIn(d, 'a').path.nodes[1]!.at = { x: 140, y: 130 }
      lineIn(d, 'wall').path.nodes.forEach((n) => (n.at.x += 9))
      lineIn(d, 'a').weight = evenWeight(12)
    })
    expect(isInked(session, 130, 126)).toBe(false)
    expect(isInked(session, 90, 117)).toBe(true)
    expect(waiting(session)).toBe(0)
    session.apply(inverse)
    expect(isInked(session, 115, 100)).toBe(false)
  })

  it('waits, and takes nothing away, when it is gone: the line stops short of the wall, passes by, or the wall is deleted', () => {
    for (const act of [
      (d: Drawing) => void (lineIn(d, 'a').path.nodes[1]!.at.x = 97),
      (d: Drawing) => void lineIn(d, 'wall').path.nodes.forEach((n) => (n.at.x += 100)),
      (d: Drawing) => void (d.layers[0]!.items as Line[]).shift(),
    ]) {
      const session = openInk(crossed())
      trimmedAt(session, 115, 100)
      const inverse = edit(session, act)
      expect(waiting(session)).toBe(1)
      expect(isInked(session, 60, 100)).toBe(true)
      expect(isInked(session, 90, 100)).toBe(true)
      session.apply(inverse)
      expect(waiting(session)).toBe(0)
      expect(isInked(session, 115, 100)).toBe(false)
    }
  })

  it('of all lines through one point, and of all pieces of a line, leaves the others be', () => {
    const star = Array.from({ length: 10 }, (_, i) =>
      bar(
        `s${i}`,
        [200 - 80 * Math.cos(i * 0.314), 150 - 80 * Math.sin(i * 0.314)],
        [200 + 80 * Math.cos(i * 0.314), 150 + 80 * Math.sin(i * 0.314)],
        6,
      ),
    )
    const session = openInk(newDrawing('Star', { layers: [newLinesLayer('Ink', star)] }))
    expect(atOnce(session.piecesAt({ x: 200, y: 150 })).map((h) => h.trim.line)).toEqual(
      star.map((l) => l.id).reverse(),
    )
    const before = star.map((l) => isInked(session, l.path.nodes[1]!.at.x - 1, l.path.nodes[1]!.at.y))
    for (let x = 122; x < 280; x += 2)
      if (atOnce(session.piecesAt({ x, y: 150 })).find((h) => h.trim.line === 's0' && !h.taken))
        edit(
          session,
          (d) =>
            void (d.amendments = [
              ...(d.amendments ?? []),
              {
                id: `t${x}`,
                kind: 'trim',
                ...atOnce(session.piecesAt({ x, y: 150 })).find((h) => h.trim.line === 's0')!.trim,
              },
            ]),
        )
    expect(isInked(session, 270, 150)).toBe(false)
    expect(waiting(session)).toBe(0)
    expect(star.slice(1).map((l) => isInked(session, l.path.nodes[1]!.at.x - 1, l.path.nodes[1]!.at.y))).toEqual(
      before.slice(1),
    )
  })
})

describe('copies', () => {
  it('of a line and what bounds its trim are trimmed as well; of the line alone they are not', () => {
    const session = openInk(crossed())
    trimmedAt(session, 115, 100)
    const copyOf = (...ids: string[]): void => {
      const lines = ids.map((id) => lineIn(session.drawing, id))
      const copies = copiedLines(lines, { x: 200, y: 50 }, [])
      const carried = carriedAmendments(
        session.drawing.amendments!,
        new Map(lines.map((l, i) => [l.id, copies[i]!.id])),
      )
      edit(session, (d) => {
        ;(d.layers[0]!.items as Line[]).push(...copies)
        d.amendments = [...d.amendments!, ...carried]
      })
    }
    copyOf('wall', 'a')
    expect([isInked(session, 315, 150), isInked(session, 260, 150), waiting(session)]).toEqual([false, true, 0])
    copyOf('a')
    expect([isInked(session, 315, 150), waiting(session)]).toEqual([true, 0])
  })
})

describe('a fence', () => {
  const fenced = (): Drawing =>
    newDrawing('Fence', {
      layers: [
        newLinesLayer('Ink', [
          bar('wall', [100, 20], [100, 180]),
          bar('a', [20, 60], [112, 60]),
          bar('b', [20, 90], [190, 90]),
          bar('c', [180, 120], [86, 120]),
          bar('short of it', [20, 150], [80, 150]),
          bar('on to a post', [20, 30], [116, 30]),
          bar('post', [116, 24], [116, 40]),
        ]),
        { ...newLinesLayer('Locked', [bar('d', [20, 140], [110, 140])]), locked: true },
      ],
    })

  it('proposes what overshoots it by less than so many widths, of open lines', () => {
    const session = openInk(fenced())
    const lines = (most: number): string[] => atOnce(session.beyond(new Set(['wall']), most)).map((h) => h.trim.line)
    expect(lines(3)).toEqual(['a', 'c'])
    expect(lines(0.5)).toEqual([])
    // At last the shorter side of each, and never both.
    expect(lines(50)).toEqual(['a', 'b', 'c'])
  })

  it('finds nothing more once what it proposes is trimmed', () => {
    const session = openInk(fenced())
    const hits = atOnce(session.beyond(new Set(['wall']), 3))
    edit(session, (d) => void (d.amendments = hits.map((h, i) => ({ id: `f${i}`, kind: 'trim', ...h.trim }))))
    expect(atOnce(session.beyond(new Set(['wall']), 3))).toEqual([])
    expect([
      isInked(session, 110, 60),
      isInked(session, 90, 120),
      isInked(session, 110, 140),
      isInked(session, 60, 60),
    ]).toEqual([false, false, true, true])
  })
})
