import { axisCrossings } from '../geometry/axis-crossings'
import type { Box } from '../geometry/bounds'
import { isEven, pointAt } from '../geometry/cubic'
import type { Vec } from '../geometry/point'
import { arranged } from '../arrangement/arranged'
import { borderOf, traceBoundary } from '../arrangement/boundary'
import type { Piece } from '../arrangement/cut-back'
import { CutBack } from '../arrangement/cut-back'
import type { Loop } from '../arrangement/loop'
import { planarMap } from '../arrangement/planar-map'
import { FINE_STEPS } from '../arrangement/resolve'
import { visitFaces } from '../arrangement/winding'

/** A side of a cell. */
export type Side = 'left' | 'right' | 'above' | 'below'

/** Where the boundary of a region goes into a cell or out of it. */
export interface Gate {
  side: Side
  /** px along the side: y of an upright one, x of a level one */
  at: number
}

/** A part of a region's boundary within a cell: from gate to gate, or closed, the region on its left. */
export interface Strand {
  pieces: Piece[]
  from: Gate | null
  to: Gate | null
}

/**
 * The boundary, within a cell, of the union of loops as the cell sees them (see `loopNearCell`), each with its region on
 * the left. It depends on nothing but the cell and these loops.
 *
 * @param tolerance px
 */
export function strandsOfLoops(loops: readonly Loop[], cell: Box, tolerance: number): Strand[] {
  const strands = arranged([loops], tolerance, (arrangement) => {
    const map = planarMap(arrangement)
    const inside = new Uint8Array(map.faces)
    visitFaces(map, 1, (face, { covered }) => (inside[face] = covered > 0 ? 1 : 0))
    const cutter = new CutBack(map, FINE_STEPS * arrangement.grid.step)
    return traceBoundary(map, borderOf(map, inside)).flatMap(({ runs }) => within(cutter.pieces(runs), cell))
  })
  return strands ?? []
}

/** Whether two strands run along the same curves from the same places to the same places. */
export const isSameStrand = (a: Strand, b: Strand): boolean =>
  a.pieces.length === b.pieces.length &&
  isSameGate(a.from, b.from) &&
  isSameGate(a.to, b.to) &&
  a.pieces.every((p, i) => isSamePiece(p, b.pieces[i]!))

const isSameGate = (a: Gate | null, b: Gate | null): boolean =>
  a === b || (!!a && !!b && a.side === b.side && a.at === b.at)
/** Whether two pieces are the same stretch of the same curve. */
export const isSamePiece = (a: Piece, b: Piece): boolean =>
  a.curve === b.curve && a.t0 === b.t0 && a.t1 === b.t1 && isSame(a.start, b.start) && isSame(a.end, b.end)
const isSame = (a: Vec, b: Vec): boolean => a.x === b.x && a.y === b.y

/** A part of a piece within a cell, and the gates at which it comes in and goes out; null where the piece begins or ends inside. */
interface Stretch {
  piece: Piece
  from: Gate | null
  to: Gate | null
}

/** What of a closed boundary lies within a cell. */
function within(pieces: readonly Piece[], cell: Box): Strand[] {
  const parts = pieces.map((p) => stretchesIn(p, cell))
  // A piece that ends inside while the next begins outside has its corner on the very side.
  parts.forEach((part, i) => {
    const next = parts[(i + 1) % parts.length]!
    const [a, b] = [part[part.length - 1], next[0]]
    const ends = !!a && !a.to
    const begins = !!b && !b.from
    if (ends && !begins) a.to = gateAt(pieces[i]!.end, cell)
    if (begins && !ends) b.from = gateAt(pieces[i]!.end, cell)
  })
  const all = parts.flat()
  const first = all.findIndex((s) => s.from)
  if (first < 0) return all.length ? [{ pieces: all.map((s) => s.piece), from: null, to: null }] : []
  const strands: Strand[] = []
  for (const { piece, from, to } of [...all.slice(first), ...all.slice(0, first)]) {
    if (from) strands.push({ pieces: [], from, to: null })
    const strand = strands[strands.length - 1]!
    strand.pieces.push(piece)
    strand.to = to
  }
  return strands
}

const SIDES = [
  ['left', 'x', 'minX'],
  ['right', 'x', 'maxX'],
  ['above', 'y', 'minY'],
  ['below', 'y', 'maxY'],
] as const

const isInside = ({ x, y }: Vec, { minX, minY, maxX, maxY }: Box): boolean =>
  x > minX && x < maxX && y > minY && y < maxY

/** The parts of a piece within a cell, in the direction of travel. */
function stretchesIn(piece: Piece, cell: Box): Stretch[] {
  const { curve, t0, t1 } = piece
  if (isEven(curve) && isInside(piece.start, cell) && isInside(piece.end, cell))
    return [{ piece, from: null, to: null }]
  const back = t1 < t0
  const cuts: { t: number; gate: Gate; at: Vec }[] = []
  for (const [side, axis, bound] of SIDES) {
    for (const t of axisCrossings(curve, axis, cell[bound], Math.min(t0, t1), Math.max(t0, t1))) {
      const p = pointAt(curve, t)
      const at = axis === 'x' ? { x: cell[bound], y: p.y } : { x: p.x, y: cell[bound] }
      cuts.push({ t, gate: { side, at: axis === 'x' ? p.y : p.x }, at })
    }
  }
  cuts.sort((a, b) => (back ? b.t - a.t : a.t - b.t))
  const out: Stretch[] = []
  let wasIn = false
  for (let i = 0; i <= cuts.length; i++) {
    const [before, after] = [cuts[i - 1], cuts[i]]
    const from = before?.t ?? t0
    const to = after?.t ?? t1
    const p = from === to ? piece.start : pointAt(curve, (from + to) / 2)
    const isIn = isInside(p, cell)
    if (isIn && wasIn) {
      const last = out[out.length - 1]!
      last.piece = { ...last.piece, t1: to, end: after?.at ?? piece.end }
      last.to = after?.gate ?? null
    } else if (isIn) {
      out.push({
        piece: { curve, t0: from, t1: to, start: before?.at ?? piece.start, end: after?.at ?? piece.end },
        from: before?.gate ?? null,
        to: after?.gate ?? null,
      })
    }
    wasIn = isIn
  }
  return out
}

/** The gate nearest to a point. */
function gateAt(p: Vec, cell: Box): Gate {
  const off = SIDES.map(([, axis, bound]) => Math.abs(p[axis] - cell[bound]))
  const [side, axis] = SIDES[off.indexOf(Math.min(...off))]!
  return { side, at: axis === 'x' ? p.y : p.x }
}
