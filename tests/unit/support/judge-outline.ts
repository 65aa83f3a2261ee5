import type { Line } from '#core/model/model'
import { pointAt } from '#core/geometry/cubic'
import type { Vec } from '#core/geometry/point'
import { outlineOf } from '#core/outline/expand'
import { areaOfCubics } from '#core/geometry/area'
import { FlatOutline } from './flat-outline'
import { TrueInk } from './true-ink'

/** Points of a raster, px apart; they lie askew to whole numbers. */
const RASTER = { step: 3, from: -60.37, count: 110 }

/** What the two sides of a boundary may be told apart by, px. */
const CLOSE = 5e-4

/** A little more than the tolerance, for what the judge itself may be off. */
const SLACK = 1.03

/** What is wrong with outlines of a line's ink at several tolerances, and their node counts. */
export interface Judgement {
  faults: string[]
  nodes: number[]
}

/**
 * Judges the engine's outlines of a line against the definition of its ink: every point of a raster that is farther from
 * the outline than the tolerance must be on the right side; every point of the outline must be within the tolerance of
 * the true boundary, and every point of the true boundary within the tolerance of the outline; no contour may cross
 * itself or another.
 */
export function judgeOutlines(line: Line, tolerances: readonly number[]): Judgement {
  const truth = new TrueInk(line)
  const faults: string[] = []
  const boundary = truth.candidates.filter((p) => isBoundary(truth, p))
  const raster = rasterOf(truth)
  const outlines = tolerances.map((tolerance) => outlineOf(line, tolerance))
  outlines.forEach((outline, k) => {
    const tolerance = tolerances[k]!
    const flat = new FlatOutline(outline, tolerance / 40)
    const say = (what: string, p?: Vec): void =>
      void faults.push(`at ${tolerance}: ${what}${p ? ` (${p.x.toFixed(3)}, ${p.y.toFixed(3)})` : ''}`)
    for (const c of outline.flat()) {
      for (const t of [0.21, 0.52, 0.83]) {
        const p = pointAt(c, t)
        if (!isNearBoundary(truth, p, tolerance * SLACK) && !isSlit((q) => inFlat(flat, q), p, tolerance))
          say('the outline strays from the ink', p)
      }
    }
    for (const p of boundary) {
      const d = flat.distance(p)
      if (d > tolerance * SLACK + CLOSE && !isSlit((q) => truth.has(q), p, tolerance))
        say(`the outline misses the ink by ${d.toFixed(4)}`, p)
    }
    const deepest = flat.deepestCrossing()
    if (deepest > tolerance / 20) say(`contours cross by ${deepest.toFixed(5)}`)
    if (outline.length && outline.reduce((a, c) => a + areaOfCubics(c), 0) <= 0) say('the outline is turned over')
    for (const p of wrongPoints(truth, raster, flat, tolerance)) say('a point is on the wrong side', p)
  })
  return { faults, nodes: outlines.map((o) => o.reduce((n, c) => n + c.length, 0)) }
}

const ring = (p: Vec, radius: number, n: number): Vec[] =>
  Array.from({ length: n }, (_, i) => ({
    x: p.x + radius * Math.cos((2 * Math.PI * i) / n + 0.1),
    y: p.y + radius * Math.sin((2 * Math.PI * i) / n + 0.1),
  }))

/** Whether ink and paper meet at `p`. Ink that is thinner than can be told, or a lone line of paper, is no boundary. */
function isBoundary(truth: TrueInk, p: Vec): boolean {
  if (!Number.isFinite(p.x) || !Number.isFinite(p.y)) return false
  const around = ring(p, CLOSE, 10).filter((q) => truth.has(q)).length
  return around > 0 && around < 9
}

function isNearBoundary(truth: TrueInk, p: Vec, tolerance: number): boolean {
  const inside = truth.has(p)
  const differs = (q: Vec): boolean => truth.has(q) !== inside
  if (ring(p, tolerance, 8).some(differs)) return true
  // Tips are thin: look closer, too.
  for (const share of [0.5, 0.2, 0.05, 0.01, 0.002]) if (ring(p, tolerance * share, 16).some(differs)) return true
  return ring(p, tolerance, 48).some(differs) || truth.isThinAt(p, tolerance / 5)
}

/** Whether `p` lies on a slit of paper no wider than about the tolerance: its walls may come to touch, or its end to move. */
function isSlit(has: (q: Vec) => boolean, p: Vec, tolerance: number): boolean {
  return !ring(p, 1.5 * tolerance, 24).some((q) => [q, ...ring(q, tolerance * 0.7, 6)].every((r) => !has(r)))
}

const inFlat = (flat: FlatOutline, p: Vec): boolean => flat.row(p.y, p.x, 1, 1)[0] !== 0

/** Which points of the raster lie in the ink, row by row. */
function rasterOf(truth: TrueInk): Uint8Array {
  const { step, from, count } = RASTER
  return Uint8Array.from({ length: count * count }, (_, i) =>
    truth.has({ x: from + (i % count) * step, y: from + Math.floor(i / count) * step }) ? 1 : 0,
  )
}

function* wrongPoints(truth: TrueInk, raster: Uint8Array, flat: FlatOutline, tolerance: number): Generator<Vec> {
  const { step, from, count } = RASTER
  for (let j = 0; j < count; j++) {
    const y = from + j * step
    const row = flat.row(y, from, step, count)
    for (let i = 0; i < count; i++) {
      const p = { x: from + i * step, y }
      if (raster[j * count + i] === (row[i] !== 0 ? 1 : 0) || flat.distance(p) <= tolerance * SLACK) continue
      if (!isSlit((q) => truth.has(q), p, tolerance)) yield p
    }
  }
}
