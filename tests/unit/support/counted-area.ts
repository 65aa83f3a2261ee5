import type { Line } from '#core/model/model'
import { TrueInk } from './true-ink'

/** Area of the ink of lines on a page by counting points of a grid that the definition covers, px squared. */
export function countedArea(lines: readonly Line[], page: { width: number; height: number }, step: number): number {
  const columns = Math.floor(page.width / step)
  const covered = new Uint8Array(columns * Math.floor(page.height / step))
  for (const line of lines) {
    const ink = new TrueInk(line)
    const all = ink.rows.flat()
    const reach = 2 * Math.max(...all.map((s) => Math.max(s.left, s.right)))
    const span = (of: number[], most: number): [number, number] => [
      Math.max(0, Math.floor((Math.min(...of) - reach) / step)),
      Math.min(Math.floor(most / step), Math.ceil((Math.max(...of) + reach) / step)),
    ]
    const [left, right] = span(
      all.map((s) => s.x),
      page.width,
    )
    const [top, bottom] = span(
      all.map((s) => s.y),
      page.height,
    )
    for (let j = top; j < bottom; j++) {
      for (let i = left; i < right; i++) {
        const at = j * columns + i
        if (!covered[at] && ink.has({ x: (i + 0.5) * step, y: (j + 0.5) * step })) covered[at] = 1
      }
    }
  }
  return covered.reduce((n, c) => n + c, 0) * step * step
}
