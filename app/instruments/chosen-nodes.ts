import type { Drawing, Line } from '#core/model/model'
import type { Path } from '#core/geometry/path'
import type { Vec } from '#core/geometry/point'
import { withNodesMapped } from '#core/geometry/node-sets'
import { changeLines } from '#core/editing/change-items'
import { withoutNode } from '#core/editing/edit-path'
import { repath } from '#core/editing/repath'
import { findLine, findOpenLine } from '#core/model/find'
import type { NodeRef } from './worktop'

/** Chosen nodes by the line they are of. */
export function nodesByLine(nodes: readonly NodeRef[]): Map<string, Set<number>> {
  const by = new Map<string, Set<number>>()
  for (const { line, index } of nodes) {
    const set = by.get(line)
    if (set) set.add(index)
    else by.set(line, new Set([index]))
  }
  return by
}

/** Where chosen nodes are; those that are gone are left out. */
export function placesOf(drawing: Drawing, nodes: readonly NodeRef[]): { node: NodeRef; at: Vec; line: Line }[] {
  return nodes.flatMap((node) => {
    const line = findLine(drawing, node.line)?.line
    const at = line?.path.nodes[node.index]?.at
    return line && at ? [{ node, at, line }] : []
  })
}

/** Puts every line with chosen nodes through `change`. */
export function changeNodes(
  draft: Drawing,
  nodes: readonly NodeRef[],
  change: (path: Path, chosen: ReadonlySet<number>, line: Line) => Path,
): void {
  for (const [id, chosen] of nodesByLine(nodes)) {
    changeLines(draft, [id], (l) => repath(l, change(l.path, chosen, l), draft))
  }
}

/** Takes chosen nodes out of their lines; a line that is left without two goes. */
export function removeNodes(draft: Drawing, nodes: readonly NodeRef[]): void {
  for (const [id, gone] of nodesByLine(nodes)) {
    const found = findOpenLine(draft, id)
    if (!found) continue
    if (found.line.path.nodes.length - gone.size < 2) found.layer.items.splice(found.index, 1)
    // From the last to the first, so that the others keep their places.
    else
      repath(
        found.line,
        [...gone].sort((a, b) => b - a).reduce((path, index) => withoutNode(path, index), found.line.path),
        draft,
      )
  }
}

export const mapNodes = (draft: Drawing, nodes: readonly NodeRef[], map: (p: Vec) => Vec): void =>
  changeNodes(draft, nodes, (path, chosen) => withNodesMapped(path, chosen, map))
