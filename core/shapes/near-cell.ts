import type { Box } from '../geometry/bounds'
import { grown } from '../geometry/bounds'
import type { Cubic } from '../geometry/cubic'
import type { Vec } from '../geometry/point'
import type { Arc, Loop } from '../arrangement/loop'
import { arcOf, endOf, segment, startOf } from '../arrangement/loop'

/** Sides beyond which a piece lies wholly, as bits. */
const LEFT = 1
const RIGHT = 2
const ABOVE = 4
const BELOW = 8

/** A curve is halved so often before what is left of it counts as near. */
const DEEPEST = 6

/** Corners that stand for what is far off lie so many sides of the cell away from it. */
const OUTER = 0.25

/** A cell takes in a little of its surroundings, as a share of its size, so that its sides lie within what is arranged. */
const MARGIN = 0.02

/** The box about a cell in which curves are kept as they are, px. */
export const nearBox = (cell: Box): Box => grown(cell, MARGIN * Math.max(cell.maxX - cell.minX, cell.maxY - cell.minY))

/**
 * A closed loop as a cell sees it: the arcs that come near it as they are, all the rest drawn in to a few straight edges
 * outside of it. Winding numbers within the cell stay: a piece wholly beyond one side can be moved to any other way beyond
 * that side. A loop with no arc near the cell comes out empty; `around` tells how often it goes round all of it.
 */
export function loopNearCell(loop: readonly Cubic[], cell: Box): { loop: Loop; around: number } {
  const out = new Drawn(cell)
  for (const c of loop) {
    const { curve, t0, t1 } = arcOf(c)
    out.take(curve, t0, t1, c.p0.x, c.p0.y, c.p1.x, c.p1.y, c.p2.x, c.p2.y, c.p3.x, c.p3.y, 0)
  }
  return out.closed()
}

/** What lies outside between two arcs: the points where it turns from beyond one side to beyond another. */
interface Detour {
  /** Sides beyond which its first stretch lies wholly, and its last; 0 for no way at all. */
  from: number
  to: number
  corners: Vec[]
}

class Drawn {
  private readonly arcs: Arc[] = []
  /** The detour before each arc. */
  private readonly detours: Detour[] = []
  private detour: Detour | null = null
  private readonly pad: number

  constructor(private readonly cell: Box) {
    this.pad = OUTER * Math.max(cell.maxX - cell.minX, cell.maxY - cell.minY)
  }

  /** Takes the stretch of `c` between two parameters, given by its own control points. */
  take(
    c: Cubic,
    t0: number,
    t1: number,
    ax: number,
    ay: number,
    bx: number,
    by: number,
    cx: number,
    cy: number,
    dx: number,
    dy: number,
    depth: number,
  ): void {
    const { minX, minY, maxX, maxY } = this.cell
    let sides = 0
    if (ax < minX && bx < minX && cx < minX && dx < minX) sides |= LEFT
    if (ax > maxX && bx > maxX && cx > maxX && dx > maxX) sides |= RIGHT
    if (ay < minY && by < minY && cy < minY && dy < minY) sides |= ABOVE
    if (ay > maxY && by > maxY && cy > maxY && dy > maxY) sides |= BELOW
    if (sides) {
      this.pass(sides)
      return
    }
    const small =
      Math.max(
        Math.abs(dx - ax),
        Math.abs(dy - ay),
        Math.abs(bx - ax),
        Math.abs(by - ay),
        Math.abs(cx - dx),
        Math.abs(cy - dy),
      ) <= this.pad
    if (depth >= DEEPEST || small) {
      this.keep(c, t0, t1)
      return
    }
    const abx = (ax + bx) / 2
    const aby = (ay + by) / 2
    const mx = (bx + cx) / 2
    const my = (by + cy) / 2
    const cdx = (cx + dx) / 2
    const cdy = (cy + dy) / 2
    const ex = (abx + mx) / 2
    const ey = (aby + my) / 2
    const fx = (mx + cdx) / 2
    const fy = (my + cdy) / 2
    const hx = (ex + fx) / 2
    const hy = (ey + fy) / 2
    const t = (t0 + t1) / 2
    this.take(c, t0, t, ax, ay, abx, aby, ex, ey, hx, hy, depth + 1)
    this.take(c, t, t1, hx, hy, fx, fy, cdx, cdy, dx, dy, depth + 1)
  }

  /** A piece that lies wholly beyond these sides. */
  private pass(sides: number): void {
    const way = { from: sides, to: sides, corners: [] }
    if (this.detour) join(this.detour, way, this.corner)
    else this.detour = way
  }

  private keep(curve: Cubic, t0: number, t1: number): void {
    const last = this.arcs[this.arcs.length - 1]
    if (last && !this.detour && last.curve === curve && last.t1 === t0) {
      last.t1 = t1
      return
    }
    this.detours.push(this.detour ?? { from: 0, to: 0, corners: [] })
    this.detour = null
    this.arcs.push({ curve, t0, t1 })
  }

  /** The corner that lies beyond both of two sides. */
  private readonly corner = (sides: number): Vec => ({
    x: sides & LEFT ? this.cell.minX - this.pad : this.cell.maxX + this.pad,
    y: sides & ABOVE ? this.cell.minY - this.pad : this.cell.maxY + this.pad,
  })

  closed(): { loop: Loop; around: number } {
    const { arcs, detours } = this
    if (!arcs.length) return { loop: [], around: this.detour ? this.turns(this.detour) : 0 }
    const [first] = detours
    if (this.detour) {
      if (first!.from) join(this.detour, first!, this.corner)
      detours[0] = this.detour
    }
    const loop: Loop = []
    arcs.forEach((arc, i) => {
      const before = arcs[(i + arcs.length - 1) % arcs.length]!
      const way = [endOf(before), ...detours[i]!.corners, startOf(arc)]
      for (let k = 1; k < way.length; k++)
        if (way[k]!.x !== way[k - 1]!.x || way[k]!.y !== way[k - 1]!.y) loop.push(segment(way[k - 1]!, way[k]!))
      loop.push(arc)
    })
    return { loop, around: 0 }
  }

  /** How often a loop that never comes near goes round the cell, by the area of its corners. */
  private turns({ from, to, corners: met }: Detour): number {
    const corners = from & to ? met : [...met, this.corner(from | to)]
    let area = 0
    corners.forEach((p, i) => {
      const q = corners[(i + 1) % corners.length]!
      area += p.x * q.y - q.x * p.y
    })
    const { minX, minY, maxX, maxY } = this.cell
    return Math.round(area / 2 / ((maxX - minX + 2 * this.pad) * (maxY - minY + 2 * this.pad)))
  }
}

/** Goes on from one detour with another: along a side beyond which both lie, or about the corner between them. */
function join(a: Detour, b: Detour, corner: (sides: number) => Vec): void {
  const shared = a.to & b.from
  if (!shared) a.corners.push(corner(a.to | b.from))
  else if (!a.corners.length) a.from = shared
  a.to = b.corners.length || !shared ? b.to : shared
  a.corners.push(...b.corners)
}

/** Loops that go round all of a cell and what is drawn in about it, `times` times; backwards where that is negative. */
export function roundAbout({ minX, minY, maxX, maxY }: Box, times: number): Loop[] {
  const by = 2 * OUTER * Math.max(maxX - minX, maxY - minY)
  const corners = [
    { x: minX - by, y: minY - by },
    { x: maxX + by, y: minY - by },
    { x: maxX + by, y: maxY + by },
    { x: minX - by, y: maxY + by },
  ]
  const round = times < 0 ? corners.reverse() : corners
  return Array.from({ length: Math.abs(times) }, () => round.map((p, i) => segment(p, round[(i + 1) % 4]!)))
}
