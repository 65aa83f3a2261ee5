import type { Matrix } from '../../geometry/matrix'
import { composed, IDENTITY } from '../../geometry/matrix'

/** A box of user space. */
export interface ViewBox {
  x: number
  y: number
  width: number
  height: number
}

/** The four numbers of a viewBox attribute; null where there are no such, or its size is not above 0. */
export function viewBoxOf(text: string | undefined): ViewBox | null {
  const v = (text ?? '')
    .trim()
    .split(/[\s,]+/)
    .map(Number)
  const [x, y, width, height] = v
  return v.length === 4 && v.every(Number.isFinite) && width! > 0 && height! > 0
    ? { x: x!, y: y!, width: width!, height: height! }
    : null
}

/**
 * How what is seen through a view box comes to lie in a viewport (SVG 2, equivalent transform of an SVG viewport).
 */
export function fitted(box: ViewBox | null, port: ViewBox, aspect = ''): Matrix {
  if (!box) return port.x || port.y ? [1, 0, 0, 1, port.x, port.y] : IDENTITY
  const words = aspect.trim().split(/\s+/)
  const align = words.find((w) => /^(none|x(Min|Mid|Max)Y(Min|Mid|Max))$/.test(w)) ?? 'xMidYMid'
  const [kx, ky] = [port.width / box.width, port.height / box.height]
  if (align === 'none') return composed([kx, 0, 0, ky, port.x, port.y], [1, 0, 0, 1, -box.x, -box.y])
  const k = words.includes('slice') ? Math.max(kx, ky) : Math.min(kx, ky)
  const share = (at: string): number => (at === 'Min' ? 0 : at === 'Mid' ? 0.5 : 1)
  const [dx, dy] = [
    share(align.slice(1, 4)) * (port.width - k * box.width),
    share(align.slice(5)) * (port.height - k * box.height),
  ]
  return composed([k, 0, 0, k, port.x + dx, port.y + dy], [1, 0, 0, 1, -box.x, -box.y])
}
