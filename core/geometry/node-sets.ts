import type { Path } from './path'
import type { Vec } from './point'

/** The path with some of its nodes, and their handles, put through `map`. */
export const withNodesMapped = (path: Path, chosen: ReadonlySet<number>, map: (p: Vec) => Vec): Path => ({
  ...path,
  nodes: path.nodes.map((n, i) =>
    chosen.has(i) ? { ...n, at: map(n.at), in: n.in && map(n.in), out: n.out && map(n.out) } : n,
  ),
})

export type Alignment = 'left' | 'centre' | 'right' | 'top' | 'middle' | 'bottom'

/** Steps that bring points onto one upright or level line: of their own outermost ones, or midway between these. */
export function aligning(points: readonly Vec[], to: Alignment): Vec[] {
  const k = to === 'left' || to === 'centre' || to === 'right' ? 'x' : 'y'
  const all = points.map((p) => p[k])
  const [low, high] = [Math.min(...all), Math.max(...all)]
  const goal = to === 'left' || to === 'top' ? low : to === 'right' || to === 'bottom' ? high : (low + high) / 2
  return points.map((p) => ({ x: 0, y: 0, [k]: goal - p[k] }))
}

/** Steps that space points evenly across (x) or down (y), the outermost two staying where they are. */
export function spacing(points: readonly Vec[], k: 'x' | 'y'): Vec[] {
  const order = points.map((_, i) => i).sort((a, b) => points[a]![k] - points[b]![k])
  const n = order.length
  const steps = points.map((): Vec => ({ x: 0, y: 0 }))
  if (n < 3) return steps
  const [low, high] = [points[order[0]!]![k], points[order[n - 1]!]![k]]
  order.forEach((i, rank) => (steps[i]![k] = low + ((high - low) * rank) / (n - 1) - points[i]![k]))
  return steps
}
