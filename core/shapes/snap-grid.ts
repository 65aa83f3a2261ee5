import type { Cubic } from '../geometry/cubic'
import { flattenCount, pointAt } from '../geometry/cubic'
import { emptyBox, include, isEmptyBox } from '../geometry/bounds'
import type { Loop } from './loop'
import { mergeCoincident } from './merge-edges'

/** Coordinates are kept below 2^GRID_BITS so that products of differences are exact in doubles. */
const GRID_BITS = 24

/**
 * Directed edges between points of an integer grid. Every edge remembers the curve that it stands for and the
 * parameters at its two ends.
 */
export interface EdgeSoup {
  /** Grid step in px, a power of two. */
  step: number
  originX: number
  originY: number
  curves: Cubic[]
  count: number
  ax: Float64Array
  ay: Float64Array
  bx: Float64Array
  by: Float64Array
  curve: Int32Array
  ta: Float64Array
  tb: Float64Array
  /** How many times the edge is travelled, less the times it is travelled back; above 0. */
  net: Int32Array
}

/** An edge soup with room for `capacity` edges on the same grid as `like`. */
export function emptySoup(capacity: number, like: Pick<EdgeSoup, 'step' | 'originX' | 'originY' | 'curves'>): EdgeSoup {
  return {
    step: like.step,
    originX: like.originX,
    originY: like.originY,
    curves: like.curves,
    count: 0,
    ax: new Float64Array(capacity),
    ay: new Float64Array(capacity),
    bx: new Float64Array(capacity),
    by: new Float64Array(capacity),
    curve: new Int32Array(capacity),
    ta: new Float64Array(capacity),
    tb: new Float64Array(capacity),
    net: new Int32Array(capacity),
  }
}

/** Appends an edge; one whose ends coincide is dropped. */
export function pushEdge(
  soup: EdgeSoup,
  ax: number,
  ay: number,
  bx: number,
  by: number,
  curve: number,
  ta: number,
  tb: number,
  net: number,
): void {
  if (ax === bx && ay === by) return
  const i = soup.count++
  soup.ax[i] = ax
  soup.ay[i] = ay
  soup.bx[i] = bx
  soup.by[i] = by
  soup.curve[i] = curve
  soup.ta[i] = ta
  soup.tb[i] = tb
  soup.net[i] = net
}

/** The grid step as a share of the flattening tolerance: finer would only keep noise apart. */
const STEP_SHARE = 1 / 64

/**
 * Flattens loops within `tolerance` px onto a power-of-two grid of about a 64th of it, or coarser where GRID_BITS would
 * not hold the whole. Null when there is nothing.
 */
export function snapLoops(loops: readonly Loop[], tolerance: number): EdgeSoup | null {
  const box = emptyBox()
  let capacity = 0
  for (const loop of loops) {
    for (const { curve } of loop) {
      for (const p of [curve.p0, curve.p1, curve.p2, curve.p3]) include(box, p.x, p.y)
    }
  }
  if (isEmptyBox(box)) return null
  const extent = Math.max(box.maxX - box.minX, box.maxY - box.minY, 1e-9)
  const step = Math.max(2 ** Math.ceil(Math.log2(extent / 2 ** GRID_BITS)), 2 ** Math.floor(Math.log2(tolerance * STEP_SHARE)))
  const originX = Math.floor(box.minX / step)
  const originY = Math.floor(box.minY / step)
  for (const loop of loops) for (const { curve } of loop) capacity += flattenCount(curve, tolerance) + 1
  const soup = emptySoup(capacity, { step, originX, originY, curves: [] })
  const ids = new Map<Cubic, number>()
  for (const loop of loops) {
    for (const arc of loop) {
      let id = ids.get(arc.curve)
      if (id === undefined) {
        id = soup.curves.length
        soup.curves.push(arc.curve)
        ids.set(arc.curve, id)
      }
      flattenArc(soup, id, arc.t0, arc.t1, tolerance)
    }
  }
  return mergeCoincident(soup)
}

function flattenArc(soup: EdgeSoup, id: number, t0: number, t1: number, tolerance: number): void {
  const c = soup.curves[id]!
  const n = Math.max(1, Math.ceil(flattenCount(c, tolerance) * Math.abs(t1 - t0) - 1e-9))
  let x = 0
  let y = 0
  let before = t0
  for (let i = 0; i <= n; i++) {
    const t = i === n ? t1 : t0 + ((t1 - t0) * i) / n
    const p = t === 0 ? c.p0 : t === 1 ? c.p3 : pointAt(c, t)
    const gx = Math.round(p.x / soup.step) - soup.originX
    const gy = Math.round(p.y / soup.step) - soup.originY
    if (i > 0 && (gx !== x || gy !== y)) {
      pushEdge(soup, x, y, gx, gy, id, before, t, 1)
      before = t
    }
    x = gx
    y = gy
  }
}
