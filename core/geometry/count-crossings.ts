import type { Vec } from './point'

/**
 * How often closed polygons cross themselves and each other, counted no farther than to `most`: enough to say whether
 * something is too tangled before it is worked out. Edges are gone through from left to right.
 */
export function countCrossings(polygons: readonly (readonly Vec[])[], most: number): number {
  const edges = polygons.flatMap((points) => points.map((a, i) => ({ a, b: points[(i + 1) % points.length]! })))
  const sorted = edges
    .map(({ a, b }) => ({
      a,
      b,
      from: Math.min(a.x, b.x),
      to: Math.max(a.x, b.x),
      top: Math.min(a.y, b.y),
      bottom: Math.max(a.y, b.y),
    }))
    .sort((p, q) => p.from - q.from)
  let count = 0
  for (let i = 0; i < sorted.length; i++) {
    const e = sorted[i]!
    for (let k = i + 1; k < sorted.length && sorted[k]!.from <= e.to; k++) {
      const f = sorted[k]!
      if (f.top <= e.bottom && f.bottom >= e.top && crosses(e.a, e.b, f.a, f.b) && ++count >= most) return count
    }
  }
  return count
}

const side = (a: Vec, b: Vec, p: Vec): number => (b.x - a.x) * (p.y - a.y) - (b.y - a.y) * (p.x - a.x)

const crosses = (a: Vec, b: Vec, c: Vec, d: Vec): boolean =>
  side(a, b, c) * side(a, b, d) < 0 && side(c, d, a) * side(c, d, b) < 0
