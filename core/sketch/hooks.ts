import type { Vec } from '../geometry/point'
import { distance } from '../geometry/point'
import { polylineLength } from '../geometry/polyline'
import type { Chain } from './chains'

/** An end that turns by more than this within its bundle's width is a hook: the cosine. */
const TURN = Math.cos(Math.PI / 4)
/** Lines shorter than so many widths of their bundle lie across its end. */
const SHORTEST = 1.3
/** Bundles narrower than this have no hooks, px. */
const NARROW = 3

/**
 * Chains without what lies across the ragged ends of bundles: short ones go, and ends that turn aside within the width
 * of the bundle are cut off where they turn.
 *
 * @param across how wide the bundle is at a place, px; 0 where a stroke lies alone
 */
export function withoutHooks(chains: readonly Chain[], across: (p: Vec) => number): Chain[] {
  return chains.flatMap((chain): Chain[] => {
    if (chain.closed) return [chain]
    const widest = chain.points.reduce((w, p) => Math.max(w, across(p)), 0)
    if (widest < NARROW) return [chain]
    if (polylineLength(chain.points) < SHORTEST * widest) return []
    const start = chain.from < 0 ? cutAtTurn(chain.points, widestAt(chain.points, across)) : chain.points
    const back = start.toReversed()
    const points = (chain.to < 0 ? cutAtTurn(back, widestAt(back, across)) : back).toReversed()
    return points.length > 1 ? [{ ...chain, points }] : []
  })
}

const widestAt = (points: readonly Vec[], across: (p: Vec) => number): number =>
  points.slice(0, 12).reduce((w, p) => Math.max(w, across(p)), 0)

/** Points from where the first of them go the way of what follows, looked at over a width of `reach` px. */
function cutAtTurn(points: Vec[], reach: number): Vec[] {
  if (reach < NARROW) return points
  const lengths = [0]
  points.slice(1).forEach((p, i) => lengths.push(lengths[i]! + distance(p, points[i]!)))
  const at = (s: number): number =>
    Math.max(
      1,
      lengths.findIndex((l) => l >= s),
    )
  if (lengths.at(-1)! < 3 * reach) return points
  const [near, far] = [points[at(1.2 * reach)]!, points[at(2.4 * reach)]!]
  const way = { x: (far.x - near.x) / distance(near, far), y: (far.y - near.y) / distance(near, far) }
  for (let i = at(reach); i >= 1; i--) {
    const [p, q] = [points[Math.max(0, i - 2)]!, points[Math.min(points.length - 1, i + 2)]!]
    if ((q.x - p.x) * way.x + (q.y - p.y) * way.y < TURN * distance(p, q)) return points.slice(i)
  }
  return points
}
