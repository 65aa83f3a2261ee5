import type { Path } from '#core/geometry/path'
import type { Mark } from '~/canvas/marks'

/**
 * Marks of all nodes of a path, and of their handles beneath them.
 *
 * @param line the id of the line that they say they are of
 * @param from nodes before this one are left out
 */
export function nodeMarks(path: Path, line: string, isChosen: (index: number) => boolean, from = 0): Mark[] {
  const all = path.nodes.map((n, index) => ({ n, index })).slice(from)
  const handles = all.flatMap(({ n, index }) =>
    (['in', 'out'] as const).flatMap((side): Mark[] => {
      const at = n[side]
      return at ? [{ kind: 'handle', from: n.at, at, ref: { kind: 'handle', line, index, side } }] : []
    }),
  )
  const nodes = all.map(({ n: { at, joint }, index }): Mark => ({
    ...{ kind: 'node', at, joint, chosen: isChosen(index) },
    ref: { kind: 'node', line, index },
  }))
  return [...handles, ...nodes]
}
