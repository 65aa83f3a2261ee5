import type { Vec } from '../geometry/point'
import { distance, dot, lerp } from '../geometry/point'
import { nearestIndex, polylineLength } from '../geometry/polyline'
import type { Chain } from './chains'

/** Ends pass each other over no more than so many times as far as they lie aside. */
const LONGEST = 5
/** They go the same way within this angle: its cosine. */
const ALIKE = Math.cos((30 * Math.PI) / 180)

/** The way of an end is looked at over so many times as far as they lie aside, at least. */
const LOOK = 2

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
  const all = new Set(chains)
  const ends = new EndCells((LONGEST + 1) * beside)
  for (const c of chains) ends.add(c)
  const open = chains.filter((c) => !c.closed)
  for (let chain = open.pop(); chain; chain = open.pop()) {
    if (!all.has(chain)) continue
    const best = bestPassing(
      chain,
      ends.near(chain).filter((c) => c !== chain && all.has(c)),
      beside,
    )
    if (!best) continue
    const one = joined(best)
    all.delete(chain)
    all.delete(best.other)
    all.add(one)
    ends.add(one)
    open.push(one)
  }
  return [...all]
}

const turned = (c: Chain): Chain => ({ ...c, points: c.points.toReversed(), from: c.to, to: c.from })

/** Where a chain and one of others pass each other over the least. */
function bestPassing(chain: Chain, others: readonly Chain[], beside: number): (Passing & { other: Chain }) | null {
  let best: (Passing & { other: Chain }) | null = null
  for (const other of others) {
    for (const [first, second] of [
      [chain, other],
      [chain, turned(other)],
      [turned(chain), other],
      [turned(chain), turned(other)],
    ] as const) {
      if (distance(first.points.at(-1)!, second.points[0]!) > (LONGEST + 1) * beside) continue
      const p = passing(first, second, beside)
      if (p && (!best || p.shared < best.shared)) best = { ...p, first, second, other }
    }
  }
  return best
}

/** Open chains by where their ends lie. */
class EndCells {
  private readonly cells = new Map<string, Chain[]>()

  constructor(private readonly size: number) {}

  add(chain: Chain): void {
    if (chain.closed) return
    for (const end of [chain.points[0]!, chain.points.at(-1)!]) {
      const key = this.key(end)
      this.cells.set(key, [...(this.cells.get(key) ?? []), chain])
    }
  }

  /** Chains an end of which lies in the cells about an end of this one. */
  near({ points }: Chain): Chain[] {
    const found = [points[0]!, points.at(-1)!].flatMap((p) =>
      [-1, 0, 1].flatMap((i) => [-1, 0, 1].flatMap((j) => this.cells.get(this.key(p, i, j)) ?? [])),
    )
    return [...new Set(found)]
  }

  private key({ x, y }: Vec, i = 0, j = 0): string {
    return `${Math.floor(x / this.size) + i} ${Math.floor(y / this.size) + j}`
  }
}

function passing(first: Chain, second: Chain, beside: number): Omit<Passing, 'first' | 'second'> | null {
  const [end, begin] = [first.points.at(-1)!, second.points[0]!]
  const [from, to] = [nearestIndex(first.points, begin), nearestIndex(second.points, end)]
  if (from === first.points.length - 1 || to === 0 || from === 0 || to === second.points.length - 1) return null
  if (distance(first.points[from]!, begin) > beside || distance(second.points[to]!, end) > beside) return null
  const [mine, yours] = [first.points.slice(from), second.points.slice(0, to + 1)]
  const shared = Math.max(polylineLength(mine), polylineLength(yours))
  if (shared > LONGEST * beside || mine.some((p) => distance(p, yours[nearestIndex(yours, p)]!) > beside)) return null
  // What they share may be no longer than a stroke is wide, and says nothing of a way then.
  const [u, v] = [
    way(last(first.points, Math.max(shared, LOOK * beside))),
    way(last(second.points.toReversed(), Math.max(shared, LOOK * beside)).toReversed()),
  ]
  return dot(u, v) >= ALIKE ? { from, to, shared } : null
}

/** The end of a chain over a length, px. */
function last(points: readonly Vec[], length: number): readonly Vec[] {
  let i = points.length - 1
  for (let s = 0; i > 0 && s < length; i--) s += distance(points[i]!, points[i - 1]!)
  return points.slice(i)
}

function way(points: readonly Vec[]): Vec {
  const [a, b] = [points[0]!, points.at(-1)!]
  const l = distance(a, b) || 1
  return { x: (b.x - a.x) / l, y: (b.y - a.y) / l }
}

function joined({ first, second, from, to }: Passing): Chain {
  const over = first.points
    .slice(from)
    .map((p, i, all) =>
      lerp(p, second.points[nearestIndex(second.points.slice(0, to + 1), p)]!, i / (all.length - 1 || 1)),
    )
  return {
    points: [...first.points.slice(0, from), ...over, ...second.points.slice(to + 1)],
    closed: false,
    from: first.from,
    to: second.to,
  }
}
