import Flatbush from 'flatbush'
import { VertexIds } from './merge-edges'
import type { EdgeSoup } from './edge-soup'

/**
 * The planar map of split edges, each with the change of winding number across it. Half-edge 2e runs along soup edge e,
 * 2e + 1 against it. "Left" is the side towards which x turns to y.
 */
export interface PlanarMap {
  vertexX: number[]
  vertexY: number[]
  /** Vertex at the start of each half-edge. */
  origin: Int32Array
  /** Winding number to the left of each half-edge less that to the right. */
  delta: Int32Array
  /** Half-edges out of vertex v, by rising angle: order[first[v]] .. order[first[v + 1] - 1]. */
  first: Int32Array
  order: Int32Array
  /** Place of each half-edge in `order`. */
  place: Int32Array
  /** Winding number to the left of each half-edge. */
  winding: Int32Array
}

/** The planar map of edges that meet only at their ends, no two the same, with the winding number on every side. */
export function planarMap(soup: EdgeSoup): PlanarMap {
  const vertices = new VertexIds()
  const starts: number[] = []
  const ends: number[] = []
  for (let i = 0; i < soup.count; i++) {
    starts.push(vertices.of(soup.ax[i]!, soup.ay[i]!))
    ends.push(vertices.of(soup.bx[i]!, soup.by[i]!))
  }
  const halves = soup.count * 2
  const map: PlanarMap = {
    vertexX: vertices.x,
    vertexY: vertices.y,
    origin: new Int32Array(halves),
    delta: new Int32Array(halves),
    first: new Int32Array(vertices.x.length + 1),
    order: new Int32Array(halves),
    place: new Int32Array(halves),
    winding: new Int32Array(halves),
  }
  for (let e = 0; e < soup.count; e++) {
    map.origin[2 * e] = starts[e]!
    map.origin[2 * e + 1] = ends[e]!
    map.delta[2 * e] = soup.net[e]!
    map.delta[2 * e + 1] = -soup.net[e]!
  }
  sortAroundVertices(map)
  spreadWinding(map)
  return map
}

const dx = (m: PlanarMap, h: number): number => m.vertexX[m.origin[h ^ 1]!]! - m.vertexX[m.origin[h]!]!
const dy = (m: PlanarMap, h: number): number => m.vertexY[m.origin[h ^ 1]!]! - m.vertexY[m.origin[h]!]!

function sortAroundVertices(m: PlanarMap): void {
  const halves = m.origin.length
  for (let h = 0; h < halves; h++) m.first[m.origin[h]! + 1]!++
  for (let v = 0; v + 1 < m.first.length; v++) m.first[v + 1]! += m.first[v]!
  const fill = m.first.slice()
  for (let h = 0; h < halves; h++) m.order[fill[m.origin[h]!]!++] = h
  const compare = (g: number, h: number): number => {
    const [gx, gy, hx, hy] = [dx(m, g), dy(m, g), dx(m, h), dy(m, h)]
    const gHalf = gy < 0 || (gy === 0 && gx < 0) ? 1 : 0
    const hHalf = hy < 0 || (hy === 0 && hx < 0) ? 1 : 0
    return gHalf - hHalf || gy * hx - gx * hy
  }
  for (let v = 0; v + 1 < m.first.length; v++) {
    const from = m.first[v]!
    const to = m.first[v + 1]!
    if (to - from > 1) m.order.subarray(from, to).sort(compare)
  }
  for (let i = 0; i < halves; i++) m.place[m.order[i]!] = i
}

/**
 * Winding numbers spread over each connected part from its leftmost vertex, whose outer face is found by a ray to the
 * left through the parts already there.
 */
function spreadWinding(m: PlanarMap): void {
  const vertices = m.first.length - 1
  const seen = new Uint8Array(vertices)
  const byX = [...new Array(vertices).keys()].filter((v) => m.first[v + 1]! > m.first[v]!)
  byX.sort((a, b) => m.vertexX[a]! - m.vertexX[b]! || m.vertexY[a]! - m.vertexY[b]!)
  let index: Flatbush | null = null
  const stack: number[] = []
  for (const v of byX) {
    if (seen[v]) continue
    index ??= edgeIndex(m)
    seen[v] = 1
    // Every edge here leads right or straight on in y, so the face to the left of the last half-edge by angle before
    // the direction (-1, 0) is the outer one: that half-edge is the last of the upper half plane (dy >= 0).
    const from = m.first[v]!
    const to = m.first[v + 1]!
    let last = to - 1
    for (let i = from; i < to; i++) if (dy(m, m.order[i]!) >= 0) last = i
    m.winding[m.order[last]!] = windingLeftOf(m, index, v)
    spreadAround(m, v, last)
    stack.push(v)
    while (stack.length) {
      const u = stack.pop()!
      for (let i = m.first[u]!; i < m.first[u + 1]!; i++) {
        const h = m.order[i]!
        const w = m.origin[h ^ 1]!
        if (seen[w]) continue
        seen[w] = 1
        m.winding[h ^ 1] = m.winding[h]! - m.delta[h]!
        spreadAround(m, w, m.place[h ^ 1]!)
        stack.push(w)
      }
    }
  }
}

/** Winding of every half-edge out of `v` from that at place `known`: neighbours by angle share a face. */
function spreadAround(m: PlanarMap, v: number, known: number): void {
  const from = m.first[v]!
  const n = m.first[v + 1]! - from
  for (let k = 1; k < n; k++) {
    const before = m.order[from + ((known - from + k - 1) % n)]!
    const here = m.order[from + ((known - from + k) % n)]!
    m.winding[here] = m.winding[before]! + m.delta[here]!
  }
}

function edgeIndex(m: PlanarMap): Flatbush {
  const count = m.origin.length / 2
  const index = new Flatbush(Math.max(1, count), 16, Float64Array)
  for (let e = 0; e < count; e++) {
    const [a, b] = [m.origin[2 * e]!, m.origin[2 * e + 1]!]
    index.add(
      Math.min(m.vertexX[a]!, m.vertexX[b]!),
      Math.min(m.vertexY[a]!, m.vertexY[b]!),
      Math.max(m.vertexX[a]!, m.vertexX[b]!),
      Math.max(m.vertexY[a]!, m.vertexY[b]!),
    )
  }
  index.finish()
  return index
}

/** Winding number just left of vertex `v` by the edges that a ray from it towards -x meets. */
function windingLeftOf(m: PlanarMap, index: Flatbush, v: number): number {
  const x = m.vertexX[v]!
  const y = m.vertexY[v]!
  let winding = 0
  index.search(-Infinity, y, x, y, (e: number) => {
    const a = m.origin[2 * e]!
    const b = m.origin[2 * e + 1]!
    const [ay, by] = [m.vertexY[a]!, m.vertexY[b]!]
    if (ay <= y === by <= y) return false
    const up = by > ay ? 1 : -1
    const side = (m.vertexX[b]! - m.vertexX[a]!) * (y - ay) - (by - ay) * (x - m.vertexX[a]!)
    // The edge passes left of v when v lies to the right of its upward direction.
    if (side * up < 0) winding += -up * m.delta[2 * e]!
    return false
  })
  return winding
}
