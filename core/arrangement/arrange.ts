import { InputError } from '../errors'
import { grownInts } from '../geometry/grown'
import type { Arrangement } from './arrangement'
import { CellIndex } from './cell-index'
import { checkArrangement } from './check-arrangement'
import { CurveTable } from './curve-table'
import { EdgeStore } from './edge-store'
import { Meeting, Meetings } from './interact'
import type { Split } from './interact'
import { isCrowd } from './crowd'
import type { Loop } from './loop'
import { chordSag, FLAT, LoopChords } from './loop-chords'
import { OwnerLists } from './owner-lists'
import type { SnapGrid } from './snap-grid'
import { snapRounded } from './snap-rounding'
import { coarserGrid, doubledGrid, gridFor } from './snap-grid'

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

/** Another way to arrange loops that contradict themselves otherwise: along chords within a grid unit of their curves. */
export interface Way {
  /** So often the grid step is doubled. */
  coarser?: number
}

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
 * @throws ArrangementFault where it contradicts its input; `arranged` mends that
 */
export function arrange(groups: readonly (readonly Loop[])[], tolerance: number, way?: Way): Arrangement | null {
  const grid = gridFor(groups.flat(), tolerance)
  if (!grid) return null
  const arrangement = way
    ? new Arranger(doubledGrid(grid, way.coarser ?? 0, tolerance), Infinity, FLAT).run(groups)!
    : arrangeFinely(grid, groups, tolerance)
  checkArrangement(arrangement, groups, tolerance)
  return arrangement
}

function arrangeFinely(grid: SnapGrid, groups: readonly (readonly Loop[])[], tolerance: number): Arrangement {
  const coarser = coarserGrid(grid, tolerance)
  return (
    (coarser && new Arranger(grid, MOST_TOUCHES).run(groups)) ?? new Arranger(coarser ?? grid, Infinity).run(groups)!
  )
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

  /**
   * @param mostTouches for each edge that comes in
   * @param coarsest how far chords may lie from their curves as they come in, grid units
   */
  constructor(
    private readonly grid: SnapGrid,
    private readonly mostTouches: number,
    private readonly coarsest = COARSEST,
  ) {
    this.curves = new CurveTable(grid)
  }

  /** Null where there are too many touches. */
  run(groups: readonly (readonly Loop[])[]): Arrangement | null {
    const edges = (this.edges = this.chordsOf(groups, this.coarsest))
    if (isCrowd(edges)) {
      const rounded = this.inOneGo(groups)
      if (rounded) return rounded
    }
    const first = edges.count
    this.meetings = new Meetings(edges, this.curves)
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
    return { grid, curves, edges, owners, met, fine: false }
  }

  /** The chords of all loops, no farther from their curves than so many grid units. */
  private chordsOf(groups: readonly (readonly Loop[])[], coarsest: number): EdgeStore {
    let capacity = 64
    for (const loops of groups) for (const loop of loops) capacity += 8 * loop.length
    const chords = new LoopChords(this.grid, this.curves, capacity, coarsest)
    groups.forEach((loops, g) => {
      const owner = this.owners.single(g)
      for (const loop of loops) chords.enter(loop, owner)
    })
    return chords.edges
  }

  /** All crossings at once, along chords that lie within a grid unit of their curves; null where there are too many. */
  private inOneGo(groups: readonly (readonly Loop[])[]): Arrangement | null {
    const { grid, curves, owners } = this
    const fine = this.chordsOf(groups, FLAT)
    const parameterAt = (e: number, share: number): number =>
      curves.isStraight(fine.curve[e]!)
        ? curves.parameterAlong(fine.curve[e]!, fine.ta[e]!, fine.tb[e]!, share)
        : fine.ta[e]! + (fine.tb[e]! - fine.ta[e]!) * share
    const rounded = snapRounded(fine, owners, parameterAt, MOST_EDGES)
    return rounded && { grid, curves, owners, fine: true, ...rounded }
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
    const sagA = flat ? 0 : chordSag(this.curves, curve, ta, t)
    // An edge that was not entered yet is nowhere known: its first half takes its place.
    if (entered) this.waiting.push(edges.push(ax, ay, x, y, curve, ta, t, sagA, owner))
    else {
      edges.put(e, ax, ay, x, y, curve, ta, t, sagA, owner)
      this.waiting.push(e)
    }
    this.waiting.push(edges.push(x, y, bx, by, curve, t, tb, flat ? 0 : chordSag(this.curves, curve, t, tb), owner))
  }
}
