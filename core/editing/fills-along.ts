import { newId } from '../new-id'
import { mapPath } from '../geometry/path'
import { onGrid } from '../document/grid'
import type { Drawing, Fill } from '../model/model'
import type { Vec } from '../geometry/point'

/** A fill goes along with lines that make up so much of what it is held by. */
const MOST = 0.6

/** Whether a fill goes where lines go. */
const goesWith = ({ hold, where }: Fill, has: (line: string) => boolean): boolean =>
  where === 'region' && hold.length > 0 && hold.filter((h) => has(h.line)).length >= MOST * hold.length

/** A fill whose place, and the shades on it, were put through a map of the page. */
export function mappedFill(fill: Fill, map: (p: Vec) => Vec): Fill {
  const by = (p: Vec): Vec => {
    const q = map(p)
    return { x: onGrid(q.x), y: onGrid(q.y) }
  }
  return {
    ...fill,
    at: by(fill.at),
    ...(fill.shades && { shades: fill.shades.map((s) => ({ ...s, contours: s.contours.map((c) => mapPath(c, by)) })) }),
  }
}

/** The drawing with the fills of lines that were put through a map of the page put through it as well: their regions follow by themselves, the shades on them would not. */
export function withFillsAlong(drawing: Drawing, ids: readonly string[], map: (p: Vec) => Vec): Drawing {
  const named = new Set(ids)
  const { fills } = drawing
  if (!fills?.some((f) => goesWith(f, (id) => named.has(id)))) return drawing
  return { ...drawing, fills: fills.map((f) => (goesWith(f, (id) => named.has(id)) ? mappedFill(f, map) : f)) }
}

/** Fills of copies under fresh ids: those that most of the lines that hold them went along with. `ids` leads from lines to their copies. */
export const carriedFills = (fills: readonly Fill[], ids: ReadonlyMap<string, string>, d: Vec): Fill[] =>
  fills.flatMap((f) => {
    if (!goesWith(f, (id) => ids.has(id))) return []
    const moved = mappedFill(f, (p) => ({ x: p.x + d.x, y: p.y + d.y }))
    const shades = moved.shades?.map((s) => ({ ...s, id: newId() }))
    return [
      {
        ...moved,
        id: newId(),
        hold: f.hold.flatMap((h) => (ids.has(h.line) ? [{ ...h, line: ids.get(h.line)! }] : [])),
        ...(shades && { shades }),
      },
    ]
  })
