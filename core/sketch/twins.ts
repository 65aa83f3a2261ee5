import type { Vec } from '../geometry/point'
import { direction, distance, dot, lerp, subtract } from '../geometry/point'
import { nearestIndex, polylineLength } from '../geometry/polyline'
import type { Chain } from './chains'

/** Longer than so many times as far as it lies aside a line is one of its own. */
const LONGEST = 16
/** A strand that leaves a line and ends in the open beside it is no longer than so many times that, and goes its way within this angle: its cosine. */
const LOOSE = 3.5
const ALIKE = Math.cos((25 * Math.PI) / 180)

/**
 * Chains without twins: where a line was drawn twice over a stretch, both sides of the gap between its strokes are crests. What
 * leaves another chain and comes back to it, or ends soon beside it, and lies no farther aside than strokes of one line do,
 * goes, and the other takes the way between them.
 *
 * @param beside how far strokes of one line lie from each other at most, px
 * @param meets an end no farther from a chain is on it, px
 */
export function withoutTwins(chains: readonly Chain[], { beside, meets }: { beside: number; meets: number }): Chain[] {
  const out = chains.map((c) => ({ ...c, points: [...c.points] }))
  const gone = new Set<number>()
  const cells = cellsOf(chains, beside)
  const order = chains
    .map((c, i) => ({ i, length: polylineLength(c.points) }))
    .filter(({ i, length }) => !chains[i]!.closed && length < LONGEST * beside)
    .sort((a, b) => a.length - b.length)
  for (const { i } of order) {
    const twin = chains[i]!.points
    const other = [...new Set(cells.near(twin[0]!).map((p) => p.chain))].find(
      (k) => k !== i && !gone.has(k) && isTwin(twin, k),
    )
    if (other === undefined) continue
    gone.add(i)
    drawTogether(out[other]!, twin)
  }
  return out.filter((_, i) => !gone.has(i))

  function isTwin(points: readonly Vec[], of: number): boolean {
    const off = (p: Vec): number =>
      cells
        .near(p)
        .reduce(
          (least, q) => (q.chain === of ? Math.min(least, distance(p, chains[of]!.points[q.at]!)) : least),
          Infinity,
        )
    const on = [points[0]!, points.at(-1)!].filter((p) => off(p) <= meets).length
    const isLoose = on === 1 && polylineLength(points) < LOOSE * beside && runsAlong(points, chains[of]!.points)
    return (on === 2 || isLoose) && points.every((p) => off(p) <= beside) && !turnsBack(points)
  }
}

/** Whether a short chain goes the way that another goes beside it. */
function runsAlong(points: readonly Vec[], other: readonly Vec[]): boolean {
  const nearest = (p: Vec): Vec => other[nearestIndex(other, p)]!
  const [a, b] = [points[0]!, points.at(-1)!]
  const [u, v] = [direction(subtract(b, a)), direction(subtract(nearest(b), nearest(a)))]
  return !!u && !!v && dot(u, v) > ALIKE
}

/** A loop beside a line comes back to where it began: no twin. */
const turnsBack = (points: readonly Vec[]): boolean =>
  distance(points[0]!, points.at(-1)!) < 0.6 * polylineLength(points)

/** Moves the points of a chain that a twin lies beside half way to it. */
function drawTogether(chain: Chain, twin: readonly Vec[]): void {
  const [a, b] = [nearestIndex(chain.points, twin[0]!), nearestIndex(chain.points, twin.at(-1)!)].sort(
    (x, y) => x - y,
  ) as [number, number]
  // Beyond a closed chain's beginning it stays as it is.
  if (b - a > 3 * twin.length) return
  for (let i = a; i <= b; i++) {
    const p = chain.points[i]!
    chain.points[i] = lerp(p, twin[nearestIndex(twin, p)]!, 0.5)
  }
}

/** Finds points of chains about a place. */
function cellsOf(chains: readonly Chain[], size: number): { near: (p: Vec) => { chain: number; at: number }[] } {
  const cells = new Map<string, { chain: number; at: number }[]>()
  const key = (x: number, y: number): string => `${x} ${y}`
  chains.forEach(({ points }, chain) =>
    points.forEach((p, at) => {
      const k = key(Math.floor(p.x / size), Math.floor(p.y / size))
      const list = cells.get(k)
      if (list) list.push({ chain, at })
      else cells.set(k, [{ chain, at }])
    }),
  )
  return {
    near: (p) =>
      [-1, 0, 1].flatMap((i) =>
        [-1, 0, 1].flatMap((j) => cells.get(key(Math.floor(p.x / size) + i, Math.floor(p.y / size) + j)) ?? []),
      ),
  }
}
