import type { Path } from '#core/geometry/path'
import type { Mark } from '~/canvas/marks'
import type { Laid } from './laid-nodes'

/** What is laid: its path, the handles of the last node, the first one where a press closes the line, and all nodes. */
export function laidMarks(nodes: readonly Laid[], path: Path, canClose: boolean): Mark[] {
  const marks: Mark[] = []
  const last = path.nodes[nodes.length - 1]!
  if (!nodes[nodes.length - 1]!.auto)
    for (const side of ['in', 'out'] as const) {
      const at = last[side]
      if (at) marks.push({ kind: 'handle', from: last.at, at, ref: null })
    }
  if (canClose) marks.push({ kind: 'closer', at: nodes[0]!.at, ref: { kind: 'closer' } })
  path.nodes.forEach((n, i) => {
    const isLast = i === nodes.length - 1
    const ref = isLast && n.out ? ({ kind: 'joint', index: i } as const) : null
    marks.push({ kind: 'node', at: n.at, joint: n.joint, chosen: isLast, ref })
  })
  return marks
}
