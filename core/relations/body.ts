import type { Line, Weight, WidthStop } from '../model/model'
import { arcOfPath } from '../geometry/known'

/** Stops nearer to an end than this share of the line belong to the end. */
export const AT_END = 1e-3
/** An end reaches in by so many sizes of its line, at most by so much of its length. */
const INSET = { sizes: 2.5, most: 0.25, least: 0.01 }

/** Width factors of the two sides. */
export interface SideFactors {
  left: number
  right: number
}

/** How far in a line's body begins, as a share of its length: told by its size and length alone. */
export function insetOf({ weight, path }: Line): number {
  const { total } = arcOfPath(path)
  return total > 0 ? Math.min(INSET.most, Math.max(INSET.least, (INSET.sizes * weight.size) / total)) : INSET.most
}

/** Whether a stop lies at the very end of a line. */
export const isEndStop = ({ at }: WidthStop): boolean => at <= AT_END || at >= 1 - AT_END

/** A line's stops but those at its very ends; all of them where it has no other. */
export function bodyStops({ stops }: Pick<Weight, 'stops'>): readonly WidthStop[] {
  const body = stops.filter((s) => !isEndStop(s))
  return body.length ? body : stops
}

/**
 * How wide a line's body is at `at` (0..1), as factors of half its size: straight from stop to stop, without the stops at
 * its very ends, without tapers, and near an end as it is where the body begins. Nothing that an end is given changes it.
 */
export function bodyAt(line: Line, at: number): SideFactors {
  const inset = insetOf(line)
  const place = line.path.closed ? at : Math.min(1 - inset, Math.max(inset, at))
  const stops = bodyStops(line.weight)
  const next = stops.findIndex((s) => s.at >= place)
  if (next <= 0) return sides(stops[next < 0 ? stops.length - 1 : 0]!)
  const [a, b] = [stops[next - 1]!, stops[next]!]
  const u = (place - a.at) / (b.at - a.at)
  return { left: a.left + (b.left - a.left) * u, right: a.right + (b.right - a.right) * u }
}

const sides = ({ left, right }: WidthStop): SideFactors => ({ left, right })

/** Whole width of a line's body at a place, px. */
export function bodyWidth(line: Line, at: number): number {
  const { left, right } = bodyAt(line, at)
  return (line.weight.size / 2) * (left + right)
}
