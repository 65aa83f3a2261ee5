import type { Cubic } from '../geometry/cubic'
import { cubic, isEven, moveEnds, nearestFrom, straight, subcurve } from '../geometry/cubic'
import { intersectFrom } from '../geometry/intersect'
import type { Vec } from '../geometry/point'
import { distance } from '../geometry/point'
import type { Run } from './boundary'
import { cutFrom } from './loop'
import type { PlanarMap } from './planar-map'
import { toPx } from './snap-grid'
import type { Cut } from './spurs'
import { endOf, isEnd, Spurs } from './spurs'
import { tidied } from './tidy'

/** A cut is looked for within so many grid steps of the vertex that it was snapped to. */
const NEAR = 32

/** A stretch of a curve, from t0 to t1 in the direction of travel, and the places where it begins and ends. */
export interface Piece {
  curve: Cubic
  t0: number
  t1: number
  start: Vec
  end: Vec
}

const isAt = (p: Vec, q: Vec): boolean => p === q || (p.x === q.x && p.y === q.y)

/** The piece as a curve of its own, its ends in their places. */
export function cubicOf({ curve, t0, t1, start, end }: Piece): Cubic {
  if (t0 === t1) return straight(start, end)
  if (isEven(curve) && (t0 !== 0 || t1 !== 1)) return cutFrom(straight(start, end), { curve, t0, t1 })
  const piece = subcurve(curve, t0, t1)
  const isThere = piece.p0 === start && piece.p3 === end
  // All of a curve is that curve; neighbours share the point between them.
  if (piece === curve && isAt(curve.p0, start) && isAt(curve.p3, end))
    return isThere ? curve : cubic(start, curve.p1, curve.p2, end)
  return cutFrom(isThere ? piece : moveEnds(piece, start, end), { curve, t0, t1 })
}

/**
 * Cuts traced loops back out of the true curves: whole curves come back as they went in, crossed ones are cut where the
 * curves themselves (not their chords) meet. Every vertex has one place, whoever asks first.
 */
export class CutBack {
  /** The place of each vertex, once it is known. */
  private readonly places: (Vec | undefined)[]
  private readonly spurs: Spurs

  /** @param fine px, the length below which a piece is noise */
  constructor(
    private readonly m: PlanarMap,
    private readonly fine: number,
  ) {
    this.spurs = new Spurs(m)
    this.places = new Array<Vec | undefined>(m.chains.vertices.count).fill(undefined)
  }

  contour(runs: readonly Run[]): Cubic[] {
    return tidied(this.pieces(runs).map(cubicOf), this.fine)
  }

  /** The stretches of the true curves that a traced loop is made of. */
  pieces(runs: readonly Run[]): Piece[] {
    const { cubics } = this.m.arrangement.curves
    const n = runs.length
    const cuts = runs.map((r): Cut => ({ id: r.curve, curve: cubics[r.curve]!, t0: r.t0, t1: r.t1 }))
    const corners = runs.map((r, i) => this.corner(r.end, cuts[i]!, cuts[(i + 1) % n]!))
    return cuts.map(({ curve, t0, t1 }, i) => ({ curve, t0, t1, start: corners[(i + n - 1) % n]!, end: corners[i]! }))
  }

  /** The loop along the arrangement's own edges: straight, on the grid, and free of crossings for certain. */
  polygon(runs: readonly Run[]): Cubic[] {
    const { x, y } = this.m.chains.vertices
    const { grid } = this.m.arrangement
    const points = runs.map((r) => toPx(grid, x[r.end]!, y[r.end]!))
    return points.map((p, i) => straight(points[(i + points.length - 1) % points.length]!, p))
  }

  /** The place of the corner between cut `a` and the next one `b`; moves their parameters onto it. */
  private corner(vertex: number, a: Cut, b: Cut): Vec {
    const { grid } = this.m.arrangement
    const { x, y } = this.m.chains.vertices
    const snapped = toPx(grid, x[vertex]!, y[vertex]!)
    const near = NEAR * grid.step
    const known = this.places[vertex]
    if (known) {
      a.t1 = onto(a.curve, a.t0, a.t1, known)
      b.t0 = onto(b.curve, b.t1, b.t0, known)
      return known
    }
    const place = this.spurs.rejoin(a, b, near) ?? this.crossing(a, b, snapped, near) ?? snapped
    this.places[vertex] = place
    return place
  }

  private crossing(a: Cut, b: Cut, snapped: Vec, near: number): Vec | null {
    if (isEnd(a.t1)) {
      const end = endOf(a.curve, a.t1)
      b.t0 = onto(b.curve, b.t1, b.t0, end)
      return end
    }
    if (isEnd(b.t0)) {
      const end = endOf(b.curve, b.t0)
      a.t1 = onto(a.curve, a.t0, a.t1, end)
      return end
    }
    const hit = intersectFrom(a.curve, a.t1, b.curve, b.t0)
    if (!hit || distance(hit.at, snapped) > near || !inOrder(a.t0, hit.t, a.t1) || !inOrder(b.t1, hit.u, b.t0))
      return null
    a.t1 = hit.t
    b.t0 = hit.u
    return hit.at
  }
}

/** The refined parameter keeps the cut's direction. */
const inOrder = (far: number, refined: number, near: number): boolean =>
  refined >= 0 && refined <= 1 && (refined - far) * (near - far) > 0

/** The parameter next to `t` at which a cut from `far` comes nearest to `p`; ends of curves stay. */
function onto(curve: Cubic, far: number, t: number, p: Vec): number {
  if (isEnd(t)) return t
  const hit = nearestFrom(curve, p, t)
  return inOrder(far, hit.t, t) && !isEnd(hit.t) ? hit.t : t
}
