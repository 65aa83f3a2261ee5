import type { Line } from '../model/model'
import type { Vec } from '../geometry/point'
import type { End } from '../geometry/ends'
import { arcOfPath } from '../geometry/known'
import { isEndStop } from '../relations/body'
import { LineWidth } from '../weight/half-widths'
import { taperAtEnd } from '../weight/end-tapers'
import type { Finding, Proofed } from './finding'
import { remembered, rememberedBy } from '../remembered'

/** Places along a line at which its width is looked at, beside its stops. */
const PLACES = 24

/** A stop at an end whose factors add up to less runs out, as a taper does. */
export const RUNS_OUT = 0.5

interface Widths {
  /** Where along the line and how wide it is there, px; away from its very ends. */
  places: { s: number; width: number }[]
  most: number
}

const widthsOf = remembered((line: Line): Widths => {
  const { total } = arcOfPath(line.path)
  if (!total) return { places: [], most: 0 }
  const width = new LineWidth(line.weight, line.finish.align, total, line.path.closed)
  const open = line.path.closed ? 0 : Math.min(total / 4, line.weight.size / 2)
  const at = [
    ...line.weight.stops.map((s) => s.at * total),
    ...Array.from({ length: PLACES }, (_, i) => (total * (i + 0.5)) / PLACES),
  ]
  const places = at
    .filter((s) => s >= open && s <= total - open)
    .sort((a, b) => a - b)
    .map((s) => ({ s, width: width.at(s).left + width.at(s).right }))
  return { places, most: Math.max(0, ...places.map((p) => p.width)) }
})

/**
 * The thinnest place of a line: between the places at which it has grown to `least` px where its ends run out, by a taper or
 * by the profile. All of it, where it never gets so wide.
 */
export function thinnest(line: Line, least: number): { width: number; at: Vec } | null {
  const { places, most } = widthsOf(line)
  if (!places.length) return null
  const wide = (p: { width: number }): boolean => p.width >= least
  const from = most >= least && runsOut(line, 'first') ? places.findIndex(wide) : 0
  const to = most >= least && runsOut(line, 'last') ? places.findLastIndex(wide) : places.length - 1
  const found = places.slice(from, to + 1).reduce((a, b) => (b.width < a.width ? b : a))
  return { width: found.width, at: arcOfPath(line.path).point(found.s) }
}

/** The thickest width of a line, px. */
export const thickest = (line: Line): number => widthsOf(line).most

/** Whether a line runs out thin at an end. */
function runsOut({ weight, path }: Line, end: End): boolean {
  if (path.closed) return false
  const stop = end === 'first' ? weight.stops[0]! : weight.stops[weight.stops.length - 1]!
  return !!taperAtEnd(weight, end) || (isEndStop(stop) && stop.left + stop.right < RUNS_OUT)
}

const tooThin = rememberedBy((line: Line, least: number): Finding[] => {
  const thin = thinnest(line, least)
  return thin && thin.width < least && thickest(line) > 0
    ? [
        {
          key: `thin ${line.id}`,
          kind: 'thin',
          at: thin.at,
          items: [line.id],
          mend: { do: 'widen', line: line.id, to: least },
        },
      ]
    : []
})

const tooStrong = rememberedBy((line: Line, ratio: number): Finding[] => {
  const least = thickest(line) / ratio
  const thin = thinnest(line, least)
  return thin && thin.width < least
    ? [
        {
          key: `contrast ${line.id}`,
          kind: 'contrast',
          at: thin.at,
          items: [line.id],
          mend: { do: 'even', line: line.id, ratio },
        },
      ]
    : []
})

/** Lines thinner than can be printed at the final size. */
export const thinLines = ({ lines, limits, pxPerMm }: Proofed): Finding[] =>
  lines.flatMap((line) => tooThin(line, limits.thin * pxPerMm))

/** Lines whose thick and thin differ by more than still looks drawn. */
export const strongContrasts = ({ lines, limits }: Proofed): Finding[] =>
  lines.flatMap((line) => tooStrong(line, limits.contrast))
