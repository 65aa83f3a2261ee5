import { grownInts } from '../geometry/grown'
import { EdgeBuckets } from './edge-buckets'
import { EdgeStore } from './edge-store'
import type { OwnerLists } from './owner-lists'
import { VertexIds } from './vertex-ids'

/** Edges that meet only at their ends, and whether any met another. */
export interface SnapRounded {
  edges: EdgeStore
  met: boolean
}

/**
 * Straight edges between grid points, each led through all those grid points at which edges end or cross whose squares it
 * passes: no two of the resulting edges cross, and those that coincide are one (snap rounding: J. D. Hobby, Practical
 * segment intersection with finite precision output, 1999). All crossings are found first, cell by cell, and every edge is
 * split once: for crowds of edges that cross each other over and over.
 *
 * @param parameterAt parameter of an edge's curve where the edge has come a share of its way
 * @param most grid points along edges; null where there are more
 */
export function snapRounded(
  s: EdgeStore,
  owners: OwnerLists,
  parameterAt: (edge: number, share: number) => number,
  most: number,
): SnapRounded | null {
  const buckets = new EdgeBuckets(s)
  const points = new VertexIds(2 * s.count + (buckets.edges.length >> 1))
  for (let e = 0; e < s.count; e++) {
    points.of(s.ax[e]!, s.ay[e]!)
    points.of(s.bx[e]!, s.by[e]!)
  }
  const crossed = addCrossings(s, buckets, points)
  const passed = passedBy(s, buckets, points, most)
  return passed && routed(s, owners, points, passed, parameterAt, crossed)
}

/** Adds the grid points at which edges cross, each found in the one cell in which it lies; answers whether any do. */
function addCrossings(s: EdgeStore, buckets: EdgeBuckets, points: VertexIds): boolean {
  const { first, edges } = buckets
  const { ax, ay, bx, by } = s
  let crossed = false
  for (let cell = 0; cell + 1 < first.length; cell++) {
    const end = first[cell + 1]!
    for (let i = first[cell]!; i < end; i++) {
      const p = edges[i]!
      const pax = ax[p]!
      const pay = ay[p]!
      const pdx = bx[p]! - pax
      const pdy = by[p]! - pay
      for (let k = i + 1; k < end; k++) {
        const q = edges[k]!
        // Exact for grid coordinates: twice the areas of the triangles that each edge makes with the other's ends.
        const oa = pdx * (ay[q]! - pay) - pdy * (ax[q]! - pax)
        const ob = pdx * (by[q]! - pay) - pdy * (bx[q]! - pax)
        if (!(oa > 0 ? ob < 0 : oa < 0 && ob > 0)) continue
        const qdx = bx[q]! - ax[q]!
        const qdy = by[q]! - ay[q]!
        const oc = qdx * (pay - ay[q]!) - qdy * (pax - ax[q]!)
        const od = qdx * (by[p]! - ay[q]!) - qdy * (bx[p]! - ax[q]!)
        if (!(oc > 0 ? od < 0 : oc < 0 && od > 0)) continue
        const u = oc / (oc - od)
        const x = pax + pdx * u
        const y = pay + pdy * u
        if (buckets.cellAt(x, y) !== cell) continue
        crossed = true
        points.of(Math.round(x), Math.round(y))
      }
    }
  }
  return crossed
}

/** For each edge, from `first[e]` to `first[e + 1]`, the points whose squares it passes, its own ends among them. */
interface Passed {
  first: Int32Array
  points: Int32Array
}

function passedBy(s: EdgeStore, buckets: EdgeBuckets, points: VertexIds, most: number): Passed | null {
  const { first, edges } = buckets
  const { ax, ay, bx, by } = s
  const { x, y, count } = points
  const inCell = byCell(buckets, points)
  let hitEdges = new Int32Array(4 * count + 64)
  let hitPoints = new Int32Array(4 * count + 64)
  const starts = new Int32Array(s.count + 1)
  let n = 0
  for (let cell = 0; cell + 1 < first.length; cell++) {
    const from = inCell.first[cell]!
    const to = inCell.first[cell + 1]!
    if (from === to) continue
    for (let i = first[cell]!; i < first[cell + 1]!; i++) {
      const e = edges[i]!
      const x0 = ax[e]!
      const y0 = ay[e]!
      const dx = bx[e]! - x0
      const dy = by[e]! - y0
      const reach = 0.5 * ((dx < 0 ? -dx : dx) + (dy < 0 ? -dy : dy))
      for (let k = from; k < to; k++) {
        const v = inCell.points[k]!
        const wx = x[v]! - x0
        const wy = y[v]! - y0
        const off = dx * wy - dy * wx
        if (off > reach || off < -reach) continue
        // Within the box about the edge, half a unit wider all round.
        if (dx > 0 ? wx < -0.5 || wx > dx + 0.5 : wx > 0.5 || wx < dx - 0.5) continue
        if (dy > 0 ? wy < -0.5 || wy > dy + 0.5 : wy > 0.5 || wy < dy - 0.5) continue
        if (n === most) return null
        if (n === hitEdges.length) {
          hitEdges = grownInts(hitEdges, 2 * n)
          hitPoints = grownInts(hitPoints, 2 * n)
        }
        hitEdges[n] = e
        hitPoints[n++] = v
        starts[e + 1]!++
      }
    }
  }
  for (let e = 0; e < s.count; e++) starts[e + 1]! += starts[e]!
  const sorted = new Int32Array(n)
  const next = starts.slice()
  for (let i = 0; i < n; i++) sorted[next[hitEdges[i]!]!++] = hitPoints[i]!
  return { first: starts, points: sorted }
}

/** The points that lie in each cell. */
function byCell(buckets: EdgeBuckets, { x, y, count }: VertexIds): Passed {
  const first = new Int32Array(buckets.first.length)
  const cells = new Int32Array(count)
  for (let v = 0; v < count; v++) first[(cells[v] = buckets.cellAt(x[v]!, y[v]!)) + 1]!++
  for (let c = 0; c + 1 < first.length; c++) first[c + 1]! += first[c]!
  const points = new Int32Array(count)
  const next = first.slice()
  for (let v = 0; v < count; v++) points[next[cells[v]!]!++] = v
  return { first, points }
}

/** Shares of the way along an edge are told apart to this part of it, finer than half a grid unit of the longest edge. */
const SHARES = 2 ** 32
/** So many points along one edge can be sorted. */
const MOST_ALONG = 2 ** 20

/** Edges from point to point along each edge; those that coincide made one, with all their owners. */
function routed(
  s: EdgeStore,
  owners: OwnerLists,
  points: VertexIds,
  passed: Passed,
  parameterAt: (edge: number, share: number) => number,
  crossed: boolean,
): SnapRounded {
  const { first, points: along } = passed
  const out = new EdgeStore(along.length - s.count)
  const known = new EdgesByEnds(along.length - s.count)
  let met = crossed
  let keys = new Float64Array(64)
  for (let e = 0; e < s.count; e++) {
    const from = first[e]!
    const n = first[e + 1]! - from
    const start = points.find(s.ax[e]!, s.ay[e]!)
    const end = points.find(s.bx[e]!, s.by[e]!)
    const dx = s.bx[e]! - s.ax[e]!
    const dy = s.by[e]! - s.ay[e]!
    const long = dx * dx + dy * dy
    if (n > 2) {
      met = true
      if (keys.length < n) keys = new Float64Array(2 * n)
      for (let i = 0; i < n; i++) {
        const v = along[from + i]!
        const share = ((points.x[v]! - s.ax[e]!) * dx + (points.y[v]! - s.ay[e]!) * dy) / long
        // The edge begins and ends at its own ends, whatever else lies about them.
        const place =
          v === start ? 0 : v === end ? SHARES : Math.min(SHARES - 1, Math.max(1, Math.floor(share * SHARES)))
        keys[i] = place * MOST_ALONG + i
      }
      keys.subarray(0, n).sort()
    }
    let before = start
    let t = s.ta[e]!
    for (let i = 1; i < n; i++) {
      const v = n > 2 ? along[from + (keys[i]! % MOST_ALONG)]! : end
      const share = ((points.x[v]! - s.ax[e]!) * dx + (points.y[v]! - s.ay[e]!) * dy) / long
      const tv = v === end ? s.tb[e]! : parameterAt(e, Math.min(1, Math.max(0, share)))
      const twin = known.find(before, v)
      if (twin >= 0) {
        met = true
        out.owners[twin] = owners.merged(out.owners[twin]!, s.owners[e]!, known.runs(twin, before) ? 1 : -1)
      } else {
        const made = out.push(
          points.x[before]!,
          points.y[before]!,
          points.x[v]!,
          points.y[v]!,
          s.curve[e]!,
          t,
          tv,
          0,
          s.owners[e]!,
        )
        out.alive[made] = 1
        known.add(made, before, v)
      }
      before = v
      t = tv
    }
  }
  return { edges: out, met }
}

/** Edges by the two points between which they run, either way; by open addressing. */
class EdgesByEnds {
  private readonly table: Int32Array
  private readonly from: Int32Array
  private readonly to: Int32Array
  private readonly mask: number
  private slot = 0

  /** @param most edges */
  constructor(most: number) {
    let n = 64
    while (n < 2 * most) n *= 2
    this.mask = n - 1
    this.table = new Int32Array(n).fill(-1)
    this.from = new Int32Array(most + 1)
    this.to = new Int32Array(most + 1)
  }

  /** The edge between two points, or -1; then `add` puts one there. */
  find(a: number, b: number): number {
    let slot = (Math.imul(a < b ? a : b, 73856093) ^ Math.imul(a < b ? b : a, 19349663)) >>> 0
    slot = (slot ^ (slot >>> 15)) & this.mask
    for (;;) {
      const e = this.table[slot]!
      if (e < 0 || (this.from[e] === a && this.to[e] === b) || (this.from[e] === b && this.to[e] === a)) {
        this.slot = slot
        return e
      }
      slot = (slot + 1) & this.mask
    }
  }

  /** Adds an edge that was looked for last, and not found. */
  add(e: number, a: number, b: number): void {
    this.table[this.slot] = e
    this.from[e] = a
    this.to[e] = b
  }

  /** Whether an edge begins at a point. */
  runs(e: number, from: number): boolean {
    return this.from[e] === from
  }
}
