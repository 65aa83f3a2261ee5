import type { Vec } from '../geometry/point'
import { arcOfPath } from '../geometry/known'
import type { Finding, Proofed } from './finding'

/** Amendments that find no place any more. */
export function waiting({ drawing, stack, lines, waits, poured }: Proofed): Finding[] {
  const known = new Map(lines.map((l) => [l.id, l]))
  const middle: Vec = { x: drawing.page.width / 2, y: drawing.page.height / 2 }
  const by = (id: string, at: number): Vec => {
    const line = known.get(id)
    return line ? arcOfPath(line.path).point(arcOfPath(line.path).total * at) : middle
  }
  const trims = stack.trims.flatMap(({ trim, piece }): Finding[] =>
    piece
      ? []
      : [
          {
            key: `waiting ${trim.id}`,
            kind: 'waiting',
            at: by(trim.line, trim.place.at),
            items: [trim.line],
            mend: { do: 'forget', amendment: trim.id },
          },
        ],
  )
  const found = new Set(stack.corners.map((c) => c.corner?.id))
  const corners = (drawing.amendments ?? []).flatMap((a): Finding[] =>
    a.kind !== 'corner' || found.has(a.id) || drawing.settings.tuck === false
      ? []
      : [
          {
            key: `waiting ${a.id}`,
            kind: 'waiting',
            at: by(a.ends[0].line, a.ends[0].end === 'first' ? 0 : 1),
            items: a.ends.map((e) => e.line),
            mend: { do: 'forget', amendment: a.id },
          },
        ],
  )
  const outlines = (drawing.amendments ?? []).flatMap((a): Finding[] => {
    if (!waits.has(a.id) || (a.kind !== 'retouch' && a.kind !== 'fineness' && a.kind !== 'front')) return []
    if (a.kind === 'front') {
      const items = [...a.front, ...a.back].filter((id) => known.has(id))
      const at = items[0] ? by(items[0], 0.5) : middle
      return [{ key: `waiting ${a.id}`, kind: 'waiting', at, items, mend: { do: 'forget', amendment: a.id } }]
    }
    const [at, items] = a.kind === 'retouch' ? [a.at, a.by ? [a.by.line] : []] : [by(a.line, a.place.at), [a.line]]
    return [{ key: `waiting ${a.id}`, kind: 'waiting', at, items, mend: { do: 'forget', amendment: a.id } }]
  })
  const fills = poured.flatMap(({ fill, faces, lostTo }): Finding[] =>
    fill.where !== 'region' || faces.length || lostTo
      ? []
      : [{ key: `waiting ${fill.id}`, kind: 'waiting', at: fill.at, items: [], mend: { do: 'unpour', fill: fill.id } }],
  )
  return [...trims, ...corners, ...outlines, ...fills]
}

/** Fills whose region became one with that of a larger fill. */
export const joinedFills = ({ poured }: Proofed): Finding[] =>
  poured.flatMap(({ fill, lostTo }): Finding[] =>
    lostTo
      ? [{ key: `joined ${fill.id}`, kind: 'joined', at: fill.at, items: [], mend: { do: 'unpour', fill: fill.id } }]
      : [],
  )
