import type { Field } from './grey-image'
import { smoothed } from './gaussian'

/** The paper is looked at in blocks, so many to the longer side. */
const BLOCKS = 48
/** Of each block the paper is as light as this share of its pixels are at most. */
const LIGHT = 0.85
/** Darker than this share of the paper about it is all pencil. */
const DARKEST = 0.75

/** How light the paper is at each place of a picture, 0..255: what is light in each part of it, smoothed from part to part. */
export function paperOf({ width, height, values }: Field): (x: number, y: number) => number {
  const size = Math.max(4, Math.ceil(Math.max(width, height) / BLOCKS))
  const [bw, bh] = [Math.ceil(width / size), Math.ceil(height / size)]
  const blocks: Field = { width: bw, height: bh, values: new Float32Array(bw * bh) }
  for (let v = 0; v < bh; v++) {
    for (let u = 0; u < bw; u++) {
      const some: number[] = []
      for (let y = v * size; y < Math.min(height, (v + 1) * size); y += 2)
        for (let x = u * size; x < Math.min(width, (u + 1) * size); x += 2) some.push(values[y * width + x]!)
      some.sort((a, b) => a - b)
      blocks.values[v * bw + u] = some[Math.floor(LIGHT * (some.length - 1))] ?? 255
    }
  }
  const even = smoothed(widened(blocks), 1)
  return (x, y) => Math.max(8, between(even, x / size - 0.5, y / size - 0.5))
}

/** How much pencil each pixel has, 0..1: light and shadow on the paper are evened out, the paper's own tone counts as white. */
export function pencilOf(grey: Field): Field {
  const { width, height, values } = grey
  const paper = paperOf(grey)
  const out = new Float32Array(values.length)
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++)
      out[y * width + x] = Math.min(1, Math.max(0, 1 - values[y * width + x]! / paper(x, y)) / DARKEST)
  }
  return { width, height, values: out }
}

/** Every block as light as the lightest beside it: a block full of pencil tells nothing of its paper. */
function widened({ width, height, values }: Field): Field {
  const out = new Float32Array(values.length)
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      let most = 0
      for (let j = Math.max(0, y - 1); j <= Math.min(height - 1, y + 1); j++)
        for (let i = Math.max(0, x - 1); i <= Math.min(width - 1, x + 1); i++)
          most = Math.max(most, values[j * width + i]!)
      // Shadow passes slowly: no more than a part of the way to the lightest.
      out[y * width + x] = Math.max(values[y * width + x]!, 0.97 * most)
    }
  }
  return { width, height, values: out }
}

/** A field between its pixels. */
export function between({ width, height, values }: Field, x: number, y: number): number {
  const cx = Math.min(width - 1, Math.max(0, x))
  const cy = Math.min(height - 1, Math.max(0, y))
  const [i, j] = [Math.min(width - 2, Math.floor(cx)), Math.min(height - 2, Math.floor(cy))]
  if (width < 2 || height < 2) return values[Math.round(cy) * width + Math.round(cx)]!
  const [u, v] = [cx - i, cy - j]
  const o = j * width + i
  return (
    (1 - v) * ((1 - u) * values[o]! + u * values[o + 1]!) +
    v * ((1 - u) * values[o + width]! + u * values[o + width + 1]!)
  )
}
