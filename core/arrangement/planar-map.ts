import type { Vec } from '../geometry/point'
import type { Arrangement } from './arrangement'
import type { Chains } from './chains'
import { chainsOf } from './chains'
import { halvesLeftOf } from './rays'

/**
 * The planar map of an arrangement. Half-chain 2c runs along chain c, 2c + 1 against it. "Left" is the side towards
 * which x turns to y. Face 0 is the unbounded one.
 */
export interface PlanarMap {
  arrangement: Arrangement
  chains: Chains
  /** Vertex at the start of each half-chain. */
  origin: Int32Array
  /** Half-chains out of branch vertex v, by rising angle: order[first[v]] .. order[first[v + 1] - 1]. */
  first: Int32Array
  order: Int32Array
  /** Place of each half-chain in `order`. */
  place: Int32Array
  /** The face to the left of each half-chain. */
  face: Int32Array
  faces: number
}

/** The planar map of an arrangement: half-chains in order about each vertex, and the faces between them. */
export function planarMap(arrangement: Arrangement): PlanarMap {
  const chains = chainsOf(arrangement)
  const halves = 2 * chains.count
  const map: PlanarMap = {
    arrangement,
    chains,
    origin: new Int32Array(halves),
    first: new Int32Array(chains.vertices.count + 1),
    order: new Int32Array(halves),
    place: new Int32Array(halves),
    face: new Int32Array(halves),
    faces: 1,
  }
  for (let c = 0; c < chains.count; c++) {
    map.origin[2 * c] = chains.from[chains.edges[chains.start[c]!]!]!
    map.origin[2 * c + 1] = chains.to[chains.edges[chains.start[c + 1]! - 1]!]!
  }
  sortAroundVertices(map)
  nameFaces(map)
  return map
}

/** Vertex next to the origin of half-chain `h`. */
function second({ chains }: PlanarMap, h: number): number {
  const c = h >> 1
  return h & 1 ? chains.from[chains.edges[chains.start[c + 1]! - 1]!]! : chains.to[chains.edges[chains.start[c]!]!]!
}

function sortAroundVertices(m: PlanarMap): void {
  const { x, y, count } = m.chains.vertices
  const halves = m.origin.length
  const dx = new Float64Array(halves)
  const dy = new Float64Array(halves)
  for (let h = 0; h < halves; h++) {
    const a = m.origin[h]!
    const b = second(m, h)
    dx[h] = x[b]! - x[a]!
    dy[h] = y[b]! - y[a]!
    m.first[a + 1]!++
  }
  for (let v = 0; v < count; v++) m.first[v + 1]! += m.first[v]!
  const fill = m.first.slice()
  for (let h = 0; h < halves; h++) m.order[fill[m.origin[h]!]!++] = h
  // By rising angle from (1, 0): the half plane, then the turn.
  const after = (g: number, h: number): boolean => {
    const gLow = dy[g]! < 0 || (dy[g] === 0 && dx[g]! < 0)
    const hLow = dy[h]! < 0 || (dy[h] === 0 && dx[h]! < 0)
    if (gLow !== hLow) return gLow
    return dy[g]! * dx[h]! - dx[g]! * dy[h]! > 0
  }
  for (let v = 0; v < count; v++) {
    const from = m.first[v]!
    const to = m.first[v + 1]!
    if (to - from > 32) {
      m.order.subarray(from, to).sort((g, h) => (g === h ? 0 : after(g, h) ? 1 : -1))
      continue
    }
    for (let i = from + 1; i < to; i++) {
      const h = m.order[i]!
      let k = i
      while (k > from && after(m.order[k - 1]!, h)) {
        m.order[k] = m.order[k - 1]!
        k--
      }
      m.order[k] = h
    }
  }
  for (let i = 0; i < halves; i++) m.place[m.order[i]!] = i
}

/** The half-chain that follows `h` around the face on its left: the first one clockwise of the way back. */
function following(m: PlanarMap, h: number): number {
  const back = h ^ 1
  const v = m.origin[back]!
  const at = m.place[back]!
  return m.order[at > m.first[v]! ? at - 1 : m.first[v + 1]! - 1]!
}

/** Twice the area that a chain sweeps about (ox, oy), grid units. */
function sweep({ chains }: PlanarMap, c: number, ox: number, oy: number): number {
  const { x, y } = chains.vertices
  let sum = 0
  for (let i = chains.start[c]!; i < chains.start[c + 1]!; i++) {
    const a = chains.from[chains.edges[i]!]!
    const b = chains.to[chains.edges[i]!]!
    sum += (x[a]! - ox) * (y[b]! - oy) - (x[b]! - ox) * (y[a]! - oy)
  }
  return sum
}

/**
 * Gives every face a number: walks the cycles of half-chains, one face to each of positive area. The cycle of negative
 * area is the outside of a connected part; its face is the one that a ray to the left of the part's leftmost vertex
 * first comes to.
 */
function nameFaces(m: PlanarMap): void {
  const { vertices } = m.chains
  const halves = m.origin.length
  const cycle = new Int32Array(halves).fill(-1)
  const outsides: number[] = []
  const faceOfCycle: number[] = []
  for (let h = 0; h < halves; h++) {
    if (cycle[h]! >= 0) continue
    const id = faceOfCycle.length
    const ox = vertices.x[m.origin[h]!]!
    const oy = vertices.y[m.origin[h]!]!
    let area = 0
    let g = h
    do {
      cycle[g] = id
      area += g & 1 ? -sweep(m, g >> 1, ox, oy) : sweep(m, g >> 1, ox, oy)
      g = following(m, g)
    } while (g !== h)
    if (area > 0) faceOfCycle.push(m.faces++)
    else {
      faceOfCycle.push(-1)
      outsides.push(h)
    }
  }
  if (outsides.length === 1) faceOfCycle[cycle[outsides[0]!]!] = 0
  else placeOutsides(m, outsides, cycle, faceOfCycle)
  for (let h = 0; h < halves; h++) m.face[h] = faceOfCycle[cycle[h]!]!
}

function placeOutsides(m: PlanarMap, outsides: readonly number[], cycle: Int32Array, faceOfCycle: number[]): void {
  const { vertices } = m.chains
  const left = outsides.map((h) => leftmostOf(m, h))
  const order = outsides.map((_, i) => i).sort((i, k) => vertices.x[left[i]!]! - vertices.x[left[k]!]!)
  const beside = halvesLeftOf(
    m.chains,
    left.map((v) => ({ x: vertices.x[v]!, y: vertices.y[v]! })),
  )
  for (const i of order) faceOfCycle[cycle[outsides[i]!]!] = beside[i]! < 0 ? 0 : faceOfCycle[cycle[beside[i]!]!]!
}

/** The leftmost vertex of the cycle that starts with half-chain `h`. */
function leftmostOf(m: PlanarMap, h: number): number {
  const { chains } = m
  const { x } = chains.vertices
  let best = m.origin[h]!
  let g = h
  do {
    const c = g >> 1
    for (let i = chains.start[c]!; i < chains.start[c + 1]!; i++) {
      const v = chains.from[chains.edges[i]!]!
      if (x[v]! < x[best]!) best = v
    }
    if (x[m.origin[g]!]! < x[best]!) best = m.origin[g]!
    g = following(m, g)
  } while (g !== h)
  return best
}

/** The face in which each of some points lies, px; on an edge, that of one of its sides. */
export function facesAt(m: PlanarMap, points: readonly Vec[]): Int32Array {
  const { step, originX, originY } = m.arrangement.grid
  const halves = halvesLeftOf(
    m.chains,
    points.map(({ x, y }) => ({ x: x / step - originX, y: y / step - originY })),
  )
  return halves.map((h) => (h < 0 ? 0 : m.face[h]!))
}
