import { overlap } from '../../geometry/bounds'
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
    const over = above.flatMap(({ id, path }) => (spare?.has(id) || !reach(item, path) ? [] : [path]))
    if (over.length) all.set(item.id, over)
    const path = 'path' in item && coverOf(item)
    if (path) above.unshift({ id: item.id, path })
  }
  return all
}

/** Whether the ink of an item may reach into a path. */
function reach(item: Line | Shape, path: Path): boolean {
  const box = boxOfPath(path)
  if (!('path' in item)) return item.contours.some((c) => overlap(boxOfPath(c), box))
  const { weight, finish } = item
  // Square caps, miters and nibs lead farther out than the width.
  const far = Math.max(2, finish.miterLimit, weight.nib?.width ?? 0, weight.nib?.height ?? 0)
  const by = widestHalfWidth(weight, finish.align) * far
  const { minX, minY, maxX, maxY } = boxOfPath(item.path)
  return overlap({ minX: minX - by, minY: minY - by, maxX: maxX + by, maxY: maxY + by }, box)
}
