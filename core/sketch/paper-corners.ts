import type { Vec } from '../geometry/point'
import { cross, distance, subtract } from '../geometry/point'
import { smoothed } from './gaussian'
import type { GreyImage } from './grey-image'
import { checkImage, reduced } from './grey-image'
import type { Quad } from './perspective'
import { isConvex, mapQuad } from './perspective'

/** The paper is looked for in a picture of this size, px of the longer side. */
const SIZE = 480
/** It takes up at least this share of the picture, and less than the other of its border. */
const LEAST = 0.15
const MOST_OF_BORDER = 0.6
/** A side is fitted to the edge between these shares of it: corners may be bent or rounded. */
const INNER = [0.08, 0.92] as const
/** Looked for so far on either side of where it should be, px, in so many places. */
const ACROSS = 9
const PLACES = 60

/**
 * The corners of the sheet of paper in a photo, clockwise from the left upper one, px of the picture; null where no sheet lies
 * there on something darker. The light region that is largest (threshold after N. Otsu, A threshold selection method from
 * gray-level histograms, 1979), its four outermost corners, and its sides fitted to where the picture changes most.
 *
 * @throws InputError for a picture that is impossible
 */
export function findPaper(image: GreyImage): Quad | null {
  checkImage(image)
  if (image.width < 32 || image.height < 32) return null
  const { field, scale } = reduced(image, SIZE)
  const { width, height, values } = smoothed(field, 1.2)
  const sheet = largestLight(values, width, height)
  if (!sheet) return null
  const rough = outermost(hullOf(sheet, width))
  if (!rough) return null
  const sides = rough.map((p, i) => sideFitted(p, rough[(i + 1) % 4]!, values, width, height))
  const corners = mapQuad(rough, (p, i) => meeting(sides[(i + 3) % 4]!, sides[i]!) ?? p)
  const fine = mapQuad(corners, (p, i) => (distance(p, rough[i]!) < ACROSS * 2 ? p : rough[i]!))
  if (!isConvex(fine)) return null
  return fromLeftUpper(mapQuad(fine, (p) => ({ x: p.x * scale, y: p.y * scale })))
}

/** Px of the largest connected part of what is light; null where that is no sheet on something darker. */
function largestLight(values: Float32Array, width: number, height: number): number[] | null {
  const light = thresholdOf(values)
  const seen = new Uint8Array(values.length)
  let best: number[] = []
  for (let start = 0; start < values.length; start++) {
    if (seen[start] || values[start]! < light) continue
    const part = [start]
    seen[start] = 1
    for (let n = 0; n < part.length; n++) {
      const i = part[n]!
      const x = i % width
      for (const k of [x > 0 ? i - 1 : -1, x < width - 1 ? i + 1 : -1, i - width, i + width]) {
        if (k < 0 || k >= values.length || seen[k] || values[k]! < light) continue
        seen[k] = 1
        part.push(k)
      }
    }
    if (part.length > best.length) best = part
  }
  const border = best.filter(
    (i) => i % width === 0 || i % width === width - 1 || i < width || i >= values.length - width,
  ).length
  return best.length >= LEAST * values.length && border < MOST_OF_BORDER * 2 * (width + height) ? best : null
}

/** The grey that parts light from dark best. */
function thresholdOf(values: Float32Array): number {
  const counts = new Float64Array(256)
  for (const v of values) counts[Math.min(255, Math.max(0, Math.round(v)))]!++
  const total = values.length
  let all = 0
  for (let i = 0; i < 256; i++) all += i * counts[i]!
  let [below, sum, best, at] = [0, 0, -1, 128]
  for (let i = 0; i < 256; i++) {
    below += counts[i]!
    sum += i * counts[i]!
    if (!below || below === total) continue
    const d = sum / below - (all - sum) / (total - below)
    const between = below * (total - below) * d * d
    if (between > best) [best, at] = [between, i]
  }
  return at + 1
}

/** The convex hull of px, clockwise on the screen (A. Andrew, Another efficient algorithm for convex hulls in two dimensions, 1979). */
function hullOf(pixels: readonly number[], width: number): Vec[] {
  const first = new Map<number, [number, number]>()
  for (const i of pixels) {
    const [x, y] = [i % width, Math.floor(i / width)]
    const row = first.get(y)
    if (!row) first.set(y, [x, x])
    else [row[0], row[1]] = [Math.min(row[0], x), Math.max(row[1], x)]
  }
  const points = [...first]
    .flatMap(([y, [a, b]]): Vec[] => [
      { x: a + 0.5, y: y + 0.5 },
      { x: b + 0.5, y: y + 0.5 },
    ])
    .sort((p, q) => p.x - q.x || p.y - q.y)
  const half = (all: readonly Vec[]): Vec[] => {
    const out: Vec[] = []
    for (const p of all) {
      while (out.length > 1 && cross(subtract(out.at(-1)!, out.at(-2)!), subtract(p, out.at(-1)!)) <= 0) out.pop()
      out.push(p)
    }
    return out.slice(0, -1)
  }
  return [...half(points), ...half(points.toReversed())]
}

/** The four points of a hull that span the largest quad: two farthest from each other, and those farthest on either side, made better one by one. */
function outermost(hull: readonly Vec[]): Quad | null {
  if (hull.length < 4) return null
  const area = ([a, b, c, d]: Quad): number => cross(subtract(c, a), subtract(d, b)) / 2
  const far = (from: Vec, of: (p: Vec) => number): Vec => hull.reduce((best, p) => (of(p) > of(best) ? p : best), from)
  const a = far(hull[0]!, (p) => distance(p, hull[0]!))
  const c = far(a, (p) => distance(p, a))
  const chord = subtract(c, a)
  let quad: Quad = [a, far(a, (p) => -cross(chord, subtract(p, a))), c, far(a, (p) => cross(chord, subtract(p, a)))]
  for (let better = true; better;) {
    better = false
    for (let i = 0; i < 4; i++) {
      for (const p of hull) {
        const next = mapQuad(quad, (q, k) => (k === i ? p : q))
        if (area(next) > area(quad) + 1e-6) [quad, better] = [next, true]
      }
    }
  }
  return isConvex(quad) ? quad : null
}

/** A line, by a point and a direction. */
interface Side {
  at: Vec
  way: Vec
}

/** A side of the sheet, put where the picture changes most from outside to inside, by least squares of places across it; strays left out. */
function sideFitted(a: Vec, b: Vec, values: Float32Array, width: number, height: number): Side {
  const l = distance(a, b) || 1
  const way = { x: (b.x - a.x) / l, y: (b.y - a.y) / l }
  const inward = { x: -way.y, y: way.x }
  const value = (p: Vec): number =>
    values[
      Math.min(height - 1, Math.max(0, Math.floor(p.y))) * width + Math.min(width - 1, Math.max(0, Math.floor(p.x)))
    ]!
  const offs: { s: number; off: number }[] = []
  for (let i = 0; i <= PLACES; i++) {
    const s = (INNER[0] + ((INNER[1] - INNER[0]) * i) / PLACES) * l
    let best = { off: 0, rise: 0 }
    for (let off = -ACROSS; off <= ACROSS; off += 0.5) {
      const at = (k: number): Vec => ({
        x: a.x + way.x * s + inward.x * (off + k),
        y: a.y + way.y * s + inward.y * (off + k),
      })
      const rise = value(at(1.5)) - value(at(-1.5))
      if (rise > best.rise) best = { off, rise }
    }
    if (best.rise > 0) offs.push({ s, off: best.off })
  }
  let kept = offs
  let fit = { slope: 0, off: 0 }
  for (let turn = 0; turn < 4 && kept.length > 4; turn++) {
    fit = straightThrough(kept)
    kept = offs.filter(({ s, off }) => Math.abs(off - fit.off - fit.slope * s) < 3 / (turn + 1))
  }
  return {
    at: { x: a.x + inward.x * fit.off, y: a.y + inward.y * fit.off },
    way: { x: way.x + inward.x * fit.slope, y: way.y + inward.y * fit.slope },
  }
}

function straightThrough(places: readonly { s: number; off: number }[]): { slope: number; off: number } {
  const n = places.length
  const [s, o] = [places.reduce((t, p) => t + p.s, 0) / n, places.reduce((t, p) => t + p.off, 0) / n]
  const [ss, so] = places.reduce(([a, b], p) => [a + (p.s - s) ** 2, b + (p.s - s) * (p.off - o)], [0, 0])
  const slope = ss > 0 ? so / ss : 0
  return { slope, off: o - slope * s }
}

function meeting(p: Side, q: Side): Vec | null {
  const turn = cross(p.way, q.way)
  if (Math.abs(turn) < 0.05 * Math.hypot(p.way.x, p.way.y) * Math.hypot(q.way.x, q.way.y)) return null
  const t = cross(subtract(q.at, p.at), q.way) / turn
  return { x: p.at.x + p.way.x * t, y: p.at.y + p.way.y * t }
}

/** Begun at the corner nearest to the left upper one of the picture. */
function fromLeftUpper(quad: Quad): Quad {
  const first = quad.map((p) => p.x + p.y).reduce((best, v, i, all) => (v < all[best]! ? i : best), 0)
  return mapQuad(quad, (_, i) => quad[(first + i) % 4]!)
}
