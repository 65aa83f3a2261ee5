import { InputError } from '../errors'
import { grownInts } from '../geometry/grown'
import type { Arrangement } from './arrangement'
import { CellIndex } from './cell-index'
import { checkArrangement } from './check-arrangement'
import { CurveTable } from './curve-table'
import { EdgeStore } from './edge-store'
import { Meeting, Meetings } from './interact'
import type { Split } from './interact'
import type { Arc, Loop } from './loop'
import { OwnerLists } from './owner-lists'
import type { SnapGrid } from './snap-grid'
import { coarserGrid, gridFor } from './snap-grid'

/** A chord within so many grid units of its curve is taken for the curve. */
const FLAT = 1

/** Chords start as coarse as this many grid units (a multiple of the tolerance) and are refined where it matters. */
const COARSEST = 2048

/**
 * More splits than this for one edge that came in, by vertices that lie on it as far as the grid can tell: the input lies
 * closer together than the grid is fine, and a coarser one would merge what this one keeps apart at great cost.
 */
const MOST_TOUCHES = 6

/** More edges than this fill the memory. */
const MOST_EDGES = 10_000_000
const TOO_MANY =
  'These outlines cross each other in more places than can be worked out at once. Take fewer of them together.'

/**
 * The arrangement of loops in groups: edges enter one by one, and wherever one meets another both are split, exactly
 * where their curves cross or, where that is in doubt, after the chords have been refined. Ends up with the chords on an
 * integer grid. No point moves by more than a grid step at a time. Bundles that all but coincide are arranged on a grid of
 * a 32nd of the tolerance instead of a 256th; every split makes shorter edges between grid points, so every input comes to
 * an end. Null when there is nothing.
 *
 * @param groups loops of each group
 * @param tolerance px; the grid step is a 256th of it
 * @throws InputError where the loops reach too far for the tolerance, or cross in more places than there is memory for
 */
export function arrange(groups: readonly (readonly Loop[])[], tolerance: number): Arrangement | null {
  const grid = gridFor(groups.flat(), tolerance)
  if (!grid) return null
  const coarser = coarserGrid(grid, tolerance)
  const arranged =
    (coarser && new Arranger(grid, MOST_TOUCHES).run(groups)) ?? new Arranger(coarser ?? grid, Infinity).run(groups)!
  checkArrangement(arranged, groups, tolerance)
  return arranged
}

class Arranger {
  private readonly curves: CurveTable
  private readonly owners = new OwnerLists()
  private edges = new EdgeStore(0)
  private meetings!: Meetings
  private met = false
  /** The look in which each edge was seen last. */
  private stamp = new Int32Array(0)
  private looks = 0
  /** Edges that wait to be entered. */
  private waiting: number[] = []

  /** Splits by vertices that lie on an edge as far as the grid can tell. */
  private touches = 0

  /** @param mostTouches for each edge that comes in */
  constructor(
    private readonly grid: SnapGrid,
    private readonly mostTouches: number,
  ) {
    this.curves = new CurveTable(grid)
  }

  /** Null where there are too many touches. */
  run(groups: readonly (readonly Loop[])[]): Arrangement | null {
    let capacity = 64
    for (const loops of groups) for (const loop of loops) capacity += 8 * loop.length
    this.edges = new EdgeStore(capacity)
    this.meetings = new Meetings(this.edges, this.curves)
    groups.forEach((loops, g) => {
      const owner = this.owners.single(g)
      for (const loop of loops) for (const arc of loop) this.enterArc(arc, owner)
    })
    const { edges } = this
    const first = edges.count
    const cells = new CellIndex(edges, first)
    const most = this.mostTouches * first + 20_000
    for (let i = 0; i < first; i++) {
      this.waiting.push(i)
      while (this.waiting.length) {
        if (this.touches > most) return null
        if (edges.count > MOST_EDGES) throw new InputError('shapes', TOO_MANY)
        this.enter(cells, this.waiting.pop()!)
      }
    }
    const { grid, curves, owners, met } = this
    return { grid, curves, edges, owners, met }
  }

  private enterArc({ curve, t0, t1 }: Arc, owner: number): void {
    const id = this.curves.idOf(curve)
    const back = this.curves.runsBack(id, curve)
    const from = back ? 1 - t0 : t0
    const to = back ? 1 - t1 : t1
    let t = from
    if (this.curves.isStraight(id))
      for (const turn of this.curves.turnsOf(id, from, to)) this.flatten(id, t, (t = turn), owner)
    this.flatten(id, t, to, owner)
  }

  private flatten(curve: number, t0: number, t1: number, owner: number): void {
    const point = new Float64Array(4)
    const whole = this.curves.sagitta(curve, t0, t1)
    let n = Math.max(1, Math.ceil(Math.sqrt(whole / COARSEST)))
    this.curves.point(curve, t0, point)
    let x = Math.round(point[0]!)
    let y = Math.round(point[1]!)
    if (whole > FLAT && n < 4) {
      // A curve that returns to where it began must not vanish into its chord.
      this.curves.point(curve, t1, point)
      if (Math.abs(point[0]! - x) + Math.abs(point[1]! - y) <= 2) n = 4
    }
    let before = t0
    for (let i = 1; i <= n; i++) {
      const t = i === n ? t1 : t0 + ((t1 - t0) * i) / n
      this.curves.point(curve, t, point)
      const nx = Math.round(point[0]!)
      const ny = Math.round(point[1]!)
      if (nx === x && ny === y) continue
      this.edges.push(x, y, nx, ny, curve, before, t, this.sagOf(curve, before, t), owner)
      before = t
      x = nx
      y = ny
    }
  }

  private sagOf(curve: number, t0: number, t1: number): number {
    const sag = this.curves.sagitta(curve, t0, t1)
    return sag <= FLAT ? 0 : sag
  }

  /** Enters edge `p` among those already there; pieces that it or they are split into wait for their turn. */
  private enter(cells: CellIndex, p: number): void {
    const { edges, meetings } = this
    if (this.stamp.length < edges.ax.length) this.stamp = grownInts(this.stamp, edges.ax.length)
    if (cells.isTooLarge(p) && meetings.planHalves(p, meetings.splitP)) {
      this.split(p, meetings.splitP)
      return
    }
    const look = ++this.looks
    let n = cells.lookUp(p)
    if (cells.isCrowded()) {
      if (meetings.planHalves(p, meetings.splitP)) {
        this.split(p, meetings.splitP)
        return
      }
      // The curve stays at the ends of its chord, which are neighbours on the grid.
      edges.sag[p] = 0
      n = cells.lookUp(p)
    }
    const { lists } = cells
    const { boxes } = edges
    const x0 = boxes[4 * p]!
    const y0 = boxes[4 * p + 1]!
    const x1 = boxes[4 * p + 2]!
    const y1 = boxes[4 * p + 3]!
    for (let i = 0; i < n; i++) {
      let before = -1
      for (let at = cells.first(lists[i]!); at >= 0;) {
        const q = cells.edge(at)
        const next = cells.next(at)
        if (boxes[4 * q]! > x1 || boxes[4 * q + 2]! < x0 || boxes[4 * q + 1]! > y1 || boxes[4 * q + 3]! < y0) {
          before = at
          at = next
          continue
        }
        if (!edges.alive[q]) {
          cells.drop(lists[i]!, before, at)
          at = next
          continue
        }
        before = at
        at = next
        if (this.stamp[q] === look) continue
        this.stamp[q] = look
        const meeting = meetings.meet(p, q)
        if (meeting === Meeting.None) continue
        if (meeting === Meeting.Same) {
          this.absorb(q, p)
          return
        }
        if (meetings.splitQ.on) this.split(q, meetings.splitQ)
        if (meetings.splitP.on) {
          this.split(p, meetings.splitP)
          return
        }
      }
    }
    cells.enter(p)
    edges.alive[p] = 1
  }

  /** `q` takes over what `p`, the same stretch, is a boundary of. */
  private absorb(q: number, p: number): void {
    const { edges } = this
    const forth = edges.ax[p] === edges.ax[q] && edges.ay[p] === edges.ay[q]
    edges.owners[q] = this.owners.merged(edges.owners[q]!, edges.owners[p]!, forth ? 1 : -1)
    this.met = true
  }

  private split(e: number, at: Split): void {
    const { edges } = this
    const entered = edges.alive[e] === 1
    edges.alive[e] = 0
    if (at.met) this.met = true
    if (at.touch) this.touches++
    const curve = edges.curve[e]!
    const flat = edges.sag[e] === 0
    const { x, y, t } = at
    const ax = edges.ax[e]!
    const ay = edges.ay[e]!
    const bx = edges.bx[e]!
    const by = edges.by[e]!
    const ta = edges.ta[e]!
    const tb = edges.tb[e]!
    const owner = edges.owners[e]!
    const sagA = flat ? 0 : this.sagOf(curve, ta, t)
    // An edge that was not entered yet is nowhere known: its first half takes its place.
    if (entered) this.waiting.push(edges.push(ax, ay, x, y, curve, ta, t, sagA, owner))
    else {
      edges.put(e, ax, ay, x, y, curve, ta, t, sagA, owner)
      this.waiting.push(e)
    }
    this.waiting.push(edges.push(x, y, bx, by, curve, t, tb, flat ? 0 : this.sagOf(curve, t, tb), owner))
  }
}
