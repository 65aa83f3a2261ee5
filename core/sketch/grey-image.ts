import type { Crop } from '../model/model'
import { InputError } from '../errors'

/** A picture without colour: grey by rows from the top, 0 black, 255 white. */
export interface GreyImage {
  width: number
  height: number
  grey: Uint8Array
}

/** Pictures of more pixels than this are refused. */
const MOST = 100_000_000

/** @throws InputError for a picture whose size is impossible, or does not fit its pixels */
export function checkImage({ width, height, grey }: GreyImage): void {
  if (!Number.isInteger(width) || width < 1)
    throw new InputError('width', `The width of a picture must be a whole number of pixels, not ${width}.`)
  if (!Number.isInteger(height) || height < 1)
    throw new InputError('height', `The height of a picture must be a whole number of pixels, not ${height}.`)
  if (width * height > MOST)
    throw new InputError('width', 'This picture is too large: it has more than 100 million pixels. Scale it down.')
  if (grey.length !== width * height)
    throw new InputError('grey', `A picture of ${width} x ${height} has ${width * height} pixels, not ${grey.length}.`)
}

/** Values by rows, as a picture. */
export interface Field {
  width: number
  height: number
  values: Float32Array
}

/** A picture no larger than `most` px on its longer side, each pixel the mean of those that it stands for; and by how much it is smaller. */
export function reduced({ width, height, grey }: GreyImage, most: number): { field: Field; scale: number } {
  const scale = Math.max(1, Math.max(width, height) / most)
  const [w, h] = [Math.max(1, Math.round(width / scale)), Math.max(1, Math.round(height / scale))]
  const values = new Float32Array(w * h)
  for (let y = 0; y < h; y++) {
    const [y0, y1] = [
      Math.floor((y * height) / h),
      Math.max(Math.floor((y * height) / h) + 1, Math.floor(((y + 1) * height) / h)),
    ]
    for (let x = 0; x < w; x++) {
      const [x0, x1] = [
        Math.floor((x * width) / w),
        Math.max(Math.floor((x * width) / w) + 1, Math.floor(((x + 1) * width) / w)),
      ]
      let sum = 0
      for (let j = y0; j < y1; j++) for (let i = x0; i < x1; i++) sum += grey[j * width + i]!
      values[y * w + x] = sum / ((y1 - y0) * (x1 - x0))
    }
  }
  return { field: { width: w, height: h, values }, scale: width / w }
}

/** A part of a picture, given as shares of its sides, at least a px wide and high; and where it lies in it, px. */
export function partOf(
  { width, height, grey }: GreyImage,
  part: Crop,
): { image: GreyImage; left: number; top: number } {
  const [left, top] = [
    Math.min(width - 1, Math.max(0, Math.round(part.x * width))),
    Math.min(height - 1, Math.max(0, Math.round(part.y * height))),
  ]
  const [w, h] = [
    Math.max(1, Math.min(width - left, Math.round(part.width * width))),
    Math.max(1, Math.min(height - top, Math.round(part.height * height))),
  ]
  const out = new Uint8Array(w * h)
  for (let y = 0; y < h; y++) out.set(grey.subarray((top + y) * width + left, (top + y) * width + left + w), y * w)
  return { image: { width: w, height: h, grey: out }, left, top }
}
