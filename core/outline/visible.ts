import type { Line } from '../drawing/model'

/** A visible stretch of a line, px of arc length; `first` and `last` tell whether it holds the line's own ends. */
export interface Stretch {
  from: number
  to: number
}

/** More dashes than this on one line are refused: they could not be told apart. */
export const MOST_DASHES = 20_000

/** The stretches of a line that carry ink: all of it, less what is snipped, cut into dashes as in SVG. */
export function visibleStretches(line: Line, total: number): Stretch[] {
  let stretches: Stretch[] = [{ from: 0, to: total }]
  for (const snip of line.snips) stretches = stretches.flatMap((s) => without(s, snip.from * total, snip.to * total))
  const { dash } = line.finish
  const period = dash.reduce((a, b) => a + b, 0) * (dash.length % 2 ? 2 : 1)
  if (!(period > 0) || total / period > MOST_DASHES) return stretches
  return stretches.flatMap((s) => dashesIn(s, dash))
}

function without(s: Stretch, from: number, to: number): Stretch[] {
  const out: Stretch[] = []
  if (from > s.from) out.push({ from: s.from, to: Math.min(from, s.to) })
  if (to < s.to) out.push({ from: Math.max(to, s.from), to: s.to })
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
