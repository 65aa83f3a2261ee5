import { InputError } from '../errors'
import { straight } from '../geometry/cubic'
import { grownInts } from '../geometry/grown'
import type { Vec } from '../geometry/point'
import type { Arrangement } from './arrangement'
import { CellIndex } from './cell-index'
import { checkArrangement } from './check-arrangement'
import { CurveTable } from './curve-table'
import { EdgeStore } from './edge-store'
import { Meeting, Meetings } from './interact'
import type { Split } from './interact'
import type { Arc, Loop } from './loop'
import { startOf } from './loop'
import { OwnerLists } from './owner-lists'
import type { SnapGrid } from './snap-grid'
import { snapRounded } from './snap-rounding'
import { coarserGrid, doubledGrid, gridFor, toPx } from './snap-grid'

/** A chord within so many grid units of its curve is taken for the curve. */
const FLAT = 1

/** Chords start as coarse as this many grid units (a multiple of the tolerance) and are refined where it matters. */
const COARSEST = 2048

/**
 * More splits than this for one edge that came in, by vertices that lie on it as far as the grid can tell: the input lies
 * closer together than the grid is fine, and a coarser one would merge what this one keeps apart at great cost.
 */
const MOST_TOUCHES = 6

/** Ends of arcs that follow one another are rounded to grid points no farther apart than this, along each axis. */
const CLOSE = 2

/** More edges than this fill the memory. */
const MOST_EDGES = 10_000_000
const TOO_MANY =
  'These outlines cross each other in more places than can be worked out at once. Take fewer of them together.'

/** Another way to arrange, for loops that contradict themselves otherwise. */
export interface Way {
  /** Along chords within a grid unit of their curves from the beginning: exact integers decide everything. */
  chords: boolean
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
    ? new Arranger(doubledGrid(grid, way.coarser ?? 0, tolerance), Infinity, way.chords ? FLAT : COARSEST).run(groups)!
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

/** Edges are a crowd where each may cross so many others, by their length and the ground that they lie on. */
const CROWD = 2
/** Chords within a grid unit of their curves may be so many times as many as the crossings. */
const CHORDS = 4

/** Whether edges cross each other so often that it pays to find all crossings first: by Buffon's needle, length squared over area. */
function isCrowd(s: EdgeStore): boolean {
  let [minX, minY, maxX, maxY] = [Infinity, Infinity, -Infinity, -Infinity]
  let length = 0
  let chords = 0
  for (let e = 0; e < s.count; e++) {
    minX = Math.min(minX, s.ax[e]!, s.bx[e]!)
    maxX = Math.max(maxX, s.ax[e]!, s.bx[e]!)
    minY = Math.min(minY, s.ay[e]!, s.by[e]!)
    maxY = Math.max(maxY, s.ay[e]!, s.by[e]!)
    length += Math.hypot(s.bx[e]! - s.ax[e]!, s.by[e]! - s.ay[e]!)
    chords += Math.ceil(Math.sqrt(s.sag[e]! / FLAT)) || 1
  }
  const crossings = length ** 2 / (Math.PI * Math.max(1, (maxX - minX) * (maxY - minY)))
  return crossings > CROWD * s.count && CHORDS * crossings > chords
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

  /** The grid point at which the loop that is being entered has come. */
  private x = 0
  private y = 0

  /** Splits by vertices that lie on an edge as far as the grid can tell. */
  private touches = 0

  /**
   * @param mostTouches for each edge that comes in
   * @param coarsest how far chords may lie from their curves as they come in, grid units
   */
  constructor(
    private readonly grid: SnapGrid,
    private readonly mostTouches: number,
    private coarsest = COARSEST,
  ) {
    this.curves = new CurveTable(grid)
  }

  /** Null where there are too many touches. */
  run(groups: readonly (readonly Loop[])[]): Arrangement | null {
    this.enterAll(groups)
    const { edges } = this
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

  private enterAll(groups: readonly (readonly Loop[])[]): void {
    let capacity = 64
    for (const loops of groups) for (const loop of loops) capacity += 8 * loop.length
    this.edges = new EdgeStore(capacity)
    groups.forEach((loops, g) => {
      const owner = this.owners.single(g)
      for (const loop of loops) this.enterLoop(loop, owner)
    })
  }

  /** All crossings at once, along chords that lie within a grid unit of their curves; null where there are too many. */
  private inOneGo(groups: readonly (readonly Loop[])[]): Arrangement | null {
    const { coarsest, edges: coarse, grid, curves, owners } = this
    this.coarsest = FLAT
    this.enterAll(groups)
    const fine = this.edges
    ;[this.coarsest, this.edges] = [coarsest, coarse]
    const parameterAt = (e: number, share: number): number =>
      curves.isStraight(fine.curve[e]!)
        ? curves.parameterAlong(fine.curve[e]!, fine.ta[e]!, fine.tb[e]!, share)
        : fine.ta[e]! + (fine.tb[e]! - fine.ta[e]!) * share
    const rounded = snapRounded(fine, owners, parameterAt, MOST_EDGES)
    return rounded && { grid, curves, owners, fine: true, ...rounded }
  }

  /**
   * Enters the chords of a loop, each from the very grid point at which the one before ended: where two arcs meet, their
   * own ends may be rounded to neighbours, and a loop that is open by a grid step contradicts itself.
   */
  private enterLoop(loop: Loop, owner: number): void {
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
      this.edges.push(x, y, nx, ny, curve, before, t, this.sagOf(curve, before, t), owner)
      before = t
      x = nx
      y = ny
    }
    this.x = x
    this.y = y
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

const P = new Float64Array(4)
