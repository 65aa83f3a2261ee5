import type { Join } from '../model/model'
import type { Cubic } from '../geometry/cubic'
import type { Vec } from '../geometry/point'
import { distance, vec } from '../geometry/point'
import { turn } from '../geometry/path'
import type { Arc, Loop } from '../arrangement/loop'
import { allBackwards, reverseLoop, segment, whole } from '../arrangement/loop'
import { pie, outerEdge } from './joins-and-caps'
import type { Part, SidePart } from './folds'
import { cutAtFolds } from './folds'
import type { RibField, SideSign } from './ribs'
import { newRib } from './rib'
import { fitEdge, fitEnvelope } from './side-curves'

/** How a side behaves where two parts meet. */
export interface Corners {
  join: Join
  miterLimit: number
}

/**
 * Between two parts: they may go on smoothly, meet at a corner with a join or at a cusp without, or the line may turn
 * about a point by so many radians, all its ribs with it.
 */
export type Meet = 'smooth' | 'corner' | 'cusp' | { pivot: number }

/** One side of a stretch of line: a chain of arcs in the line's direction, and loops that the ink has besides. */
export interface SideChain {
  arcs: Arc[]
  loops: Loop[]
  /** The edge of the ink at the two ends of the chain. */
  first: Vec
  last: Vec
}

/** A side counts as smooth where it turns by no more than this, radians. */
const SMOOTH = 0.02

/**
 * The chain of one side over parts that follow one another. It runs along the edge of the ink and, where that folds
 * because the bend is tighter than the half-width, along the turning points of the ribs instead: the ribs up to there
 * are laid the right way round. What they sweep beyond is laid the other way round, as a loop of its own, so that all
 * loops have the ink on their left and their union by the non-zero rule is exactly the union of the ribs.
 *
 * At a corner the chain goes through the node on the inner side, and around it as the join says on the outer.
 *
 * @param meets how part i meets the one before; meets[0] tells of the first and the last on a closed line
 */
export function sideChain(
  field: RibField,
  side: SideSign,
  parts: readonly Part[],
  meets: readonly Meet[],
  closed: boolean,
  corners: Corners,
  tolerance: number,
): SideChain {
  const pieces = parts.flatMap((part, i) => {
    const cut = cutAtFolds(field, part, side)
    return cut.map((p, k): Piece => new Piece(field, side, p, k === 0 ? meets[i]! : 'smooth'))
  })
  // Runs of edge that go on smoothly are fitted as one curve; where the ink has no width both sides end on one point.
  const goesOn = (a: Piece, b: Piece): boolean =>
    b.meet === 'smooth' &&
    a.lastWidth > 0 &&
    !a.part.folds &&
    !b.part.folds &&
    distance(a.lastEdge, b.firstEdge) < tolerance / 8 &&
    agree(a.leaving, b.entering)
  const from = closed
    ? Math.max(
        0,
        pieces.findIndex((p, i) => !goesOn(pieces[(i + pieces.length - 1) % pieces.length]!, p)),
      )
    : 0
  const turned = [...pieces.slice(from), ...pieces.slice(0, from)]
  const arcs: Arc[] = []
  const loops: Loop[] = []
  let end: Vec | null = null
  const reach = (to: Vec): void => {
    if (end && (end.x !== to.x || end.y !== to.y)) arcs.push(segment(end, to))
    end = to
  }
  const add = (cubics: readonly Cubic[]): void => {
    for (const c of cubics) {
      reach(c.p0)
      arcs.push(whole(c))
      end = c.p3
    }
  }
  for (let i = 0; i < turned.length;) {
    const piece = turned[i]!
    if (i > 0) around(turned[i - 1]!, piece, side, corners, tolerance, reach, arcs, loops, (p) => (end = p))
    if (piece.part.folds) {
      const envelope = fitEnvelope(field, side, piece.part, tolerance)
      add(envelope)
      const swept = beyond(envelope, fitEdge(field, side, [piece.part], tolerance))
      loops.push(side === 1 ? swept : reverseLoop(swept))
      i++
      continue
    }
    let k = i + 1
    while (k < turned.length && goesOn(turned[k - 1]!, turned[k]!)) k++
    add(
      fitEdge(
        field,
        side,
        turned.slice(i, k).map((p) => p.part),
        tolerance,
      ),
    )
    i = k
  }
  if (closed) {
    const first = arcs[0]!.curve.p0
    around(turned[turned.length - 1]!, turned[0]!, side, corners, tolerance, reach, arcs, loops, (p) => (end = p))
    reach(first)
  }
  return { arcs, loops, first: turned[0]!.firstEdge, last: turned[turned.length - 1]!.lastEdge }
}

/** One side over one part, with what is at its two ends. */
class Piece {
  readonly firstEdge: Vec
  readonly lastEdge: Vec
  readonly entering: Vec
  readonly leaving: Vec
  readonly firstHalf: number
  readonly lastHalf: number
  readonly lastWidth: number
  readonly firstCentre: Vec
  readonly lastCentre: Vec
  readonly firstTangent: Vec
  readonly lastTangent: Vec

  constructor(
    field: RibField,
    side: SideSign,
    readonly part: SidePart,
    readonly meet: Meet,
  ) {
    const r = newRib()
    field.rib(part.segment, part.t0, side, false, r)
    this.firstCentre = vec(r.cx, r.cy)
    this.firstEdge = vec(r.cx + r.half * r.nx, r.cy + r.half * r.ny)
    this.firstHalf = r.half
    this.entering = vec(r.cdx + r.halfSlope * r.nx + r.half * r.ndx, r.cdy + r.halfSlope * r.ny + r.half * r.ndy)
    field.rib(part.segment, part.t1, side, true, r)
    this.lastCentre = vec(r.cx, r.cy)
    this.lastEdge = vec(r.cx + r.half * r.nx, r.cy + r.half * r.ny)
    this.lastHalf = r.half
    this.lastWidth = r.width
    this.leaving = vec(r.cdx + r.halfSlope * r.nx + r.half * r.ndx, r.cdy + r.halfSlope * r.ny + r.half * r.ndy)
    this.firstTangent = field.tangent(part.segment, part.t0)
    this.lastTangent = field.tangent(part.segment, part.t1)
  }
}

function agree(a: Vec, b: Vec): boolean {
  const size = Math.hypot(a.x, a.y) * Math.hypot(b.x, b.y)
  return size > 0 && (a.x * b.x + a.y * b.y) / size > Math.cos(SMOOTH)
}

/** Leads the chain from one piece to the next: around the node where they meet at a corner. */
function around(
  a: Piece,
  b: Piece,
  side: SideSign,
  corners: Corners,
  tolerance: number,
  reach: (to: Vec) => void,
  arcs: Arc[],
  loops: Loop[],
  endAt: (p: Vec) => void,
): void {
  if (b.meet === 'smooth') return
  const pivot = typeof b.meet === 'object'
  const angle = typeof b.meet === 'object' ? b.meet.pivot : turn(a.lastTangent, b.firstTangent)
  const outer = side === 1 ? angle > 0 : angle < 0
  if (b.meet !== 'cusp' && outer && a.lastHalf > 0) {
    reach(a.lastEdge)
    const even = Math.abs(a.lastHalf - b.firstHalf) < 1e-9 * (1 + a.lastHalf)
    const edge = outerEdge(
      a.lastCentre,
      a.lastEdge,
      b.firstEdge,
      angle,
      a.lastHalf,
      pivot ? 'round' : even ? corners.join : 'bevel',
      corners.miterLimit,
      tolerance,
    )
    arcs.push(...edge)
    endAt(b.firstEdge)
    return
  }
  reach(a.lastCentre)
  if (a.lastCentre.x !== b.firstCentre.x || a.lastCentre.y !== b.firstCentre.y) reach(b.firstCentre)
  // Ribs that turn about a point sweep a pie on the inner side as well.
  if (pivot && a.lastHalf > 0) loops.push(pie(a.lastCentre, a.lastEdge, b.firstEdge, angle, a.lastHalf, tolerance))
}

/** What folding ribs sweep beyond their turning points; on the left side it has the ink on its left. */
function beyond(envelope: readonly Cubic[], edge: readonly Cubic[]): Loop {
  const a = envelope[0]!.p0
  const b = envelope[envelope.length - 1]!.p3
  return [...envelope.map(whole), segment(b, edge[edge.length - 1]!.p3), ...allBackwards(edge), segment(edge[0]!.p0, a)]
}

/** The arcs with straight ones put in wherever one does not begin where the one before ends. */
export function closedLoop(arcs: readonly Arc[]): Loop {
  const out: Loop = []
  arcs.forEach((arc, i) => {
    const start = arc.t0 === 0 ? arc.curve.p0 : arc.curve.p3
    const before = arcs[(i + arcs.length - 1) % arcs.length]!
    const end = before.t1 === 1 ? before.curve.p3 : before.curve.p0
    if (end.x !== start.x || end.y !== start.y) out.push(segment(end, start))
    out.push(arc)
  })
  return out
}
