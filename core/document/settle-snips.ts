import { nearestTo, placesAlong } from '../relations/crossing-places'
import type { Drawing, Line, Snip } from '../model/model'

/** Bounds that differ by less are the same, as shares of the length. */
const SAME_PLACE = 1e-6

/**
 * `after` with every snip where its crossings have gone: a bound keeps to its crossing by number as long as the two lines
 * cross as often as before, else to the nearest one. A snip whose crossing is gone hides nothing, and waits.
 */
export function withSnipsSettled(before: Drawing, after: Drawing): Drawing {
  if (before === after || !after.layers.some(hasSnips)) return after
  const ids = concerned(after)
  const [was, is] = [linesById(before, ids), linesById(after, ids)]
  return {
    ...after,
    layers: after.layers.map((layer) => {
      if (layer.kind !== 'lines' || !hasSnips(layer)) return layer
      const items = layer.items.map((line) => settled(line, was, is))
      return items.every((l, i) => l === layer.items[i]) ? layer : { ...layer, items }
    }),
  }
}

/**
 * `after` with the bounds of snips at crossings of lines that differ from `before`, the nearest place each: for when a line
 * and what bounds it were changed apart from each other. Bounds that are at their crossings stay as they are.
 */
export function withSnipsBound(before: Drawing, after: Drawing): Drawing {
  if (before.layers === after.layers || !after.layers.some(hasSnips)) return after
  const ids = concerned(after)
  const [was, is] = [linesById(before, ids), linesById(after, ids)]
  const moved = (id: string | undefined): boolean => !!id && was.get(id)?.path !== is.get(id)?.path
  let changed = false
  const layers = after.layers.map((layer) => {
    if (layer.kind !== 'lines' || !hasSnips(layer)) return layer
    const items = layer.items.map((line) => {
      if (!line.snips.some((s) => moved(line.id) || moved(s.fromBy) || moved(s.toBy))) return line
      const snips = line.snips.map((s) => rebound(s, line, is))
      if (snips.every((s, i) => s === line.snips[i])) return line
      changed = true
      return { ...line, snips }
    })
    return { ...layer, items }
  })
  return changed ? { ...after, layers } : after
}

/** A snip with its bounds at the nearest crossings with the lines that bound it; idle where there is none. */
function rebound(snip: Snip, line: Line, is: ReadonlyMap<string, Line>): Snip {
  const place = (at: number, by: string | undefined): number | null => {
    if (!by) return at
    const places = is.has(by) ? placesAlong(line.path, is.get(by)!.path) : []
    if (!places.length) return null
    const near = nearestTo(at, places)
    return Math.abs(near - at) < SAME_PLACE ? at : near
  }
  const [from, to] = [place(snip.from, snip.fromBy), place(snip.to, snip.toBy)]
  if (from === null || to === null || (!line.path.closed && from >= to))
    return snip.idle ? snip : { ...snip, idle: true }
  if (from === snip.from && to === snip.to && !snip.idle) return snip
  const { fromBy, toBy } = snip
  return { from, to, ...(fromBy && { fromBy }), ...(toBy && { toBy }) }
}

const hasSnips = (layer: Drawing['layers'][number]): boolean =>
  layer.kind === 'lines' && layer.items.some((l) => l.snips.length > 0)

/** Ids of the lines that have snips, and of those that bound them: they are few among many. */
function concerned(drawing: Drawing): Set<string> {
  const ids = new Set<string>()
  for (const layer of drawing.layers) {
    if (layer.kind !== 'lines') continue
    for (const line of layer.items) {
      if (line.snips.length) ids.add(line.id)
      for (const { fromBy, toBy } of line.snips) for (const id of [fromBy, toBy]) if (id) ids.add(id)
    }
  }
  return ids
}

function linesById(drawing: Drawing, ids: ReadonlySet<string>): Map<string, Line> {
  const found = new Map<string, Line>()
  for (const layer of drawing.layers)
    if (layer.kind === 'lines') for (const line of layer.items) if (ids.has(line.id)) found.set(line.id, line)
  return found
}

function settled(line: Line, was: ReadonlyMap<string, Line>, is: ReadonlyMap<string, Line>): Line {
  const old = was.get(line.id)
  // A snip that is new, or bounds that were just set, are as the hand wants them.
  if (!old || old.snips !== line.snips) return line
  const moved = (id: string | undefined): boolean => !!id && was.get(id)?.path !== is.get(id)?.path
  if (old.path === line.path && !line.snips.some((s) => moved(s.fromBy) || moved(s.toBy))) return line
  const snips = line.snips.map((s) => replaced(s, old, line, was, is))
  return snips.every((s, i) => s === line.snips[i]) ? line : { ...line, snips }
}

function replaced(
  snip: Snip,
  old: Line,
  line: Line,
  was: ReadonlyMap<string, Line>,
  is: ReadonlyMap<string, Line>,
): Snip {
  const from = bound(snip.from, snip.fromBy, old, line, was, is)
  const to = bound(snip.to, snip.toBy, old, line, was, is)
  const idle = from === null || to === null || (!line.path.closed && from >= to)
  if (idle) return snip.idle ? snip : { ...snip, idle }
  if (!snip.idle && from === snip.from && to === snip.to) return snip
  const { fromBy, toBy } = snip
  return { from, to, ...(fromBy && { fromBy }), ...(toBy && { toBy }) }
}

/** Where a snip's bound is now; null where its crossing is gone. */
function bound(
  at: number,
  by: string | undefined,
  old: Line,
  line: Line,
  was: ReadonlyMap<string, Line>,
  is: ReadonlyMap<string, Line>,
): number | null {
  if (!by) return at
  const [oldOther, other] = [was.get(by), is.get(by)]
  if (!other) return null
  const places = placesAlong(line.path, other.path)
  if (!places.length) return null
  const before = oldOther ? placesAlong(old.path, oldOther.path) : []
  const number = before.findIndex((p) => Math.abs(p - at) < 1e-6)
  if (before.length === places.length && number >= 0) return places[number]!
  return nearestTo(at, places)
}
