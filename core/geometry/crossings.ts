import type { Cubic } from './cubic'
import { derivativeAt, isStraight, pointAt, reach, split } from './cubic'
import { intersectFrom } from './intersect'
import type { Vec } from './point'
import { cross, distance, dot, subtract } from './point'

/** Where two chains of cubics cross: segment and parameter on either, and the point. */
export interface Crossing {
  a: { segment: number; t: number }
  b: { segment: number; t: number }
  at: Vec
}

/** Parts this straight, px, are met as chords before Newton's method settles the place. */
const CHORD = 0.05
const DEEPEST = 24
/** Crossings nearer to each other than this on both chains are one, px. */
const SAME = 1e-4

interface Span {
  c: Cubic
  from: number
  to: number
}

/** All crossings of two chains: halving of both wherever their control polygons' boxes meet, then Newton's method. */
export function crossingsOf(a: readonly Cubic[], b: readonly Cubic[]): Crossing[] {
  const found: Crossing[] = []
  a.forEach((ca, i) => {
    b.forEach((cb, k) => {
      meet({ c: ca, from: 0, to: 1 }, { c: cb, from: 0, to: 1 }, 0, (t, u) => take(found, i, ca, t, k, cb, u))
    })
  })
  return found
}

/** Where a chain crosses itself; each crossing once, its earlier passage as `a`. A closed chain meets itself at its seam without crossing. */
export function selfCrossings(chain: readonly Cubic[], closed: boolean): Crossing[] {
  const parts = chain.flatMap((c, segment) => turningParts(c).map((s) => ({ ...s, segment })))
  const found: Crossing[] = []
  for (let i = 0; i < parts.length; i++) {
    for (let k = i + 1; k < parts.length; k++) {
      const [p, q] = [parts[i]!, parts[k]!]
      const next = k === i + 1
      const seam = closed && i === 0 && k === parts.length - 1
      // Neighbours share the point at which they meet.
      const shared = next ? p.c.p3 : seam ? p.c.p0 : null
      meet(p, q, 0, (t, u) =>
        take(found, p.segment, chain[p.segment]!, t, q.segment, chain[q.segment]!, u, (hit) =>
          isShared(hit, p, q, shared),
        ),
      )
    }
  }
  return found
}

/** Whether the place found is where two neighbouring parts meet, or is no place of theirs. */
function isShared(hit: Crossing, p: Span, q: Span, shared: Vec | null): boolean {
  const slack = 1e-3
  const within = (t: number, s: Span): boolean => t >= s.from - slack && t <= s.to + slack
  return (!!shared && distance(hit.at, shared) < SAME) || !within(hit.a.t, p) || !within(hit.b.t, q)
}

/** Parts of a cubic that each turn by less than half a circle, so that none crosses itself. */
function turningParts(c: Cubic): Span[] {
  const out: Span[] = []
  const add = (s: Span, depth: number): void => {
    if (depth > 0 && (depth > 6 || handlesTurn(s.c) < 2)) out.push(s)
    else {
      const mid = (s.from + s.to) / 2
      const [x, y] = split(s.c, 0.5)
      add({ c: x, from: s.from, to: mid }, depth + 1)
      add({ c: y, from: mid, to: s.to }, depth + 1)
    }
  }
  if (isStraight(c, 1e-9)) return [{ c, from: 0, to: 1 }]
  add({ c, from: 0, to: 1 }, 0)
  return out
}

/** How far the control polygon turns, radians: an upper bound of the curve's own turn. */
function handlesTurn({ p0, p1, p2, p3 }: Cubic): number {
  const steps = [subtract(p1, p0), subtract(p2, p1), subtract(p3, p2)].filter((s) => s.x || s.y)
  return steps.slice(1).reduce((sum, s, i) => sum + Math.abs(Math.atan2(cross(steps[i]!, s), dot(steps[i]!, s))), 0)
}

function meet(a: Span, b: Span, depth: number, take: (t: number, u: number) => void): void {
  if (apart(a.c, b.c)) return
  const [flatA, flatB] = [isStraight(a.c, CHORD), isStraight(b.c, CHORD)]
  if ((flatA && flatB) || depth >= DEEPEST) {
    const seed = chordsMeet(a.c, b.c)
    if (seed) take(a.from + (a.to - a.from) * seed.t, b.from + (b.to - b.from) * seed.u)
    return
  }
  const cutA = !flatA && (flatB || reach(a.c) >= reach(b.c))
  const whole = cutA ? a : b
  const [x, y] = split(whole.c, 0.5)
  const mid = (whole.from + whole.to) / 2
  for (const half of [
    { c: x, from: whole.from, to: mid },
    { c: y, from: mid, to: whole.to },
  ]) {
    if (cutA) meet(half, b, depth + 1, take)
    else meet(a, half, depth + 1, take)
  }
}

/** Whether the boxes of two control polygons have nothing in common. */
function apart(a: Cubic, b: Cubic): boolean {
  for (const k of ['x', 'y'] as const) {
    if (Math.max(a.p0[k], a.p1[k], a.p2[k], a.p3[k]) < Math.min(b.p0[k], b.p1[k], b.p2[k], b.p3[k]) - SAME) return true
    if (Math.max(b.p0[k], b.p1[k], b.p2[k], b.p3[k]) < Math.min(a.p0[k], a.p1[k], a.p2[k], a.p3[k]) - SAME) return true
  }
  return false
}

/** Where two chords meet, each a little longer than it is, so that no crossing falls between two of a chain. */
function chordsMeet(a: Cubic, b: Cubic): { t: number; u: number } | null {
  const da = subtract(a.p3, a.p0)
  const db = subtract(b.p3, b.p0)
  const det = cross(da, db)
  if (Math.abs(det) < 1e-12 * Math.hypot(da.x, da.y) * Math.hypot(db.x, db.y)) return null
  const gap = subtract(b.p0, a.p0)
  const t = cross(gap, db) / det
  const u = cross(gap, da) / det
  const slack = (l: number): number => (l > 0 ? (2 * CHORD) / l : 0)
  const [sa, sb] = [slack(Math.hypot(da.x, da.y)), slack(Math.hypot(db.x, db.y))]
  return t >= -sa && t <= 1 + sa && u >= -sb && u <= 1 + sb ? { t, u } : null
}

/** Settles a crossing near (t, u) of two segments, unless it is known or is none. */
function take(
  found: Crossing[],
  i: number,
  a: Cubic,
  t: number,
  k: number,
  b: Cubic,
  u: number,
  refused?: (hit: Crossing) => boolean,
): void {
  const hit = intersectFrom(a, t, b, u)
  if (!hit) return
  const inside = (v: number, c: Cubic): boolean => {
    const near = v < 0 ? distance(pointAt(c, v), c.p0) : v > 1 ? distance(pointAt(c, v), c.p3) : 0
    return near <= SAME
  }
  if (!inside(hit.t, a) || !inside(hit.u, b)) return
  const clamped = (v: number): number => Math.min(1, Math.max(0, v))
  const crossing = { a: { segment: i, t: clamped(hit.t) }, b: { segment: k, t: clamped(hit.u) }, at: hit.at }
  if (refused?.(crossing)) return
  // The same point reached along other branches of a loop is another crossing, of other directions.
  const known = found.some((f) => distance(f.at, hit.at) < SAME && alongside(f, crossing, a, b))
  if (!known) found.push(crossing)
}

const alongside = (f: Crossing, g: Crossing, a: Cubic, b: Cubic): boolean => nextTo(f.a, g.a, a) && nextTo(f.b, g.b, b)

/** Whether two places of a chain are the same, as far as their segment can tell. */
function nextTo(p: Crossing['a'], q: Crossing['a'], c: Cubic): boolean {
  if (p.segment !== q.segment) return Math.min(p.t, 1 - p.t) < 1e-6 || Math.min(q.t, 1 - q.t) < 1e-6
  const speed = Math.hypot(derivativeAt(c, q.t).x, derivativeAt(c, q.t).y)
  return Math.abs(p.t - q.t) * speed < 2 * SAME || Math.abs(p.t - q.t) < 1e-6
}
