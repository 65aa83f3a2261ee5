import { derivatives } from './gaussian'
import type { Field } from './grey-image'

/** The ridges of a field: how strong each pixel's is, and where across it the crest lies. */
export interface Ridges {
  width: number
  height: number
  /** Second derivative across the ridge, by the square of the scale: about the pencil's share there, 0 where there is none. */
  strength: Float32Array
  /** From the middle of the pixel to the crest, px. */
  dx: Float32Array
  dy: Float32Array
  /** Across the ridge, of unit length. */
  nx: Float32Array
  ny: Float32Array
}

/** The crest is looked for no farther from its pixel than this, px. */
const FARTHEST = 1.5

/** The ridges of a field at a scale (C. Steger, An unbiased detector of curvilinear structures, 1998). */
export function ridgesOf(field: Field, sigma: number): Ridges {
  const { width, height } = field
  const [rx, ry, rxx, rxy, ryy] = derivatives(field, sigma, [
    [1, 0],
    [0, 1],
    [2, 0],
    [1, 1],
    [0, 2],
  ]) as [Float32Array, Float32Array, Float32Array, Float32Array, Float32Array]
  const n = width * height
  const out: Ridges = {
    width,
    height,
    strength: new Float32Array(n),
    dx: new Float32Array(n),
    dy: new Float32Array(n),
    nx: new Float32Array(n),
    ny: new Float32Array(n),
  }
  for (let i = 0; i < n; i++) {
    const [a, b, c] = [rxx[i]!, rxy[i]!, ryy[i]!]
    // The eigenvector of the most negative eigenvalue points across a ridge.
    const mean = (a + c) / 2
    const off = Math.hypot((a - c) / 2, b)
    const least = mean - off
    if (least >= 0) continue
    let [nx, ny] = Math.abs(a - least) > Math.abs(c - least) ? [-b, a - least] : [c - least, -b]
    const l = Math.hypot(nx, ny)
    if (l > 0) [nx, ny] = [nx / l, ny / l]
    else [nx, ny] = [1, 0]
    const t = Math.min(FARTHEST, Math.max(-FARTHEST, -(rx[i]! * nx + ry[i]! * ny) / least))
    out.strength[i] = -least * sigma * sigma
    out.nx[i] = nx
    out.ny[i] = ny
    out.dx[i] = t * nx
    out.dy[i] = t * ny
  }
  return out
}
