import { smoothed } from './gaussian'
import type { GreyImage } from './grey-image'
import { checkImage, reduced } from './grey-image'
import { pencilOf } from './pencil'
import { ridgesOf } from './ridges'

/** How plainly a pencil line runs through each px of a picture, 0..255, by rows. */
export interface Crests {
  width: number
  height: number
  strength: Uint8Array
  /** Which way it runs, as an angle from x towards y, 0..255 for half a turn. */
  way: Uint8Array
}

/** What of a bundle of strokes is its line: the middle of all, or the darkest stroke. */
export type CrestKind = 'middle' | 'darkest'

/** Pictures are looked at in this size, px of the longer side. */
const SIZE = 1440
/** Scales of the crests, px of a picture of that size: a bundle's width, and a stroke's. */
const SIGMA: Record<CrestKind, number> = { middle: 3.6, darkest: 1.5 }
/** A ridge as strong as this is as plain as can be. */
const PLAIN: Record<CrestKind, number> = { middle: 0.2, darkest: 0.3 }

/**
 * The crests of the pencil in a picture (C. Steger, An unbiased detector of curvilinear structures, 1998), light and shadow
 * evened out. Yields shares done.
 *
 * @throws InputError for a picture that is impossible
 */
export function* findCrests(image: GreyImage, kind: CrestKind): Generator<number, Crests> {
  checkImage(image)
  const { field } = reduced(image, SIZE)
  const { width, height } = field
  const sigma = Math.max(1, (SIGMA[kind] * Math.max(width, height)) / SIZE)
  yield 0.2
  const pencil = pencilOf(field)
  yield 0.4
  const { strength, nx, ny } = ridgesOf(smoothed(pencil, Math.max(0.5, sigma / 3)), sigma)
  const way = Uint8Array.from(nx, (x, i) => Math.round((Math.atan2(x, -ny[i]!) / Math.PI) * 256) & 255)
  return {
    width,
    height,
    way,
    strength: Uint8Array.from(strength, (s) => Math.min(255, Math.round((255 * s) / PLAIN[kind]))),
  }
}
