import { arcOfPath } from '../geometry/known'
import { middleOf, speckOf } from '../ink/pieces/litter'
import type { Finding, Proofed } from './finding'

/** Lines and solids whose ink cannot be worked out, or not finished as it should be. */
export const failedItems = ({ failed, drawing, lines }: Proofed): Finding[] =>
  failed.map(({ id }): Finding => {
    const line = lines.find((l) => l.id === id)
    const middle = { x: drawing.page.width / 2, y: drawing.page.height / 2 }
    return {
      key: `failed ${id}`,
      kind: 'failed',
      at: line ? arcOfPath(line.path).point(arcOfPath(line.path).total / 2) : middle,
      items: [id],
      mend: null,
    }
  })

/** Lines of whose ink nothing is seen: covers above them hide it, or all of it is trimmed away. */
export function hiddenLines({ lines, stack }: Proofed): Finding[] {
  const seen = new Set(stack.parts.map((p) => p.item.id))
  return lines.flatMap((line): Finding[] => {
    const shown = stack.shown.get(line.id)
    if (!shown?.region.contours.length || seen.has(line.id)) return []
    return [
      {
        key: `hidden ${line.id}`,
        kind: 'hidden',
        at: arcOfPath(line.path).point(arcOfPath(line.path).total / 2),
        items: [line.id],
        mend: { do: 'delete', line: line.id },
      },
    ]
  })
}

/** Lines with so little ink that it prints as dirt. */
export function specks({ lines, stack, limits, pxPerMm }: Proofed): Finding[] {
  const least = limits.speck * pxPerMm * pxPerMm
  const seen = new Set(stack.parts.map((p) => p.item.id))
  return lines.flatMap((line): Finding[] => {
    const region = seen.has(line.id) && speckOf(line, stack.shown, least)
    return region
      ? [
          {
            key: `speck ${line.id}`,
            kind: 'speck',
            at: middleOf(region),
            items: [line.id],
            mend: { do: 'delete', line: line.id },
          },
        ]
      : []
  })
}

/** Lines whose ink leaves the page. Those wholly beside it can go; of the others only a hand can tell. */
export const offPage = ({ lines, stack, drawing: { page } }: Proofed): Finding[] =>
  lines.flatMap((line): Finding[] => {
    const region = stack.shown.get(line.id)?.region
    if (!region?.contours.length) return []
    const { box } = region
    if (box.minX >= 0 && box.minY >= 0 && box.maxX <= page.width && box.maxY <= page.height) return []
    const beside = box.maxX < 0 || box.maxY < 0 || box.minX > page.width || box.minY > page.height
    const at = {
      x: box.minX < 0 ? box.minX : box.maxX > page.width ? box.maxX : (box.minX + box.maxX) / 2,
      y: box.minY < 0 ? box.minY : box.maxY > page.height ? box.maxY : (box.minY + box.maxY) / 2,
    }
    return [
      {
        key: `off ${line.id}`,
        kind: 'off',
        at,
        items: [line.id],
        mend: beside ? { do: 'delete', line: line.id } : null,
      },
    ]
  })
