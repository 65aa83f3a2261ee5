import { arcOfPath } from '../geometry/known'
import { endsOf } from './edit-line'
import { linesOf } from '../model/queries'
import type { Amendment, Corner, Drawing, Fill, Fineness, Hanging, Hold, Line, PlaceBy, Trim } from '../model/model'

/**
 * Where a stretch of a line, from one share of its length to another, lies now: on which line, and between which shares of
 * that; turned round where the first is the larger.
 */
export interface Stretch {
  from: number
  to: number
  line: string
  at: readonly [number, number]
}

type End = 'first' | 'last'

/** All of a line, the other way round. */
export const turnedRound = (line: string): Stretch[] => [{ from: 0, to: 1, line, at: [1, 0] }]

/** A line as the parts into which it was cut at some shares, in order. */
export function cutAt(places: readonly number[], parts: readonly Pick<Line, 'id'>[]): Stretch[] {
  const bounds = [0, ...places, 1]
  return parts.map(({ id }, i) => ({ from: bounds[i]!, to: bounds[i + 1]!, line: id, at: [0, 1] }))
}

/** A closed line as the parts into which it was cut at some shares: the last one goes on past where the line began. */
export const cutOpen = (places: readonly number[], parts: readonly Pick<Line, 'id'>[]): Stretch[] =>
  parts.flatMap(({ id }, i): Stretch[] => {
    const [from, to] = [places[i]!, places[i + 1] ?? 1 + places[0]!]
    if (to <= 1) return [{ from, to, line: id, at: [0, 1] }]
    const start = (1 - from) / (to - from)
    const [before, after]: Stretch[] = [
      { from, to: 1, line: id, at: [0, start] },
      { from: 0, to: to - 1, line: id, at: [start, 1] },
    ]
    return [before!, after!].filter((s) => s.to > s.from)
  })

/** Two lines as the one that they were joined to: the first up to its end, then the second; each turned round where that was needed. */
export function joinedAs(
  one: Line,
  first: { line: Line; turned: boolean },
  second: { line: Line; turned: boolean },
): Map<string, Stretch[]> {
  const part = ({ line, turned }: typeof first, end: End): Stretch[] =>
    goneOn(one, line, end).map((s) => (turned ? { ...s, at: [s.at[1], s.at[0]] } : s))
  return new Map([
    [first.line.id, part(first, 'last')],
    [second.line.id, part(second, 'first')],
  ])
}

/** A line that goes on from one of its ends. */
export function goneOn(longer: Line, line: Line, end: End): Stretch[] {
  const share = Math.min(1, arcOfPath(line.path).total / (arcOfPath(longer.path).total || 1))
  return [{ from: 0, to: 1, line: longer.id, at: end === 'last' ? [0, share] : [1 - share, 1] }]
}

/**
 * Lines were made anew without moving their ink: turned round, cut, joined. Whatever is known by places on them is known by the
 * same places on what they are now: what fills are held by, trims, corners, tolerances of islands, what is left as it is, and
 * which lines ends lie over.
 *
 * @param before the drawing as it was
 * @param draft the drawing with the lines made anew, which is changed
 * @param remade where each of these lines is now, by its id
 */
export function followRemade(before: Drawing, draft: Drawing, remade: ReadonlyMap<string, readonly Stretch[]>): void {
  const now = (ids: readonly string[]): string[] => [
    ...new Set(ids.flatMap((id) => remade.get(id)?.map((s) => s.line) ?? [id])),
  ]
  const isHeld = (f: Fill): boolean => f.hold.some((h) => remade.has(h.line))
  if (draft.fills?.some(isHeld)) draft.fills = draft.fills.map((f) => (isHeld(f) ? reheld(f, remade) : f))
  const concerns = (a: Amendment): boolean => linesIn(a).some((id) => remade.has(id))
  if (draft.amendments?.some(concerns)) {
    const partBy = nearestPart(before, draft, remade)
    draft.amendments = draft.amendments.flatMap((a): Amendment[] => {
      if (!concerns(a)) return [a]
      if (a.kind === 'trim') return [trimmedThere(a, remade, (id) => partBy(id, a))]
      if (a.kind === 'fineness') return [{ ...a, ...placedThere(a, remade) }]
      if (a.kind === 'retouch') return [{ ...a, by: hungThere(a.by!, remade) }]
      if (a.kind === 'front') return [{ ...a, front: now(a.front), back: now(a.back) }]
      if (a.kind === 'bridge' || a.kind === 'repeat') return [{ ...a, lines: now(a.lines) }]
      if (a.kind === 'cast') return [{ ...a, front: now(a.front) }]
      if (a.kind === 'mirror')
        return [{ ...a, lines: now(a.lines), ...(a.otherwise && { otherwise: now(a.otherwise) }) }]
      if (a.kind === 'leave') return [{ ...a, key: keyThere(a.key, remade) }]
      return cornerThere(a, remade)
    })
  }
  const over = (l: Line): boolean => Object.values(l.over ?? {}).some((ids) => ids.some((id) => remade.has(id)))
  // Drafts are slow to go through: few lines lie over others.
  if (!linesOf(before).some(over)) return
  for (const line of linesOf(draft))
    if (over(line)) {
      const { first, last } = line.over!
      line.over = endsOf(first && now(first), last && now(last))
    }
}

/** The lines that an amendment speaks of. */
function linesIn(a: Amendment): string[] {
  switch (a.kind) {
    case 'trim':
      return [a.line, ...a.over, ...a.bounds.map((b) => b.by)]
    case 'corner':
      return a.ends.map((e) => e.line)
    case 'fineness':
      return [a.line]
    case 'front':
      return [...a.front, ...a.back]
    case 'cast':
      return a.front
    case 'bridge':
    case 'mirror':
    case 'repeat':
      return a.lines
    case 'retouch':
      return a.by ? [a.by.line] : []
    case 'leave':
      return a.key.split(' ')
  }
}

/** Finds, of the parts that a line is now, the one nearest to where a trim is. */
function nearestPart(
  before: Drawing,
  draft: Drawing,
  remade: ReadonlyMap<string, readonly Stretch[]>,
): (id: string, at: Trim) => string {
  return (id, { line, place }) => {
    const ids = [...new Set((remade.get(id) ?? []).map((s) => s.line))]
    const owner = linesOf(before).find((l) => l.id === line)
    if (ids.length < 2 || !owner) return ids[0] ?? id
    const arc = arcOfPath(owner.path)
    const p = arc.point(place.at * arc.total)
    const parts = linesOf(draft).filter((l) => ids.includes(l.id))
    const far = (part: Line): number => arcOfPath(part.path).nearest(p).distance
    return parts.length ? parts.reduce((a, b) => (far(b) < far(a) ? b : a)).id : ids[0]!
  }
}

const isTurned = ({ at }: Stretch): boolean => at[0] > at[1]

const shareOn = ({ from, to, at }: Stretch, u: number): number =>
  at[0] + ((u - from) / (to - from || 1)) * (at[1] - at[0])

function reheld(fill: Fill, remade: ReadonlyMap<string, readonly Stretch[]>): Fill {
  return {
    ...fill,
    hold: fill.hold.flatMap((h): Hold[] => {
      const stretches = remade.get(h.line)
      if (!stretches) return [h]
      return stretches.flatMap((s): Hold[] => {
        const [from, to] = [Math.max(h.from, s.from), Math.min(h.to, s.to)]
        if (to < from || (to === from && h.to > h.from)) return []
        const [a, b] = [shareOn(s, from), shareOn(s, to)]
        return [
          {
            line: s.line,
            side: isTurned(s) ? (h.side === 'left' ? 'right' : 'left') : h.side,
            from: Math.min(a, b),
            to: Math.max(a, b),
          },
        ]
      })
    }),
  }
}

/** The stretch about a share, and the share there. */
function found(
  remade: ReadonlyMap<string, readonly Stretch[]>,
  line: string,
  u: number,
): { stretch: Stretch; share: number } | null {
  const stretches = remade.get(line)
  if (!stretches?.length) return null
  const off = (s: Stretch): number => Math.max(s.from - u, u - s.to, 0)
  const stretch = stretches.reduce((a, b) => (off(b) < off(a) ? b : a))
  return { stretch, share: shareOn(stretch, Math.min(stretch.to, Math.max(stretch.from, u))) }
}

function placedThere<T extends Trim | Fineness>(
  a: T,
  remade: ReadonlyMap<string, readonly Stretch[]>,
): { line: string; place: PlaceBy } {
  const there = found(remade, a.line, a.place.at)
  if (!there) return { line: a.line, place: a.place }
  const sign = isTurned(there.stretch) ? -1 : 1
  return {
    line: there.stretch.line,
    place: { at: there.share, ahead: sign * a.place.ahead, left: sign * a.place.left },
  }
}

/** What a retouch hangs on: the same ink lies on the other side of a line that was turned round, which goes the other way. */
function hungThere(by: Hanging, remade: ReadonlyMap<string, readonly Stretch[]>): Hanging {
  const there = found(remade, by.line, by.at)
  if (!there) return by
  const at = { ...by, line: there.stretch.line, at: there.share }
  if (!isTurned(there.stretch)) return at
  const turn = by.turn > 0 ? by.turn - Math.PI : by.turn + Math.PI
  return { ...at, ahead: -by.ahead, left: -by.left, turn }
}

function trimmedThere(
  trim: Trim,
  remade: ReadonlyMap<string, readonly Stretch[]>,
  partBy: (id: string) => string,
): Trim {
  const there = found(remade, trim.line, trim.place.at)
  const turn = there && isTurned(there.stretch)
  return {
    ...trim,
    ...placedThere(trim, remade),
    over: trim.over.map((id) => (remade.has(id) ? partBy(id) : id)),
    bounds: trim.bounds.map(({ by, side }) => ({
      by: remade.has(by) ? partBy(by) : by,
      side: turn && side ? (side === 1 ? -1 : 1) : side,
    })),
  }
}

/** The end that an end is now; null where it lies within a line. */
function endThere(
  remade: ReadonlyMap<string, readonly Stretch[]>,
  line: string,
  end: End,
): { line: string; end: End } | null {
  const there = found(remade, line, end === 'first' ? 0 : 1)
  if (!there) return { line, end }
  return there.share === 0
    ? { line: there.stretch.line, end: 'first' }
    : there.share === 1
      ? { line: there.stretch.line, end: 'last' }
      : null
}

function cornerThere(corner: Corner, remade: ReadonlyMap<string, readonly Stretch[]>): Corner[] {
  const [a, b] = corner.ends.map((e) => endThere(remade, e.line, e.end))
  return a && b ? [{ ...corner, ends: [a, b] }] : []
}

/** What Proof calls a finding by: its kind, then ids of lines and which end. */
function keyThere(key: string, remade: ReadonlyMap<string, readonly Stretch[]>): string {
  const words = key.split(' ')
  return words
    .map((word, i) => {
      const isEnd = (w: string | undefined): w is End => w === 'first' || w === 'last'
      if (remade.has(word))
        return isEnd(words[i + 1]) ? (endThere(remade, word, words[i + 1] as End)?.line ?? word) : word
      return isEnd(word) && remade.has(words[i - 1]!) ? (endThere(remade, words[i - 1]!, word)?.end ?? word) : word
    })
    .join(' ')
}
