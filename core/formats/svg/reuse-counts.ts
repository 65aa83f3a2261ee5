import type { SvgElement } from './element'
import { idOfReference } from './element'

/** Reuse of what reuses goes so deep. */
export const DEEPEST_REUSE = 24

/** How many elements each element comes to when it is drawn, with all in it and all that is reused there; reuse of itself counts once. */
export function countsOfReuse(
  root: SvgElement,
  elements: ReadonlyMap<string, SvgElement>,
): ReadonlyMap<SvgElement, number> {
  const counts = new Map<SvgElement, number>()
  const count = (e: SvgElement): number => {
    const known = counts.get(e)
    if (known !== undefined) return known
    counts.set(e, 0)
    let n = 1
    for (const child of e.children) n += count(child)
    const target =
      e.tag === 'use' ? elements.get(idOfReference(e.attributes.href ?? e.attributes['xlink:href']) ?? '') : undefined
    if (target) n += count(target)
    counts.set(e, n)
    return n
  }
  count(root)
  return counts
}
