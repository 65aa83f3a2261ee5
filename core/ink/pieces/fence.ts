import type { Line } from '../../model/model'
import type { EndContact } from '../../relations/end-contacts'
import { overlap } from '../../geometry/bounds'
import { flatten } from '../../geometry/cubic'
import { arcOfPath } from '../../geometry/known'
import type { InkPiece } from './divided-ink'
import { DividedInk, pathsOf } from './divided-ink'
import type { PieceHit } from './piece-at'
import { holdOf } from './trim-place'
import type { Trimmed } from './trim-stage'

/** So many lines are looked at between two signs of progress. */
const AT_A_TIME = 8

/**
 * What of other lines sticks out beyond the lines of a fence: pieces that none of these cover, no longer along their line
 * than `most` of its sizes, never the longest piece of a line, and none at whose end the line meets something.
 *
 * @param fence ids of the lines that are the fence
 * @param open whether a line may be trimmed
 */
export function* beyondFence(
  { shown, trims }: Trimmed,
  fence: ReadonlySet<string>,
  most: number,
  open: (line: Line) => boolean,
  endsOf: (id: string) => readonly EndContact[],
  tolerance: number,
): Generator<number, PieceHit[]> {
  const posts = [...shown.values()].filter((s) => fence.has(s.item.id))
  const hits: PieceHit[] = []
  let done = 0
  for (const { item, region } of shown.values()) {
    if (++done % AT_A_TIME === 0) yield done / shown.size
    if (!('path' in item) || fence.has(item.id) || !open(item)) continue
    const near = posts.filter((p) => overlap(p.region.box, region.box))
    const divided = near.length
      ? DividedInk.of(
          region.contours,
          near.map((p) => p.region.contours),
          tolerance,
        )
      : null
    if (!divided) continue
    const pieces = divided
      .pieces()
      .all()
      .filter((p) => p.contours().length)
    const reaches = pieces.map((p) => reachAlong(item, p))
    const lengths = reaches.map(([from, to]) => to - from)
    const longest = Math.max(...lengths)
    const { total } = arcOfPath(item.path)
    const meets = (end: 'first' | 'last'): boolean =>
      endsOf(item.id).some((c) => c.end === end && c.kind === 'meeting' && c.touched.some((t) => !fence.has(t.line)))
    const ids = near.map((p) => p.item.id)
    pieces.forEach((piece, i) => {
      if (piece.over.length || !piece.bounds.length || lengths[i] === longest || lengths[i]! > most * item.weight.size)
        return
      if ((reaches[i]![0] <= 0 && meets('first')) || (reaches[i]![1] >= total && meets('last'))) return
      const trim = { line: item.id, ...holdOf(item, piece, ids) }
      const gone = trims.some(
        (t) =>
          t.piece &&
          t.trim.line === item.id &&
          t.trim.bounds.length === trim.bounds.length &&
          Math.abs(t.trim.place.at - trim.place.at) < 1e-3,
      )
      if (!gone) hits.push({ contours: pathsOf(piece), trim, taken: null })
    })
  }
  return hits
}

/** From where to where a piece reaches along its line, px; beyond its ends by as much as its cap does. */
function reachAlong(line: Line, piece: InkPiece): [number, number] {
  const arc = arcOfPath(line.path)
  let [least, most] = [Infinity, -Infinity]
  for (const p of piece.contours().flatMap((c) => c.flatMap((s) => flatten(s, 1)))) {
    const { length, distance } = arc.nearest(p)
    const s = length === 0 ? -distance : length === arc.total ? length + distance : length
    least = Math.min(least, s)
    most = Math.max(most, s)
  }
  return [least, most]
}
