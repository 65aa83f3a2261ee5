import type { Vec } from '../geometry/point'
import { distance, dot, lerp } from '../geometry/point'
import { polylineLength } from '../geometry/polyline'
import type { Chain } from './chains'

/** Ends pass each other over no more than so many times as far as they lie aside. */
const LONGEST = 5
/** They go the same way within this angle: its cosine. */
const ALIKE = Math.cos((30 * Math.PI) / 180)

/** One chain's end that lies beside another's beginning: `from` on the first, `to` on the second the last places that they share. */
interface Passing {
  first: Chain
  second: Chain
  /** Points of the first from here on, and of the second up to there, lie beside each other. */
  from: number
  to: number
  /** Length of what they share, px. */
  shared: number
}

/**
 * Chains whose ends run past each other, as where a hand lifted and began again a little before, as one: over the stretch that
 * both have, the way goes from the one over to the other.
 *
 * @param beside how far strokes of one line lie from each other at most, px
 */
export function withoutPassing(chains: readonly Chain[], beside: number): Chain[] {
  let all = [...chains]
  for (let found = true; found; ) {
    found = false
    const open = all.filter((c) => !c.closed)
    let best: Passing | null = null
    for (const a of open) {
      for (const b of open) {
        if (a === b || !mayPass(a, b, beside)) continue
        for (const [first, second] of [[a, b], [a, turned(b)], [turned(a), b], [turned(a), turned(b)]] as const) {
          const p = passing(first, second, beside)
          if (p && (!best || p.shared < best.shared)) best = { ...p, first, second }
        }
      }
    }
    if (!best) break
    const { first, second } = best
    const isOf = (c: Chain, d: Chain): boolean => c === d || (c.points[0] === d.points.at(-1) && c.points.at(-1) === d.points[0])
    all = [...all.filter((c) => !isOf(c, first) && !isOf(c, second)), joined(best)]
    found = true
  }
  return all
}

const turned = (c: Chain): Chain => ({ ...c, points: c.points.toReversed(), from: c.to, to: c.from })

/** Whether an end of one lies near an end of the other at all. */
function mayPass(a: Chain, b: Chain, beside: number): boolean {
  const reach = (LONGEST + 1) * beside
  return [a.points[0]!, a.points.at(-1)!].some((p) => [b.points[0]!, b.points.at(-1)!].some((q) => distance(p, q) <= reach))
}

const nearest = (points: readonly Vec[], p: Vec): number => points.reduce((best, q, i) => (distance(p, q) < distance(p, points[best]!) ? i : best), 0)

function passing(first: Chain, second: Chain, beside: number): Omit<Passing, 'first' | 'second'> | null {
  const [end, begin] = [first.points.at(-1)!, second.points[0]!]
  const [from, to] = [nearest(first.points, begin), nearest(second.points, end)]
  if (from === first.points.length - 1 || to === 0 || from === 0 || to === second.points.length - 1) return null
  if (distance(first.points[from]!, begin) > beside || distance(second.points[to]!, end) > beside) return null
  const [mine, yours] = [first.points.slice(from), second.points.slice(0, to + 1)]
  const shared = Math.max(polylineLength(mine), polylineLength(yours))
  if (shared > LONGEST * beside || mine.some((p) => distance(p, yours[nearest(yours, p)]!) > beside)) return null
  const [u, v] = [way(mine), way(yours)]
  return dot(u, v) >= ALIKE ? { from, to, shared } : null
}

function way(points: readonly Vec[]): Vec {
  const [a, b] = [points[0]!, points.at(-1)!]
  const l = distance(a, b) || 1
  return { x: (b.x - a.x) / l, y: (b.y - a.y) / l }
}

function joined({ first, second, from, to }: Passing): Chain {
  const over = first.points.slice(from).map((p, i, all) => lerp(p, second.points[nearest(second.points.slice(0, to + 1), p)]!, i / (all.length - 1 || 1)))
  return { points: [...first.points.slice(0, from), ...over, ...second.points.slice(to + 1)], closed: false, from: first.from, to: second.to }
}
