import type { Cubic } from '../geometry/cubic'
import { cubic } from '../geometry/cubic'
import { noiseAt } from '../geometry/noise'
import type { Vec } from '../geometry/point'
import type { Arrangement } from './arrangement'
import type { Way } from './arrange'
import { arrange } from './arrange'
import { ArrangementFault } from './check-arrangement'
import type { Loop } from './loop'

/** Loops are moved by less than this share of the tolerance along each axis: by less than a tenth in all. */
const MOST_MOVED = 0.07

/** Ways to arrange loops anew where an arrangement contradicts itself, one after the other. */
const WAYS: readonly (Way & { moved?: number })[] = [
  {},
  { coarser: 1 },
  { coarser: 2 },
  { moved: 1 },
  { moved: 2 },
  { coarser: 1, moved: 3 },
  { coarser: 3, moved: 4 },
]

/**
 * What `use` makes of the arrangement of loops in groups. Where the arrangement contradicts itself, there or in what is
 * made of it, the loops are arranged once more along chords as fine as the grid, where exact integers decide everything;
 * then on coarser grids; then moved by less than a tenth of the tolerance, the same each time. Null when there is nothing.
 *
 * @param groups loops of each group
 * @param tolerance px
 * @throws ArrangementFault where all of that fails, InputError as `arrange`
 */
export function arranged<T>(
  groups: readonly (readonly Loop[])[],
  tolerance: number,
  use: (arrangement: Arrangement) => T,
): T | null {
  const attempt = (of: readonly (readonly Loop[])[], way?: Way): T | null => {
    const arrangement = arrange(of, tolerance, way)
    return arrangement && use(arrangement)
  }
  let fault: unknown
  for (const way of [undefined, ...WAYS]) {
    try {
      return attempt(way?.moved ? groups.map((g, i) => moved(g, i, way.moved!, tolerance)) : groups, way)
    } catch (e) {
      if (!(e instanceof ArrangementFault)) throw e
      fault ??= e
    }
  }
  throw fault
}

/** The loops of a group, each moved a little: how far depends on nothing but its place in the list and the seed. */
const moved = (loops: readonly Loop[], group: number, seed: number, tolerance: number): Loop[] =>
  loops.map((loop, i) => {
    const [dx, dy] = [0, 1].map((axis) => noiseAt(997 * group + i, 2 * seed + axis) * MOST_MOVED * tolerance)
    const move = ({ x, y }: Vec): Vec => ({ x: x + dx!, y: y + dy! })
    const curves = new Map<Cubic, Cubic>()
    return loop.map(({ curve, t0, t1 }) => {
      let there = curves.get(curve)
      if (!there) {
        const { p0, p1, p2, p3 } = curve
        curves.set(curve, (there = cubic(move(p0), move(p1), move(p2), move(p3))))
      }
      return { curve: there, t0, t1 }
    })
  })
