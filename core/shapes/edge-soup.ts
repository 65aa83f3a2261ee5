import type { Cubic } from '../geometry/cubic'

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
