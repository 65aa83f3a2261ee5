import type { Box } from '#core/geometry/bounds'
import { mapped } from '#core/geometry/matrix'
import type { Viewport } from './viewport'
import { matrixOf } from './viewport'

/** How an element is laid over a box of the page (px of the page), at its size on the screen so that its shadow does not grow with it. */
export function laidOnPage(
  viewport: Viewport,
  { minX, minY, maxX, maxY }: Box,
): { width: string; height: string; transform: string } {
  const { zoom } = viewport
  const matrix = matrixOf(viewport)
  const corner = mapped(matrix, { x: minX, y: minY })
  return {
    width: `${(maxX - minX) * zoom}px`,
    height: `${(maxY - minY) * zoom}px`,
    transform: `matrix(${[...matrix.slice(0, 4).map((m) => m / zoom), corner.x, corner.y].join()})`,
  }
}

export const boxOfPage = ({ width, height }: { width: number; height: number }): Box => ({
  minX: 0,
  minY: 0,
  maxX: width,
  maxY: height,
})
