import type { Line, PlaceBy, Trim } from '../../model/model'
import type { Vec } from '../../geometry/point'
import { arcOfPath } from '../../geometry/known'
import { dot, subtract } from '../../geometry/point'
import type { InkPiece, Pieces } from './divided-ink'

/** A piece whose middle is no farther from where it was than so many sizes of the line may be the one, if no other is. */
const FARTHEST = 4

/** A border is on one side when so much of it is. */
const MOST_OF = 0.9

/** Where a point lies by a line. */
export function placeBy(line: Line, p: Vec): PlaceBy {
  const arc = arcOfPath(line.path)
  const { length } = arc.nearest(p)
  const c = arc.point(length)
  const t = arc.tangent(length) ?? { x: 1, y: 0 }
  const d = subtract(p, c)
  const half = line.weight.size / 2 || 1
  return { at: arc.total ? length / arc.total : 0, ahead: dot(d, t) / half, left: (d.x * t.y - d.y * t.x) / half }
}

/** The point that lies so by a line. */
export function pointBy(line: Line, { at, ahead, left }: PlaceBy): Vec {
  const arc = arcOfPath(line.path)
  const c = arc.point(at * arc.total)
  const t = arc.tangent(at * arc.total) ?? { x: 1, y: 0 }
  const half = line.weight.size / 2 || 1
  return { x: c.x + (t.x * ahead + t.y * left) * half, y: c.y + (t.y * ahead - t.x * left) * half }
}

/** What holds a piece of a line: the lines that cover it and those that bound it. `ids` are those of the others, by place. */
export function holdOf(line: Line, piece: InkPiece, ids: readonly string[]): Pick<Trim, 'place' | 'over' | 'bounds'> {
  const place = placeBy(line, piece.inside())
  const bounds = piece.bounds.map(({ by, edges }) => ({ by: ids[by]!, side: sideOf(line, edges, place.at) }))
  return { place, over: piece.over.map((o) => ids[o]!), bounds }
}

/** Whether a border lies before (-1) or after (1) a place along a line; 0 where it is on both sides of it. */
function sideOf(line: Line, edges: readonly { at: Vec; length: number }[], at: number): -1 | 0 | 1 {
  let [before, all] = [0, 0]
  for (const e of edges) {
    all += e.length
    if (placeBy(line, e.at).at < at) before += e.length
  }
  return before > MOST_OF * all ? -1 : before < (1 - MOST_OF) * all ? 1 : 0
}

/** The piece of a line that a trim means; null where it is gone. */
export function pieceFor(line: Line, trim: Trim, pieces: Pieces, ids: readonly string[]): InkPiece | null {
  const p = pointBy(line, trim.place)
  const isIt = (piece: InkPiece): boolean => {
    const hold = holdOf(line, piece, ids)
    return (
      hold.over.length === trim.over.length &&
      hold.over.every((o) => trim.over.includes(o)) &&
      trim.bounds.every((b) => hold.bounds.some((h) => h.by === b.by && (h.side === b.side || !h.side || !b.side)))
    )
  }
  const here = pieces.at(p)
  if (here && isIt(here)) return here
  const far = (piece: InkPiece): number => Math.hypot(piece.inside().x - p.x, piece.inside().y - p.y)
  const near = pieces
    .all()
    .filter((piece) => piece.contours().length && far(piece) <= FARTHEST * line.weight.size && isIt(piece))
  return near.sort((a, b) => far(a) - far(b))[0] ?? null
}
