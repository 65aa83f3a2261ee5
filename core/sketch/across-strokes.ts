import { derivatives, smoothed } from './gaussian'
import type { Field } from './grey-image'

/** The direction across the strokes about each pixel, of unit length. */
export interface Across {
  nx: Float32Array
  ny: Float32Array
}

/** Changes are looked at in this scale, and the way of strokes over so much around, px of a picture of 1,440 px. */
const FINE = 1.5
const AROUND = 8

/**
 * Which way strokes run, as all about a place agree: the way across in which the pencil changes most (J. Bigün and G. H.
 * Granlund, Optimal orientation detection of linear symmetry, 1987).
 *
 * @param size how large the picture is, as a share of 1,440 px
 */
export function acrossStrokes(pencil: Field, size: number): Across {
  const { width, height } = pencil
  const [gx, gy] = derivatives(pencil, Math.max(0.7, FINE * size), [
    [1, 0],
    [0, 1],
  ]) as [Float32Array, Float32Array]
  const product = (p: Float32Array, q: Float32Array): Float32Array =>
    smoothed({ width, height, values: p.map((v, i) => v * q[i]!) }, AROUND * size).values
  const [xx, xy, yy] = [product(gx, gx), product(gx, gy), product(gy, gy)]
  const out: Across = { nx: new Float32Array(xx.length), ny: new Float32Array(xx.length) }
  for (let i = 0; i < xx.length; i++) {
    const angle = 0.5 * Math.atan2(2 * xy[i]!, xx[i]! - yy[i]!)
    out.nx[i] = Math.cos(angle)
    out.ny[i] = Math.sin(angle)
  }
  return out
}

/** Strokes are looked at over so much of their way to either side of a place, px of a picture of 1,440 px. */
const ALONG = 7
/** Where the pencil is fainter than this all about, there is none. */
const FAINT = 0.02

/** The pencil's mean along its strokes: the paper's tooth is gone, and what lies between strokes is still white (after B. Cabral and L. C. Leedom, Imaging vector fields using line integral convolution, 1993). */
export function alongStrokes(pencil: Field, { nx, ny }: Across, size: number): Field {
  const { width, height } = pencil
  const fine = smoothed(pencil, 0.6).values
  const steps = Math.round(ALONG * size)
  const about = smoothed(pencil, Math.max(1, steps / 2)).values
  const values = new Float32Array(fine.length)
  for (let y = 0, i = 0; y < height; y++) {
    for (let x = 0; x < width; x++, i++) {
      if (about[i]! < FAINT) continue
      let sum = fine[i]!
      for (let s = 1; s <= steps; s++) {
        const [dx, dy] = [Math.round(-s * ny[i]!), Math.round(s * nx[i]!)]
        const [left, right, up, down] = [x + dx, x - dx, y + dy, y - dy]
        if (left >= 0 && left < width && up >= 0 && up < height) sum += fine[up * width + left]!
        if (right >= 0 && right < width && down >= 0 && down < height) sum += fine[down * width + right]!
      }
      values[i] = sum / (2 * steps + 1)
    }
  }
  return { width, height, values }
}
