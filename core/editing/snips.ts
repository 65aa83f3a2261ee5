import { nearestTo, placesAlong } from '../relations/crossing-places'
import type { Line, Snip } from '../model/model'

/** A crossing along a line, as a share 0..1 of its arc length, and the line that crosses there. */
export interface Cut {
  at: number
  by: string
}

/** Nearer to an end than this share of the length a crossing is the end itself. */
const AT_END = 1e-6

/** Every crossing of `line` with itself and with `others`, along its length. */
export function cutsOf(line: Line, others: readonly Line[]): Cut[] {
  return [line, ...others.filter((o) => o.id !== line.id)]
    .flatMap((o) => placesAlong(line.path, o.path).map((at) => ({ at, by: o.id })))
    .filter(({ at }) => line.path.closed || (at > AT_END && at < 1 - AT_END))
    .sort((a, b) => a.at - b.at)
}

/** The stretch of a line between the crossings on either side of `at` (0..1), as a snip; null where nothing crosses it. */
export function stretchAround(line: Line, others: readonly Line[], at: number): Snip | null {
  const cuts = cutsOf(line, others)
  if (!cuts.length || (line.path.closed && cuts.length < 2)) return null
  const after = cuts.find((c) => c.at > at)
  const before = cuts.findLast((c) => c.at <= at)
  if (line.path.closed) return bounded(before ?? cuts[cuts.length - 1]!, after ?? cuts[0]!)
  return bounded(before, after)
}

const bounded = (from: Cut | undefined, to: Cut | undefined): Snip => ({
  from: from?.at ?? 0,
  to: to?.at ?? 1,
  ...(from && { fromBy: from.by }),
  ...(to && { toBy: to.by }),
})

/** Whether a place on a line (0..1) lies in a snip's stretch. */
export const inSnip = ({ from, to }: Snip, at: number): boolean =>
  from <= to ? at >= from && at <= to : at >= from || at <= to

/**
 * A line whose snips end where the lines that bound them cross it now, the nearest place each. Bounds by lines of `apart`
 * moved along with it and stay; one that has no crossing any more stays too, and follows nobody.
 */
export function boundAnew(line: Line, known: ReadonlyMap<string, Line>, apart: ReadonlySet<string>): Line {
  if (!line.snips.length) return line
  const found = (at: number, by: string | undefined): [at: number, by: string | undefined] => {
    if (!by || apart.has(by)) return [at, by]
    const places = known.has(by) ? placesAlong(line.path, known.get(by)!.path) : []
    return places.length ? [nearestTo(at, places), by] : [at, undefined]
  }
  return {
    ...line,
    snips: line.snips.map((s): Snip => {
      const [[from, fromBy], [to, toBy]] = [found(s.from, s.fromBy), found(s.to, s.toBy)]
      return { from, to, ...(fromBy && { fromBy }), ...(toBy && { toBy }), ...(s.idle && { idle: s.idle }) }
    }),
  }
}
