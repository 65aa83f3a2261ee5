import { Profile } from '../weight/profile'
import { ArcLength } from '../geometry/arc-length'
import type { Cubic } from '../geometry/cubic'
import type { Path } from '../geometry/path'
import { cubicsOfPath } from '../geometry/path'
import type { Amendment, Drawing, Line, Snip, WidthStop } from '../model/model'

/** A stretch of the old path, and where it lies on the new one, as shares of their lengths. */
interface Stretch {
  from: number
  to: number
  at: readonly [number, number]
}

/** Where all of the old path lies on the new one; shares of a loop that lost its first node count from the next one. */
interface Way {
  begins: number
  stretches: readonly Stretch[]
}

/** Shares that differ by no more are the same place. */
const SAME = 1e-9

/**
 * Gives a line another path. Widths, snips and amendments keep their places on the part of it that was not touched: its
 * segments are found again on the new path, and what lies on others goes along in proportion between them.
 *
 * @param line is changed
 * @param within the drawing that it is in, whose amendments are changed; null for a line that is in none
 */
export function repath(line: Line, path: Path, within: Pick<Drawing, 'amendments'> | null): void {
  const { weight, snips } = line
  const amendments = (within?.amendments ?? []).flatMap((a) => placeOf(a, line.id) ?? [])
  const hasPlaces =
    weight.stops.length > 1 || snips.length > 0 || (weight.unlit?.length ?? 0) > 1 || amendments.length > 0
  const way = hasPlaces ? wayBetween(line.path, path) : null
  if (way) {
    const { closed } = line.path
    weight.stops = stopsAlong(weight.stops, way, closed)
    if (weight.unlit) weight.unlit = stopsAlong(weight.unlit, way, closed)
    line.snips = snips.map((s): Snip => ({ ...s, from: placeOn(way, s.from), to: placeOn(way, s.to) }))
    for (const place of amendments) place.at = placeOn(way, place.at)
  }
  line.path = path
}

/** The place along a line that an amendment hangs on; null where it hangs on none, or on another line. */
function placeOf(a: Amendment, line: string): { at: number } | null {
  if (a.kind === 'retouch') return a.by?.line === line ? a.by : null
  return (a.kind === 'trim' || a.kind === 'fineness') && a.line === line ? a.place : null
}

/** Null where every share stays what it is. */
function wayBetween(before: Path, after: Path): Way | null {
  const [was, is] = [segmentsOf(before), segmentsOf(after)]
  if (!was.total || !is.total || (before.closed && !after.closed)) return null
  if (was.cubics.length === is.cubics.length)
    return wayBy(
      was.at,
      is.at,
      was.cubics.map((_, i) => [i, i]),
    )
  const pairs = inCommon(was.cubics.map(keyOf), is.cubics.map(keyOf))
  const [first] = pairs
  if (!first) return null
  if (!before.closed || first[0] === 0 || first[1] > 0) return wayBy(was.at, is.at, pairs)
  const [k] = first
  const begins = was.at[k]!
  const at = [...[...was.at.slice(k, -1), ...was.at.slice(0, k)].map((s) => round(s - begins)), 1]
  const way = wayBy(
    at,
    is.at,
    pairs.map(([i, j]) => [i - k, j]),
  )
  return { stretches: way?.stretches ?? [{ from: 0, to: 1, at: [0, 1] }], begins }
}

/** The way by pairs of segments that are each other, told by the shares where they begin; between them lies what was changed. */
function wayBy(
  was: readonly number[],
  is: readonly number[],
  pairs: readonly (readonly [number, number])[],
): Way | null {
  const stretches: Stretch[] = []
  let [i, j] = [0, 0]
  const upTo = (p: number, q: number): void => {
    if (p > i || q > j) stretches.push({ from: was[i]!, to: was[p]!, at: [is[j]!, is[q]!] })
    ;[i, j] = [p, q]
  }
  for (const [p, q] of pairs) {
    upTo(p, q)
    upTo(p + 1, q + 1)
  }
  upTo(was.length - 1, is.length - 1)
  const stays = ({ from, to, at }: Stretch): boolean => Math.abs(from - at[0]) < SAME && Math.abs(to - at[1]) < SAME
  return stretches.every(stays) ? null : { begins: 0, stretches }
}

interface Segments {
  cubics: readonly Cubic[]
  /** Shares of the length where they begin, and 1. */
  at: readonly number[]
  total: number
}

function segmentsOf(path: Path): Segments {
  const cubics = cubicsOfPath(path)
  const { starts, total } = new ArcLength(cubics)
  return { cubics, at: [...starts].map((s) => s / (total || 1)), total }
}

/** What tells a segment from others. */
const keyOf = ({ p0, p1, p2, p3 }: Cubic): string => [p0, p1, p2, p3].map((p) => `${p.x},${p.y}`).join(' ')

/** Segments that two paths have in common, in their order: the longest such list. */
function inCommon(a: readonly string[], b: readonly string[]): [number, number][] {
  const longest = a.map(() => new Uint32Array(b.length + 1))
  const of = (i: number, j: number): number => longest[i]?.[j] ?? 0
  for (let i = a.length - 1; i >= 0; i--)
    for (let j = b.length - 1; j >= 0; j--)
      longest[i]![j] = a[i] === b[j] ? of(i + 1, j + 1) + 1 : Math.max(of(i + 1, j), of(i, j + 1))
  const pairs: [number, number][] = []
  for (let [i, j] = [0, 0]; i < a.length && j < b.length;) {
    if (a[i] === b[j]) pairs.push([i++, j++])
    else if (of(i + 1, j) >= of(i, j + 1)) i++
    else j++
  }
  return pairs
}

/** A share of a loop, 0..1. */
const round = (s: number): number => ((s % 1) + 1) % 1

const shareOf = ({ begins }: Way, at: number): number => (begins ? round(at - begins) : at)

/** Where a share of the old length lies on the new one. */
function placeOn(way: Way, at: number): number {
  const { stretches } = way
  const s = shareOf(way, at)
  // Of a place between two stretches the first counts: what is new behind an end is beyond it.
  const {
    from,
    to,
    at: [low, high],
  } = stretches.find((r) => s <= r.to && r.to > r.from) ?? stretches.at(-1)!
  const share = to > from ? Math.min(1, Math.max(0, (s - from) / (to - from))) : 0
  return low + (high - low) * share
}

/** Stops where they were; of those on a stretch that is gone nothing is left but the width where it was cut off. */
function stopsAlong(stops: readonly WidthStop[], way: Way, closed: boolean): WidthStop[] {
  if (stops.length < 2) return [...stops]
  const isOn = (r: Stretch, s: number): boolean => s > r.from - SAME && s < r.to + SAME
  const gone = way.stretches.filter(
    (r) => r.to - r.from > SAME && r.at[1] - r.at[0] < SAME && stops.some((s) => isOn(r, shareOf(way, s.at))),
  )
  const isGone = (s: number): boolean => gone.some((r) => isOn(r, s))
  const profile = gone.length ? new Profile(stops, closed) : null
  const widthAt = (s: number): Omit<WidthStop, 'at'> => {
    const at = round(s + way.begins)
    return { left: profile!.sampleLeft(at).value, right: profile!.sampleRight(at).value }
  }
  // Within a line both sides of what is gone come together; at an end only the inner one is left.
  const cuts = gone.flatMap(({ from, to, at }): WidthStop[] =>
    [from, to].filter((s) => s > SAME && s < 1 - SAME).map((s) => ({ at: at[0], ...widthAt(s) })),
  )
  const kept = stops.flatMap((s) => (isGone(shareOf(way, s.at)) ? [] : [{ ...s, at: placeOn(way, s.at) }]))
  return [...kept, ...cuts].sort((a, b) => a.at - b.at)
}
