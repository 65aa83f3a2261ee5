import type { Side, Strand } from './cell-strands'

/** A gate on a side between two cells. */
interface Way {
  strand: Strand
  at: number
}

const out = (strands: readonly Strand[], side: Side): Way[] =>
  strands.flatMap((strand) => (strand.to?.side === side ? [{ strand, at: strand.to.at }] : []))
const into = (strands: readonly Strand[], side: Side): Way[] =>
  strands.flatMap((strand) => (strand.from?.side === side ? [{ strand, at: strand.from.at }] : []))

/**
 * Which strand follows which over the side between two cells: where one goes out of a cell, the next comes in on the other
 * side, within `near` px. A region that only just reaches over the side in one of the two cells turns back there. Null where
 * the cells see their side too differently to be brought together.
 *
 * @param sides of the first cell and of the second one, by which they touch
 */
export function joinAcross(
  a: readonly Strand[],
  b: readonly Strand[],
  sides: readonly [Side, Side],
  near: number,
): [Strand, Strand][] | null {
  const next: [Strand, Strand][] = []
  const [outA, intoB] = pair(out(a, sides[0]), into(b, sides[1]), near, next)
  const [outB, intoA] = pair(out(b, sides[1]), into(a, sides[0]), near, next)
  const left = [...pair(outA, intoA, near, next), ...pair(outB, intoB, near, next)]
  return left.some((l) => l.length) ? null : next
}

/** Pairs ways out with ways in that lie within `near`, in order along the side; answers those that find none. */
function pair(from: Way[], to: Way[], near: number, next: [Strand, Strand][]): [Way[], Way[]] {
  if (!from.length || !to.length) return [from, to]
  const a = from.length > 1 ? from.toSorted((p, q) => p.at - q.at) : from
  const b = to.length > 1 ? to.toSorted((p, q) => p.at - q.at) : to
  const left: [Way[], Way[]] = [[], []]
  let i = 0
  let j = 0
  while (i < a.length && j < b.length) {
    const d = a[i]!.at - b[j]!.at
    if (Math.abs(d) <= near) next.push([a[i++]!.strand, b[j++]!.strand])
    else if (d < 0) left[0].push(a[i++]!)
    else left[1].push(b[j++]!)
  }
  left[0].push(...a.slice(i))
  left[1].push(...b.slice(j))
  return left
}
