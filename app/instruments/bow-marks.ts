import type { Path } from '#core/geometry/path'
import { add, lerp, subtract } from '#core/geometry/point'
import type { Mark } from '~/canvas/marks'
import type { BowChain } from './bow-chain'

/** The points of a chain on its path. */
export function jointMarks(chain: BowChain, path: Path): Mark[] {
  return path.nodes.flatMap((n): Mark[] => {
    // The node in the middle of a deep bow is no joint of two.
    const index = chain.points.indexOf(n.at)
    return index < 0
      ? []
      : [{ kind: 'node', at: n.at, joint: n.joint, chosen: index === chain.last, ref: { kind: 'joint', index } }]
  })
}

/** What bows are pulled by, and where the chain goes on from. */
export function bowMarks(chain: BowChain): Mark[] {
  const { points, pulls, last, closed } = chain
  const end: Mark[] = closed ? [] : [{ kind: 'closer', at: points[last]!, ref: { kind: 'joint', index: last } }]
  return [
    ...end,
    ...pulls.map((pull, index): Mark => {
      const [from, to] = [points[index]!, points[chain.next(index)]!]
      return { kind: 'belly', at: add(lerp(from, to, 0.5), pull), along: subtract(to, from), index }
    }),
  ]
}
