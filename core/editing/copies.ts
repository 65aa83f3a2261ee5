import { newId } from '../new-id'
import type { Amendment, Line, Snip } from '../model/model'
import type { Vec } from '../geometry/point'
import { movedLine } from './move'
import { boundAnew } from './snips'

/** Snips whose bounds go along with lines that have other ids now. */
export function carriedSnips(snips: readonly Snip[], ids: ReadonlyMap<string, string>): Snip[] {
  const bound = (id: string): string => ids.get(id) ?? id
  return snips.map((s) => ({
    ...s,
    ...(s.fromBy && { fromBy: bound(s.fromBy) }),
    ...(s.toBy && { toBy: bound(s.toBy) }),
  }))
}

/** The lines over which ends lie, as far as they went along. */
export function carriedOver({ over }: Line, ids: ReadonlyMap<string, string>): Pick<Line, 'over'> {
  if (!over) return {}
  const at = (all: string[] | undefined): string[] => (all ?? []).flatMap((id) => ids.get(id) ?? [])
  return { over: { first: at(over.first), last: at(over.last) } }
}

/** The words of figures that are kept apart, anew for copies of these lines: a copy is another figure. */
export function otherFigures(lines: readonly Line[]): (line: Line) => Pick<Line, 'apart'> {
  const figures = new Map(lines.flatMap(({ apart }) => (apart ? [[apart, newId()]] : [])))
  return ({ apart }) => (apart ? { apart: figures.get(apart)! } : {})
}

/**
 * Copies of lines under fresh ids, moved by `d` px. Snips keep to the copies of the lines that bound them; those that lines
 * outside of the copy bound end where these cross the copy, among `others`. A figure that is kept apart is another one.
 */
export function copiedLines(lines: readonly Line[], d: Vec, others: readonly Line[]): Line[] {
  const ids = new Map(lines.map((l) => [l.id, newId()]))
  const anew = otherFigures(lines)
  const copies = lines.map((l): Line => ({
    ...movedLine(l, d),
    id: ids.get(l.id)!,
    snips: carriedSnips(l.snips, ids),
    ...anew(l),
    ...carriedOver(l, ids),
  }))
  const known = new Map([...others, ...copies].map((l) => [l.id, l]))
  const own = new Set(copies.map((c) => c.id))
  return copies.map((c) => boundAnew(c, known, own))
}

/**
 * Trims, corners, fronts and retouches of copies under fresh ids: those of which every line went along. `ids` leads from
 * lines to their copies.
 */
export function carriedAmendments(amendments: readonly Amendment[], ids: ReadonlyMap<string, string>): Amendment[] {
  const all = (...of: string[]): boolean => of.every((id) => ids.has(id))
  return amendments.flatMap((a): Amendment[] => {
    if (a.kind === 'corner' && all(a.ends[0].line, a.ends[1].line)) {
      const [one, two] = a.ends
      return [
        {
          ...a,
          id: newId(),
          ends: [
            { ...one, line: ids.get(one.line)! },
            { ...two, line: ids.get(two.line)! },
          ],
        },
      ]
    }
    if (a.kind === 'retouch' && a.by && all(a.by.line))
      return [{ ...a, id: newId(), by: { ...a.by, line: ids.get(a.by.line)! } }]
    if (a.kind === 'front' && all(...a.front, ...a.back))
      return [{ ...a, id: newId(), front: a.front.map((l) => ids.get(l)!), back: a.back.map((l) => ids.get(l)!) }]
    if (a.kind === 'cast' && all(...a.front)) return [{ ...a, id: newId(), front: a.front.map((l) => ids.get(l)!) }]
    if (a.kind === 'bridge' && all(...a.lines)) return [{ ...a, id: newId(), lines: a.lines.map((l) => ids.get(l)!) }]
    if (a.kind === 'fineness' && all(a.line)) return [{ ...a, id: newId(), line: ids.get(a.line)! }]
    if (a.kind === 'trim' && all(a.line, ...a.over, ...a.bounds.map((b) => b.by))) {
      return [
        {
          ...a,
          id: newId(),
          line: ids.get(a.line)!,
          over: a.over.map((o) => ids.get(o)!),
          bounds: a.bounds.map((b) => ({ ...b, by: ids.get(b.by)! })),
        },
      ]
    }
    return []
  })
}
