import { straight } from '../geometry/cubic'
import type { Vec } from '../geometry/point'
import type { CurveTable } from './curve-table'
import { EdgeStore } from './edge-store'
import type { Arc, Loop } from './loop'
import { startOf } from './loop'
import type { SnapGrid } from './snap-grid'
import { toPx } from './snap-grid'

/** A chord within so many grid units of its curve is taken for the curve. */
export const FLAT = 1

/** Ends of arcs that follow one another are rounded to grid points no farther apart than this, along each axis. */
const CLOSE = 2

/** How far a stretch of a curve may lie from its chord, grid units; 0 where the chord itself is meant. */
export function chordSag(curves: CurveTable, curve: number, t0: number, t1: number): number {
  const sag = curves.sagitta(curve, t0, t1)
  return sag <= FLAT ? 0 : sag
}

/** Takes loops apart into chords between grid points. */
export class LoopChords {
  readonly edges: EdgeStore
  /** The grid point at which the loop at hand has come. */
  private x = 0
  private y = 0

  /**
   * @param capacity about how many chords there will be
   * @param coarsest how far chords may lie from their curves, grid units
   */
  constructor(
    private readonly grid: SnapGrid,
    private readonly curves: CurveTable,
    capacity: number,
    private readonly coarsest: number,
  ) {
    this.edges = new EdgeStore(capacity)
  }

  /**
   * Enters the chords of a loop, each from the very grid point at which the one before ended: where two arcs meet, their
   * own ends may be rounded to neighbours, and a loop that is open by a grid step contradicts itself.
   */
  enter(loop: Loop, owner: number): void {
    if (!loop.length) return
    const first = loop[0]!
    const ends = loop.map((arc) => this.asEntered(arc))
    this.curves.point(ends[0]!.id, ends[0]!.from, P)
    const x = (this.x = Math.round(P[0]!))
    const y = (this.y = Math.round(P[1]!))
    ends.forEach(({ id, from, to }, i) => {
      const isLast = i === loop.length - 1
      this.goTo(startOf(loop[i]!), owner)
      let t = from
      if (this.curves.isStraight(id))
        for (const turn of this.curves.turnsOf(id, from, to)) this.flatten(id, t, (t = turn), owner)
      this.flatten(id, t, to, owner, isLast ? x : undefined, isLast ? y : undefined)
    })
    this.goTo(startOf(first), owner)
  }

  private asEntered({ curve, t0, t1 }: Arc): { id: number; from: number; to: number } {
    const id = this.curves.idOf(curve)
    return this.curves.runsBack(id, curve) ? { id, from: 1 - t0, to: 1 - t1 } : { id, from: t0, to: t1 }
  }

  /** Goes straight on to where the next arc begins, should it not begin here. */
  private goTo(p: Vec, owner: number): void {
    const { step, originX, originY } = this.grid
    const x = Math.round(p.x / step - originX)
    const y = Math.round(p.y / step - originY)
    if (Math.abs(x - this.x) <= CLOSE && Math.abs(y - this.y) <= CLOSE) return
    const from = toPx(this.grid, this.x, this.y)
    this.flatten(this.curves.idOf(straight(from, p)), 0, 1, owner)
  }

  /** Enters the chords of a curve from the grid point at hand on; to (endX, endY), where that is a neighbour of its end. */
  private flatten(curve: number, t0: number, t1: number, owner: number, endX?: number, endY?: number): void {
    const whole = this.curves.sagitta(curve, t0, t1)
    let n = Math.max(1, Math.ceil(Math.sqrt(whole / this.coarsest)))
    let { x, y } = this
    if (whole > FLAT && n < 4) {
      // A curve that returns to where it began must not vanish into its chord.
      this.curves.point(curve, t1, P)
      if (Math.abs(P[0]! - x) + Math.abs(P[1]! - y) <= 2) n = 4
    }
    let before = t0
    for (let i = 1; i <= n; i++) {
      const t = i === n ? t1 : t0 + ((t1 - t0) * i) / n
      this.curves.point(curve, t, P)
      let nx = Math.round(P[0]!)
      let ny = Math.round(P[1]!)
      if (i === n && endX !== undefined && Math.abs(nx - endX) <= CLOSE && Math.abs(ny - endY!) <= CLOSE) {
        nx = endX
        ny = endY!
      }
      if (nx === x && ny === y) continue
      this.edges.push(x, y, nx, ny, curve, before, t, chordSag(this.curves, curve, before, t), owner)
      before = t
      x = nx
      y = ny
    }
    this.x = x
    this.y = y
  }
}

const P = new Float64Array(4)
