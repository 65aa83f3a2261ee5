import type { Line } from '../model/model'
import type { Vec } from '../geometry/point'
import { grown, overlap } from '../geometry/bounds'
import { arcOfPath, boxOfPath, crossingsBetween } from '../geometry/known'
import type { ContactOptions } from './end-contacts'
import { contactsOf } from './end-contacts'
import { isShownAt, shownParts } from './shown'

/** Where a line touches another: a share 0..1 of its length, the other line, and how. */
export interface Touch {
  at: number
  by: string
  /** This line's end meets the other, the other's end meets this line, or the two cross. */
  how: 'meets' | 'met' | 'crosses'
}

/** Touches closer than this share of the line are one. */
const SAME = 1e-3

/** Where a line's ink ends: at its ends, or where snips cut it off. */
const endsOf = (line: Line): Vec[] =>
  line.path.closed
    ? []
    : shownParts(line).flatMap(({ path }) => [path.nodes[0]!.at, path.nodes[path.nodes.length - 1]!.at])

/** Where other lines touch `line`, along it. */
export function touchesOf(line: Line, lines: readonly Line[], options: ContactOptions): Touch[] {
  const { total } = arcOfPath(line.path)
  if (!total) return []
  const pad = options.reach + options.overshoot + line.weight.size
  const wide = grown(boxOfPath(line.path), pad)
  const near = lines.filter((l) => l.id === line.id || overlap(wide, boxOfPath(l.path)))
  // Ends that lie nowhere near this line cannot touch it.
  const about = new Set(
    near
      .filter(
        (l) =>
          l.id === line.id ||
          endsOf(l).some(
            (p) =>
              p.x >= wide.minX &&
              p.x <= wide.maxX &&
              p.y >= wide.minY &&
              p.y <= wide.maxY &&
              arcOfPath(line.path).nearest(p).distance <= pad,
          ),
      )
      .map((l) => l.id),
  )
  const ends = contactsOf(near, options, about).filter((c) => c.kind === 'meeting' && c.under)
  const touches: Touch[] = [
    ...ends.filter((c) => c.line === line.id).map((c): Touch => ({ at: c.place, by: c.under!.line, how: 'meets' })),
    ...ends
      .filter((c) => c.under!.line === line.id && c.line !== line.id)
      .map((c): Touch => ({ at: c.under!.at, by: c.line, how: 'met' })),
  ]
  for (const other of near) {
    if (other.id === line.id) continue
    const theirs = arcOfPath(other.path)
    for (const { a, b } of crossingsBetween(line.path, other.path)) {
      const at = arcOfPath(line.path).at(a.segment, a.t) / total
      // What is snipped away on either line crosses nothing.
      if (!isShownAt(line, at) || !isShownAt(other, theirs.at(b.segment, b.t) / theirs.total)) continue
      // What an end that lies on the line crosses there is that contact.
      if (!touches.some((t) => t.by === other.id && Math.abs(t.at - at) * total < pad))
        touches.push({ at, by: other.id, how: 'crosses' })
    }
  }
  return touches
    .sort((a, b) => a.at - b.at)
    .filter((t, i, all) => i === 0 || t.by !== all[i - 1]!.by || t.at - all[i - 1]!.at > SAME)
}
