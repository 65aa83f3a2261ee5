import type { Path } from '#core/geometry/path'
import type { Vec } from '#core/geometry/point'
import { ArcLength } from '#core/geometry/arc-length'
import { cubicsOfPath } from '#core/geometry/path'

/** How lines that were found lie against those that were drawn, px of the page. */
export interface Judged {
  recall: number
  precision: number
  median: number
  /** Nodes found for each of those that were drawn. */
  nodes: number
  /** The share of junctions that a found one lies near to; and how many were looked for. */
  junctions: number
  sought: number
}

/** Within so many px lines, and junctions, count as found. */
const NEAR = 2
const JUNCTION = 3

const arcs = (paths: readonly Path[]): ArcLength[] =>
  paths.filter((p) => p.nodes.length > 1).map((p) => new ArcLength(cubicsOfPath(p)))

/** Places along paths, `step` px apart. */
export const placesOn = (paths: readonly Path[], step: number): Vec[] =>
  arcs(paths).flatMap((a) =>
    Array.from({ length: Math.max(1, Math.floor(a.total / step)) }, (_, i) => a.point((i + 0.5) * step)),
  )

/** How far each place is from the nearest of others, px, by cells; 16 where it is farther. */
export function distances(from: readonly Vec[], to: readonly Vec[]): number[] {
  const cells = new Map<string, Vec[]>()
  const cell = (p: Vec, i = 0, k = 0): string => `${Math.floor(p.x / 16) + i} ${Math.floor(p.y / 16) + k}`
  for (const p of to) cells.set(cell(p), [...(cells.get(cell(p)) ?? []), p])
  return from.map((p) =>
    Math.min(
      16,
      ...[-1, 0, 1]
        .flatMap((i) => [-1, 0, 1].flatMap((k) => cells.get(cell(p, i, k)) ?? []))
        .map((q) => Math.hypot(q.x - p.x, q.y - p.y)),
    ),
  )
}
export const share = (all: readonly number[], most: number): number =>
  all.filter((d) => d <= most).length / (all.length || 1)
export const median = (all: readonly number[]): number => all.toSorted((a, b) => a - b)[all.length >> 1] ?? Infinity

/** Where three ways or more come together: an end upon the body of another line, or two bodies that cross. Lines that run together meet where they part. */
function junctionsOf(paths: readonly Path[]): Vec[] {
  const reach = 1
  const all = arcs(paths.filter((p) => p.nodes.length > 1))
  const open = paths.filter((p) => p.nodes.length > 1).map((p) => !p.closed)
  const found: Vec[] = []
  const add = (p: Vec): void => {
    if (found.every((q) => Math.hypot(q.x - p.x, q.y - p.y) > 2 * reach)) found.push(p)
  }
  all.forEach((a, i) => {
    if (open[i]) {
      for (const s of [0, a.total]) {
        const p = a.point(s)
        all.forEach((b, k) => {
          if (k === i) return
          const hit = b.nearest(p)
          const inBody = !open[k] || (hit.length > 2 * reach && hit.length < b.total - 2 * reach)
          if (hit.distance <= reach && inBody)
            add({ x: (p.x + b.point(hit.length).x) / 2, y: (p.y + b.point(hit.length).y) / 2 })
        })
      }
    }
    all.forEach((b, k) => {
      if (k > i) for (const p of crossings(a, b, 2 * reach)) add(p)
    })
  })
  return found
}

/** Whether two ways cross at 20 degrees or more: lines that run together cross nowhere that could be told. */
function isPlain(a: Vec, b: Vec, c: Vec, d: Vec): boolean {
  const [u, v] = [
    { x: b.x - a.x, y: b.y - a.y },
    { x: d.x - c.x, y: d.y - c.y },
  ]
  return Math.abs(u.x * v.y - u.y * v.x) >= Math.sin(Math.PI / 9) * Math.hypot(u.x, u.y) * Math.hypot(v.x, v.y)
}

/** Where two lines plainly cross, away from their ends, by steps of a px. */
function crossings(a: ArcLength, b: ArcLength, away: number): Vec[] {
  const points = (arc: ArcLength): Vec[] =>
    Array.from({ length: Math.max(2, Math.ceil(arc.total / 2) + 1) }, (_, i) =>
      arc.point((i * arc.total) / Math.max(1, Math.ceil(arc.total / 2))),
    )
  const [p, q] = [points(a), points(b)]
  const out: Vec[] = []
  const side = (o: Vec, u: Vec, v: Vec): number => (u.x - o.x) * (v.y - o.y) - (u.y - o.y) * (v.x - o.x)
  for (let i = 0; i + 1 < p.length; i++) {
    if (i * 2 < away || (p.length - i) * 2 < away) continue
    for (let k = 0; k + 1 < q.length; k++) {
      if (k * 2 < away || (q.length - k) * 2 < away) continue
      if (Math.abs(p[i]!.x - q[k]!.x) > 4 || Math.abs(p[i]!.y - q[k]!.y) > 4) continue
      if (
        side(p[i]!, p[i + 1]!, q[k]!) * side(p[i]!, p[i + 1]!, q[k + 1]!) < 0 &&
        side(q[k]!, q[k + 1]!, p[i]!) * side(q[k]!, q[k + 1]!, p[i + 1]!) < 0 &&
        isPlain(p[i]!, p[i + 1]!, q[k]!, q[k + 1]!)
      )
        out.push(p[i]!)
    }
  }
  return out
}

/** How many ways out of a place lines have: two where one passes it, one where one ends. */
function waysAt(lines: readonly { arc: ArcLength; closed: boolean }[], p: Vec): number {
  return lines.reduce((n, { arc, closed }) => {
    // A line may come by more than once.
    const passes = Array.from(
      { length: Math.ceil(arc.total) + 1 },
      (_, s) =>
        Math.hypot(arc.point(Math.min(s, arc.total)).x - p.x, arc.point(Math.min(s, arc.total)).y - p.y) <= JUNCTION,
    )
    let ways = 0
    passes.forEach((near, s) => {
      if (!near || (s > 0 && passes[s - 1])) return
      let end = s
      while (passes[end + 1]) end++
      ways += (s > 0 || closed ? 1 : 0) + (end < passes.length - 1 || closed ? 1 : 0)
    })
    return n + ways
  }, 0)
}

/** Lines that were found against those that were drawn, both on the page. */
export function judged(found: readonly Path[], drawn: readonly Path[]): Judged {
  const missed = distances(placesOn(drawn, 1), placesOn(found, 0.5))
  const wrong = distances(placesOn(found, 2), placesOn(drawn, 0.25))
  const count = (paths: readonly Path[]): number => paths.reduce((n, p) => n + p.nodes.length, 0)
  const sought = junctionsOf(drawn)
  const lines = arcs(found).map((arc) => ({ arc, closed: false }))
  found.filter((p) => p.nodes.length > 1).forEach((p, i) => (lines[i]!.closed = p.closed))
  const hit = sought.filter((p) => waysAt(lines, p) >= 3).length
  return {
    recall: share(missed, NEAR),
    precision: share(wrong, NEAR),
    median: median(wrong),
    nodes: count(found) / count(drawn),
    junctions: sought.length ? hit / sought.length : 1,
    sought: sought.length,
  }
}
