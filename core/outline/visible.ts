import type { Cap, Line } from '../model/model'
import { hiddenSpans } from '../relations/shown'

/** A visible stretch of a line, px of arc length, and caps where it does not have those of the line. */
export interface Stretch {
  from: number
  to: number
  startCap?: Cap
  endCap?: Cap
}

/** A pattern that would cut a line into more dashes than this leaves it whole. */
export const MOST_DASHES = 1_000

/** The stretches of a line that carry ink: all of it, less what is snipped, cut into dashes as in SVG. */
export function visibleStretches(line: Line, total: number): Stretch[] {
  let stretches: Stretch[] = [{ from: 0, to: total }]
  for (const [from, to] of line.snips.flatMap(hiddenSpans))
    stretches = stretches.flatMap((s) => without(s, from * total, to * total))
  const { dash } = line.finish
  return isDashed(line, total) ? stretches.flatMap((s) => dashesIn(s, dash)) : stretches
}

/** Whether a line `total` px long is cut into dashes. */
export function isDashed({ finish }: Pick<Line, 'finish'>, total: number): boolean {
  const count = dashCount(finish.dash, total)
  return count > 0 && count <= MOST_DASHES
}

/** How many dashes a pattern of lengths, px, makes of a line `total` px long; 0 where it makes none. */
export function dashCount(dash: readonly number[], total: number): number {
  const turns = dash.length % 2 ? 2 : 1
  const period = dash.reduce((a, b) => a + b, 0) * turns
  return period > 0 ? (total / period) * Math.ceil((dash.length * turns) / 2) : 0
}

/** A stretch less what lies between two places. Its ends there are cut square: they lie on the line that crosses. */
function without(s: Stretch, from: number, to: number): Stretch[] {
  if (to <= s.from || from >= s.to) return [s]
  const out: Stretch[] = []
  if (from > s.from) out.push({ ...s, to: from, endCap: 'butt' })
  if (to < s.to) out.push({ ...s, from: to, startCap: 'butt' })
  return out
}

function dashesIn(s: Stretch, dash: readonly number[]): Stretch[] {
  const out: Stretch[] = []
  let place = 0
  for (let k = 0; place < s.to; k++) {
    const length = dash[k % dash.length]!
    if (k % 2 === 0 && place + length > s.from) {
      out.push({ from: Math.max(s.from, place), to: Math.min(s.to, place + length) })
    }
    place += length
  }
  return out
}
