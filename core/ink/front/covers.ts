import type { Box } from '../../geometry/bounds'
import { emptyBox, grown, overlap, uniteBoxes } from '../../geometry/bounds'
import { boxOfPath } from '../../geometry/known'
import type { Path } from '../../geometry/path'
import type { Line, Shape } from '../../model/model'
import { widestHalfWidth } from '../../weight/half-widths'

/** The closed path with which a line hides all that lies behind it in the stack; null where it does not. */
const coverOf = (line: Line): Path | null =>
  line.cover && line.path.closed && line.path.nodes.length > 1 ? line.path : null

export const covers = (item: Line | Shape): boolean => 'path' in item && coverOf(item) !== null

/**
 * Closed lines that lie before all that is below them in the stack: by the id of what lies behind, the paths that hide it.
 *
 * @param items bottom to top
 * @param spared by the id of a line, ids of those that it was decided about one by one
 */
export function covered(
  items: readonly (Line | Shape)[],
  spared: ReadonlyMap<string, ReadonlySet<string>>,
): ReadonlyMap<string, readonly Path[]> {
  const above: { id: string; path: Path }[] = []
  const all = new Map<string, readonly Path[]>()
  for (const item of items.toReversed()) {
    const spare = spared.get(item.id)
    const box = above.length ? reachOf(item) : null
    const over = above.flatMap(({ id, path }) => (spare?.has(id) || !overlap(box!, boxOfPath(path)) ? [] : [path]))
    if (over.length) all.set(item.id, over)
    const path = 'path' in item && coverOf(item)
    if (path) above.unshift({ id: item.id, path })
  }
  return all
}

/** No ink of an item lies outside of this. */
function reachOf(item: Line | Shape): Box {
  if (!('path' in item)) return item.contours.reduce((box, c) => uniteBoxes(box, boxOfPath(c)), emptyBox())
  const { weight, finish } = item
  // Square caps, miters and nibs lead farther out than the width.
  const far = Math.max(2, finish.miterLimit, weight.nib?.width ?? 0, weight.nib?.height ?? 0)
  return grown(boxOfPath(item.path), widestHalfWidth(weight, finish.align) * far)
}
