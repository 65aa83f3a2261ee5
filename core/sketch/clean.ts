import { rgb } from 'd3-color'
import type { CleanSettings } from '../model/model'
import type { GreyImage } from './grey-image'
import { checkImage } from './grey-image'
import { paperOf } from './pencil'

/** Right for most scans and photos. */
export const CLEAN: CleanSettings = { even: true, white: 0.1, black: 0.55, pencil: 1, specks: 4 }

/** A picture in colour: red, green, blue and how opaque, by rows from the top. */
export interface ColourImage {
  width: number
  height: number
  rgba: Uint8ClampedArray<ArrayBuffer>
}

/** Pencil fainter than this is no part of a speck, nor of what keeps one. */
const SEEN = 0.1
/** The paper is looked at in a picture that is no larger, px of the longer side: it changes slowly. */
const PAPER = 720
/** Sizes of specks are meant in a picture of so many px. */
const USUAL = 1440
const GRAPHITE = '#3a3632'

/**
 * A sketch made clean: light and shadow on the paper divided away, paper white, pencil from its own tones to the tint's,
 * specks out.
 *
 * @throws InputError for a picture that is impossible
 */
export function cleaned(image: GreyImage, settings: CleanSettings): ColourImage {
  checkImage(image)
  const { width, height } = image
  const dark = darkness(image, settings)
  if (settings.specks > 0) withoutSpecks(dark, width, height, settings.specks * (Math.max(width, height) / USUAL) ** 2)
  const { r, g, b } = rgb(settings.tint ?? GRAPHITE)
  const rgba = new Uint8ClampedArray(4 * width * height)
  for (let i = 0; i < dark.length; i++) {
    const d = dark[i]!
    rgba[4 * i] = 255 + (r - 255) * d
    rgba[4 * i + 1] = 255 + (g - 255) * d
    rgba[4 * i + 2] = 255 + (b - 255) * d
    rgba[4 * i + 3] = 255
  }
  return { width, height, rgba }
}

/** How dark each pixel is to be, 0 white .. 1 as the tint. */
function darkness({ width, height, grey }: GreyImage, { even, white, black, pencil }: CleanSettings): Float32Array {
  const paper = even ? paperUnder({ width, height, grey }) : (): number => 255
  const out = new Float32Array(grey.length)
  const span = Math.max(0.02, black - white)
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const d = 1 - grey[y * width + x]! / paper(x, y)
      const level = (d - white) / span
      out[y * width + x] = level <= 0 ? 0 : Math.min(1, level ** (1 / Math.max(0.05, pencil)))
    }
  }
  return out
}

/** The paper of a picture, looked at in a smaller one. */
function paperUnder({ width, height, grey }: GreyImage): (x: number, y: number) => number {
  const k = Math.max(1, Math.ceil(Math.max(width, height) / PAPER))
  const [w, h] = [Math.max(1, Math.floor(width / k)), Math.max(1, Math.floor(height / k))]
  const values = new Float32Array(w * h)
  for (let y = 0; y < h; y++) for (let x = 0; x < w; x++) values[y * w + x] = grey[y * k * width + x * k]!
  const paper = paperOf({ width: w, height: h, values })
  return (x, y) => paper(x / k, y / k)
}

/** Takes away what hangs together in fewer px than `least`. */
function withoutSpecks(dark: Float32Array, width: number, height: number, least: number): void {
  const seen = new Uint8Array(dark.length)
  for (let start = 0; start < dark.length; start++) {
    if (seen[start] || dark[start]! < SEEN) continue
    const part = [start]
    seen[start] = 1
    for (let n = 0; n < part.length; n++) {
      const i = part[n]!
      const [x, y] = [i % width, Math.floor(i / width)]
      for (let v = Math.max(0, y - 1); v <= Math.min(height - 1, y + 1); v++) {
        for (let u = Math.max(0, x - 1); u <= Math.min(width - 1, x + 1); u++) {
          const k = v * width + u
          if (seen[k] || dark[k]! < SEEN) continue
          seen[k] = 1
          part.push(k)
        }
      }
    }
    if (part.length < least) for (const i of part) dark[i] = 0
  }
}
