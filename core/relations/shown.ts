import type { Line, Snip } from '../model/model'
import type { Path } from '../geometry/path'
import type { Vec } from '../geometry/point'
import { partOfPath } from '../geometry/part-of-path'
import { remembered } from '../remembered'

/** A part of a line that is not snipped away: its bounds as shares 0..1 of the line's length, and its path. */
export interface ShownPart {
  line: Line
  from: number
  to: number
  path: Path
}

/** The spans that a snip hides, shares of arc length; two where it goes round the seam of a closed line. */
export function hiddenSpans({ from, to, idle }: Snip): [number, number][] {
  if (idle || from === to) return []
  return from < to
    ? [[from, to]]
    : [
        [from, 1],
        [0, to],
      ]
}

/** Whether a place (0..1) of a line carries ink: what is snipped away is not there, for whatever asks. */
export const isShownAt = (line: Line, at: number): boolean =>
  !line.snips.some((s) => hiddenSpans(s).some(([from, to]) => at > from && at < to))

/** The parts of a line that carry ink, from its first node on; the whole line where nothing is snipped. */
export const shownParts = remembered((line: Line): readonly ShownPart[] => cutParts(line))

function cutParts(line: Line): ShownPart[] {
  const spans = line.snips.flatMap(hiddenSpans)
  if (!spans.length) return [{ line, from: 0, to: 1, path: line.path }]
  let shown: [number, number][] = [[0, 1]]
  for (const [from, to] of spans) {
    shown = shown.flatMap(([a, b]): [number, number][] =>
      to <= a || from >= b
        ? [[a, b]]
        : [
            ...(from > a ? ([[a, from]] as [number, number][]) : []),
            ...(to < b ? ([[to, b]] as [number, number][]) : []),
          ],
    )
  }
  return shown.flatMap(([from, to]) => {
    const path = partOfPath(line.path, from, to)
    return path ? [{ line, from, to, path }] : []
  })
}

/** Where an open line begins and ends, as far as it is shown; a closed one, or one of which nothing is, has no tips. */
export function tipsOf(line: Line): Vec[] {
  const parts = line.path.closed ? [] : shownParts(line)
  return parts.length ? [parts[0]!.path.nodes[0]!.at, parts.at(-1)!.path.nodes.at(-1)!.at] : []
}
