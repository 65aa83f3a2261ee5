import { evenlySpaced } from '../fit/steady'
import { boxOfPoints, grown, isWithin } from '../geometry/bounds'
import { cubic, pointAt } from '../geometry/cubic'
import type { Vec } from '../geometry/point'
import { along, direction, distance, dot, subtract } from '../geometry/point'
import { nearestIndex } from '../geometry/polyline'
import type { Chain } from './chains'
import type { Field } from './grey-image'
import { between } from './pencil'

/** An end no farther from another chain than so many scales joins it. */
const JOINS = 2.4
/** Two lines closer than so many scales are one crest, which swerves between them. */
const APART = 3
/** They may run so close together over no more than so many scales. */
const LONGEST = 24
/** The way of a line is looked at over so many scales beyond that. */
const LOOK = 6
/** And so much of that way before they are. */
const BEFORE = 0.7
/** Drawn on, an end comes to the other line within this share of the way on which they were one crest, and so many scales. */
const ON = 1.25
const MORE = 2
/** There is pencil where the new way leads, by this share of what there is along the old. */
const DARK = 0.75

/**
 * Chains that keep their way where they join each other: lines closer than a crest is wide are one crest between them, so that
 * both swerve where one joins the other at a slant. The joining one is led on as it came from beyond that stretch until it meets
 * the other, and the other goes straight through, both where the pencil bears it out. After M. Bessmeltsev and J. Solomon,
 * Vectorization of line drawings via polyvector fields (2019), who keep two directions at such a place.
 *
 * @param sigma the scale of the crests, px
 */
export function straightThrough(chains: readonly Chain[], pencil: Field, sigma: number): Chain[] {
  const out = chains.map((c) => ({ ...c, points: evenlySpaced(c.points, 1) }))
  const boxes = out.map(({ points }) => grown(boxOfPoints(points), JOINS * sigma))
  for (const [i, chain] of out.entries()) {
    if (chain.closed) continue
    for (const turned of [false, true]) {
      const mine = turned ? chain.points.toReversed() : chain.points
      const k = hostOf(i, mine[0]!)
      if (k === null) continue
      const kept = joined(mine, out[k]!, pencil, sigma)
      if (!kept) continue
      out[k]!.points = kept.other
      chain.points = turned ? kept.mine.toReversed() : kept.mine
    }
  }
  return out

  /** The chain that an end joins; null where none is near. */
  function hostOf(own: number, end: Vec): number | null {
    let best: { k: number; far: number } | null = null
    for (const [k, { points }] of out.entries()) {
      if (k === own || !isWithin(end, boxes[k]!)) continue
      const far = distance(points[nearestIndex(points, end)]!, end)
      if (far <= JOINS * sigma && (!best || far < best.far)) best = { k, far }
    }
    return best && best.k
  }
}

/** Both lines with their ways kept, the joining one from its end on; null where they cannot be told, or there is no pencil. */
function joined(mine: readonly Vec[], host: Chain, pencil: Field, sigma: number): { mine: Vec[]; other: Vec[] } | null {
  const look = Math.round(LOOK * sigma)
  const foot = partsFrom(mine, host.points, sigma)
  if (foot === null || foot + look >= mine.length) return null
  const other = passedOver(host, nearestIndex(host.points, mine[0]!), nearestIndex(host.points, mine[foot]!), sigma)
  const way = direction(subtract(mine[foot]!, mine[foot + look]!))
  if (!way) return null
  const longest = ON * foot + MORE * sigma
  let best: { at: Vec; off: number } | null = null
  for (let s = 0; s <= longest; s += 0.5) {
    const p = along(mine[foot]!, way, s)
    const q = other[nearestIndex(other, p)]!
    const off = distance(p, q)
    if (off <= 0.75 && (!best || off < best.off)) best = { at: q, off }
    else if (best) break
  }
  if (!best) return null
  const led = evenlySpaced([best.at, mine[foot]!], 1)
  const moved = other.flatMap((p, i) => (p === host.points[i] ? [] : [i]))
  const isBorneOut = (now: readonly Vec[], was: readonly Vec[]): boolean =>
    darkness(now, pencil) >= DARK * darkness(was, pencil)
  if (
    !isBorneOut(led, mine.slice(0, foot + 1)) ||
    !isBorneOut(
      moved.map((i) => other[i]!),
      moved.map((i) => host.points[i]!),
    )
  )
    return null
  return { mine: [...led, ...mine.slice(foot + 1)], other }
}

/** The point of a line from which on it lies apart from another; null where it does not soon. */
function partsFrom(mine: readonly Vec[], other: readonly Vec[], sigma: number): number | null {
  for (let i = 0; i < Math.min(mine.length, LONGEST * sigma); i++)
    if (distance(other[nearestIndex(other, mine[i]!)]!, mine[i]!) > APART * sigma) return i
  return null
}

/** A line that goes smoothly from before the stretch on which another was one crest with it to beyond. */
function passedOver({ points, closed }: Chain, at: number, foot: number, sigma: number): Vec[] {
  const look = Math.round(LOOK * sigma)
  const ahead = foot >= at ? 1 : -1
  // What comes together ends where the crests do; the lines themselves meet before that.
  const before = Math.round(Math.max(sigma, BEFORE * Math.abs(foot - at)))
  const [from, to] = [at - ahead * before, foot + ahead * Math.round(sigma)].sort((a, b) => a - b) as [number, number]
  if (closed || to - from > 2 * LONGEST * sigma || from - look < 0 || to + look >= points.length) return [...points]
  const [a, b] = [points[from]!, points[to]!]
  const [u, v] = [direction(subtract(a, points[from - look]!)), direction(subtract(points[to + look]!, b))]
  if (!u || !v || dot(u, v) < 0.5) return [...points]
  const l = distance(a, b) / 3
  const way = cubic(a, along(a, u, l), along(b, v, -l), b)
  const n = to - from
  const over = Array.from({ length: n - 1 }, (_, i) => pointAt(way, (i + 1) / n))
  return [...points.slice(0, from + 1), ...over, ...points.slice(to)]
}

/** How much pencil there is along points on the whole, 0..1. */
const darkness = (points: readonly Vec[], pencil: Field): number =>
  points.reduce((n, { x, y }) => n + between(pencil, x, y), 0) / (points.length || 1)
