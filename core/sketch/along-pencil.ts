import FlatQueue from 'flatqueue'
import { steadied } from '../fit/steady'
import type { Vec } from '../geometry/point'
import { distance } from '../geometry/point'
import type { PencilMap } from './pencil-map'

/** A way is looked for on a grid of so many grains, and of so many cells at most. */
const CELL = 2
const MOST = 90_000
/** The way stays so far about the chord, as a share of its length. */
const ABOUT = 0.6
/** What a px without pencil costs against one on a plain line. */
const OFF = 14
/** Pencil as plain as this carries the way. */
const PLAIN = 0.3
/** Steps of the grid are evened out over so many cells. */
const STEADY = 3
/** So much of the way must lie on pencil, and it may be so many times as long as its chord. */
const ON = 0.85
const LONGEST = 2.6

/**
 * The way along the pencil from one point of the page to another, px apart as `PencilMap` is fine; null where no pencil line
 * leads from the one to the other. The cheapest of all ways on a grid (E. W. Dijkstra, A note on two problems in connexion
 * with graphs, 1959).
 */
export function wayAlongPencil(a: Vec, b: Vec, pencil: PencilMap): Vec[] | null {
  const chord = distance(a, b)
  const pad = ABOUT * chord + 4 * pencil.grain
  const [x0, y0] = [Math.min(a.x, b.x) - pad, Math.min(a.y, b.y) - pad]
  const [w, h] = [Math.abs(a.x - b.x) + 2 * pad, Math.abs(a.y - b.y) + 2 * pad]
  const cell = Math.max(CELL * pencil.grain, Math.sqrt((w * h) / MOST))
  const [nx, ny] = [Math.ceil(w / cell) + 1, Math.ceil(h / cell) + 1]
  const at = (i: number): Vec => ({ x: x0 + (i % nx) * cell, y: y0 + Math.floor(i / nx) * cell })
  const indexOf = (p: Vec): number => Math.round((p.y - y0) / cell) * nx + Math.round((p.x - x0) / cell)
  const cost = Float32Array.from(
    { length: nx * ny },
    (_, i) => 1 + OFF * (1 - Math.min(1, pencil.strengthAt(at(i)) / PLAIN)),
  )
  const from = cheapestFrom(indexOf(a), indexOf(b), cost, nx, ny)
  const way: Vec[] = []
  for (let i = indexOf(b); i >= 0; i = from[i]!) way.push(at(i))
  way.reverse()
  if (way.length < 2) return null
  ;[way[0], way[way.length - 1]] = [a, b]
  let [length, on] = [0, 0]
  for (let i = 1; i < way.length; i++) {
    const step = distance(way[i - 1]!, way[i]!)
    length += step
    if (pencil.strengthAt({ x: (way[i]!.x + way[i - 1]!.x) / 2, y: (way[i]!.y + way[i - 1]!.y) / 2 }) >= PLAIN / 2)
      on += step
  }
  return on >= ON * length && length <= LONGEST * chord ? steadied(way, STEADY) : null
}

/** For each cell the one before it on the cheapest way; -1 at the start and where none leads. */
function cheapestFrom(start: number, goal: number, cost: Float32Array, nx: number, ny: number): Int32Array {
  const far = new Float64Array(nx * ny).fill(Infinity)
  const from = new Int32Array(nx * ny).fill(-1)
  const queue = new FlatQueue<number>()
  far[start] = 0
  queue.push(start, 0)
  for (let i = queue.pop(); i !== undefined && i !== goal; i = queue.pop()) {
    const [x, y] = [i % nx, Math.floor(i / nx)]
    for (let dy = -1; dy <= 1; dy++) {
      for (let dx = -1; dx <= 1; dx++) {
        const [u, v] = [x + dx, y + dy]
        if ((!dx && !dy) || u < 0 || v < 0 || u >= nx || v >= ny) continue
        const k = v * nx + u
        const d = far[i]! + (dx && dy ? Math.SQRT2 : 1) * ((cost[i]! + cost[k]!) / 2)
        if (d >= far[k]!) continue
        far[k] = d
        from[k] = i
        queue.push(k, d)
      }
    }
  }
  return from
}
