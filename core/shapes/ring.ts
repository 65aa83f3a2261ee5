import type { Cubic } from '../geometry/cubic'
import type { Strand } from './cell-strands'
import { isSamePiece } from './cell-strands'
import type { Piece } from '../arrangement/cut-back'
import { cubicOf } from '../arrangement/cut-back'
import { isNoise } from '../arrangement/resolve'
import { isSameCurve } from '../recall/contour-code'
import { tidied } from '../arrangement/tidy'

/** So many stretches of one curve are remembered. */
const MOST_KNOWN = 8

/** Stretches of curves, cut out once: the same stretch is the same object. */
export class KnownPieces {
  private readonly known = new WeakMap<Cubic, { piece: Piece; cubic: Cubic }[]>()

  cubicOf(piece: Piece): Cubic {
    let all = this.known.get(piece.curve)
    if (!all) this.known.set(piece.curve, (all = []))
    const same = all.find((k) => isSamePiece(k.piece, piece))
    if (same) return same.cubic
    const cubic = cubicOf(piece)
    if (all.length >= MOST_KNOWN) all.shift()
    all.push({ piece, cubic })
    return cubic
  }
}

/** The contour of strands that follow one another and close; empty where it is no more than noise. Depends on no order. */
export function contourOfRing(
  strands: readonly Strand[],
  known: KnownPieces,
  fine: number,
  tolerance: number,
): Cubic[] {
  const contour = tidied(
    joined(fromLeast(strands)).map((p) => known.cubicOf(p)),
    fine,
  )
  return contour.length && !isNoise(contour, fine, tolerance) ? contour : []
}

/** A ring from a strand on that depends on where its strands lie, not on which was found first. */
function fromLeast(ring: readonly Strand[]): readonly Strand[] {
  let least = 0
  ring.forEach(({ pieces: [p] }, i) => {
    const q = ring[least]!.pieces[0]!
    if (p!.start.x < q.start.x || (p!.start.x === q.start.x && p!.start.y < q.start.y)) least = i
  })
  return least ? [...ring.slice(least), ...ring.slice(0, least)] : ring
}

/** The pieces of a ring, those that go on along one curve from cell to cell made one. */
function joined(ring: readonly Strand[]): Piece[] {
  const out: Piece[] = []
  for (const { pieces } of ring) {
    pieces.forEach((piece, i) => {
      const last = out[out.length - 1]
      if (i > 0 || !last) out.push({ ...piece })
      else if (goesOn(last, piece)) Object.assign(last, { t1: piece.t1, end: piece.end })
      else out.push({ ...piece, start: last.end })
    })
  }
  const [first, last] = [out[0]!, out[out.length - 1]!]
  if (first === last) return out
  if (!ring[0]!.from) return out
  if (goesOn(last, first)) {
    Object.assign(first, { t0: last.t0, start: last.start })
    out.pop()
  } else first.start = last.end
  return out
}

const goesOn = (a: Piece, b: Piece): boolean =>
  isSameCurve(a.curve, b.curve) && Math.abs(a.t1 - b.t0) < 1e-9 && (a.t1 - a.t0) * (b.t1 - b.t0) > 0
