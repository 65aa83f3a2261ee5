import type { Vec } from '../geometry/point'
import { cross, distance, subtract } from '../geometry/point'
import type { GreyImage } from './grey-image'

export type Quad = readonly [Vec, Vec, Vec, Vec]

/** A quad with each corner put through `to`. */
export const mapQuad = (quad: Quad, to: (corner: Vec, index: number) => Vec): Quad => [
  to(quad[0], 0),
  to(quad[1], 1),
  to(quad[2], 2),
  to(quad[3], 3),
]

/** Sides of what a quad shows may be of any ratio up to this. */
const LONGEST = 20

/**
 * The plane projective map that takes the unit square to a quad, corner by corner clockwise from (0, 0) (P. Heckbert,
 * Fundamentals of texture mapping and image warping, 1989).
 */
export function squareToQuad([a, b, c, d]: Quad): (u: number, v: number) => Vec {
  const [dx1, dx2, dx3] = [b.x - c.x, d.x - c.x, a.x - b.x + c.x - d.x]
  const [dy1, dy2, dy3] = [b.y - c.y, d.y - c.y, a.y - b.y + c.y - d.y]
  const of = dx1 * dy2 - dx2 * dy1
  const g = (dx3 * dy2 - dx2 * dy3) / of
  const h = (dx1 * dy3 - dx3 * dy1) / of
  const [p, q] = [b.x - a.x + g * b.x, d.x - a.x + h * d.x]
  const [r, s] = [b.y - a.y + g * b.y, d.y - a.y + h * d.y]
  return (u, v) => {
    const w = g * u + h * v + 1
    return { x: (p * u + q * v + a.x) / w, y: (r * u + s * v + a.y) / w }
  }
}

/** Whether a quad goes round one region clockwise (as x turns to y), none of its corners turning in. */
export const isConvex = (quad: Quad): boolean =>
  quad.every((p, i) => cross(subtract(quad[(i + 1) % 4]!, p), subtract(quad[(i + 2) % 4]!, quad[(i + 1) % 4]!)) > 0)

/** The size of a picture that shows what lies within a quad: as long as its longer sides. */
export function sizeOfQuad([a, b, c, d]: Quad): { width: number; height: number } {
  const [w, h] = [Math.max(distance(a, b), distance(d, c)), Math.max(distance(a, d), distance(b, c))]
  return {
    width: Math.max(1, Math.round(Math.max(w, h / LONGEST))),
    height: Math.max(1, Math.round(Math.max(h, w / LONGEST))),
  }
}

/** What of a picture lies within a quad (px of it, convex), set right: seen from straight above. */
export function setRight(image: GreyImage, quad: Quad): GreyImage {
  const { width, height } = sizeOfQuad(quad)
  const at = squareToQuad(quad)
  const grey = new Uint8Array(width * height)
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const p = at((x + 0.5) / width, (y + 0.5) / height)
      grey[y * width + x] = sampled(image, p.x - 0.5, p.y - 0.5)
    }
  }
  return { width, height, grey }
}

/** Between pixels; beyond the border as that is. */
function sampled({ width, height, grey }: GreyImage, x: number, y: number): number {
  const cx = Math.min(width - 1, Math.max(0, x))
  const cy = Math.min(height - 1, Math.max(0, y))
  const [i, j] = [Math.min(Math.max(0, width - 2), Math.floor(cx)), Math.min(Math.max(0, height - 2), Math.floor(cy))]
  const [u, v] = [cx - i, cy - j]
  const [right, below] = [width > 1 ? 1 : 0, height > 1 ? width : 0]
  const o = j * width + i
  return Math.round(
    (1 - v) * ((1 - u) * grey[o]! + u * grey[o + right]!) +
      v * ((1 - u) * grey[o + below]! + u * grey[o + below + right]!),
  )
}
