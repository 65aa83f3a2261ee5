import type { Cubic } from '../geometry/cubic'
import { flattenCount, pointAt } from '../geometry/cubic'
import { emptyBox, include, isEmptyBox } from '../geometry/bounds'
import type { Loop } from './loop'
import type { EdgeSoup } from './edge-soup'
import { emptySoup, pushEdge } from './edge-soup'
import { mergeCoincident } from './merge-edges'

/** Coordinates are kept below 2^GRID_BITS so that products of differences are exact in doubles. */
const GRID_BITS = 24

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
