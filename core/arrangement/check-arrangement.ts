import type { Arrangement } from './arrangement'
import type { CurveTable } from './curve-table'
import type { Loop } from './loop'
import type { PlanarMap } from './planar-map'

/** An arrangement that contradicts itself or its input: a fault of ours, which must not become somebody's drawing. */
export class ArrangementFault extends Error {
  constructor(what: string) {
    super(
      `The outlines could not be worked out: ${what}. Please move one of the lines a little, and tell us of this drawing.`,
    )
    this.name = 'ArrangementFault'
  }
}

/** Nodes and weights of Gauss-Legendre quadrature with three points over 0..1: exact up to the fifth degree. */
const GAUSS = [
  [0.5 - Math.sqrt(0.15), 5 / 18],
  [0.5, 4 / 9],
  [0.5 + Math.sqrt(0.15), 5 / 18],
] as const

/**
 * Holds an arrangement against the loops that it came from: the boundary of each group must enclose, along the true
 * curves, the area that the loops enclose, within the tolerance (px) times the loops' length.
 *
 * @throws ArrangementFault
 */
export function checkArrangement(
  arrangement: Arrangement,
  groups: readonly (readonly Loop[])[],
  tolerance: number,
): void {
  const { edges, curves, owners, grid } = arrangement
  const found = new Float64Array(groups.length)
  // Rounded ends close on one another exactly; what lies between a curve and its chord is small wherever it is.
  const ox = edges.count ? edges.ax[0]! : 0
  const oy = edges.count ? edges.ay[0]! : 0
  for (let e = 0; e < edges.count; e++) {
    if (!edges.alive[e] || edges.owners[e] === 0) continue
    const chord = (edges.ax[e]! - ox) * (edges.by[e]! - oy) - (edges.bx[e]! - ox) * (edges.ay[e]! - oy)
    const swept = edges.sag[e] === 0 ? chord : chord + segment(curves, edges.curve[e]!, edges.ta[e]!, edges.tb[e]!)
    const list = owners.get(edges.owners[e]!)
    for (let i = 0; i < list.length; i += 2) found[list[i]!]! += list[i + 1]! * swept
  }
  groups.forEach((loops, g) => {
    let area = 0
    let length = 0
    for (const loop of loops) {
      loop.forEach(({ curve, t0, t1 }, i) => {
        const id = curves.idOf(curve)
        const back = curves.runsBack(id, curve)
        const [from, to] = back ? [1 - t0, 1 - t1] : [t0, t1]
        if (i === 0) curves.point(id, from, START)
        area += sweep(curves, id, from, to, START[0]!, START[1]!)
        length += curves.controlLength(id)
      })
    }
    if (!(Math.abs(area - found[g]!) / 2 <= (tolerance / grid.step) * (length + loops.length)))
      throw new ArrangementFault('an area came out wrong')
  })
}

/** Twice the area that a stretch of a curve sweeps about a point, grid units squared; exact, for the integrand is of the fifth degree. */
function sweep(curves: CurveTable, curve: number, t0: number, t1: number, ox: number, oy: number): number {
  let sum = 0
  for (const [u, w] of GAUSS) {
    const t = t0 + (t1 - t0) * u
    curves.point(curve, t, P)
    curves.derivative(curve, t, P)
    sum += w * ((P[0]! - ox) * P[3]! - (P[1]! - oy) * P[2]!)
  }
  return sum * (t1 - t0)
}

/** Twice the area between a stretch of a curve and its chord. */
function segment(curves: CurveTable, curve: number, t0: number, t1: number): number {
  curves.point(curve, t0, START)
  return sweep(curves, curve, t0, t1, START[0]!, START[1]!)
}

const P = new Float64Array(4)
const START = new Float64Array(4)

/**
 * Holds the faces of a map against its edges: going over an edge must change the winding number of each group by as often as
 * the edge runs along its boundary, whichever way the face was reached. Groups are told apart by weights modulo 2^32.
 *
 * @throws ArrangementFault
 */
export function checkFaces(m: PlanarMap, windings: Int32Array): void {
  for (let c = 0; c < m.chains.count; c++) {
    const change = hashOf(m.arrangement.owners.get(m.chains.owners[c]!))
    if (((windings[m.face[2 * c]!]! - windings[m.face[2 * c + 1]!]!) | 0) !== change)
      throw new ArrangementFault('two ways to a face disagree')
  }
}

/** One number for pairs group, times. */
export function hashOf(list: Int32Array): number {
  let sum = 0
  for (let i = 0; i < list.length; i += 2) sum = (sum + Math.imul(list[i + 1]!, weightOf(list[i]!))) | 0
  return sum
}

/** A fixed odd number for each group, spread over 32 bits. */
const weightOf = (group: number): number => Math.imul(group + 1, 0x9e3779b1) | 1
