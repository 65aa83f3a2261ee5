import { smoothed } from './gaussian'
import type { Field } from './grey-image'
import type { Ridges } from './ridges'

/** Strokes no farther from the next than this search for one line, px of a picture of 1,440 px. */
const BESIDE = 12.5
/** More strokes side by side than this are hatching: each is a line. */
const MOST = 5
/** Strokes run the same way within this angle: its cosine. */
const ALIKE = Math.cos((32 * Math.PI) / 180)
/** What is found at one place holds for so much around it, px of a picture of 1,440 px. */
const AROUND = 16

/** Crests that lie side by side. */
export interface Bundles {
  /** The share of all crests that have others beside them, 0..1. */
  share: number
  /** For each pixel of a crest the way from the first crest to the last across its bundle, px; 0 where it lies alone. */
  across: Field
  /** 1 for each pixel of a crest. */
  crests: Field
}

/**
 * Bundles of crests: those that lie side by side. What makes several strokes one line is that they run the same way,
 * near to each other, and few (after C. Liu, E. Rosales, A. Sheffer, StrokeAggregator: consolidating raw sketches into
 * artist-intended curve drawings, 2018).
 *
 * @param ridges at some scale
 * @param mask the pixels of their crests, one px wide
 * @param size how large the picture is, as a share of 1,440 px
 */
export function bundlesIn(ridges: Ridges, mask: Uint8Array, size: number): Bundles {
  const { width, height, nx, ny } = ridges
  const sum: Field = { width, height, values: new Float32Array(width * height) }
  const all: Field = { width, height, values: new Float32Array(width * height) }
  let [crests, beside] = [0, 0]
  const reach = BESIDE * size
  /** How far the next stroke that runs the same way lies from a place along its normal; 0 where there is none. */
  const next = (x: number, y: number, ux: number, uy: number): number => {
    let left = false
    for (let s = 1; s <= reach + 1; s += 0.5) {
      const [px, py] = [Math.round(x + s * ux), Math.round(y + s * uy)]
      if (px < 0 || py < 0 || px >= width || py >= height) return 0
      const i = py * width + px
      if (!mask[i]) left ||= s > 1
      else if (left) return Math.abs(nx[i]! * ux + ny[i]! * uy) >= ALIKE ? s : 0
    }
    return 0
  }
  for (let i = 0; i < mask.length; i++) {
    if (!mask[i]) continue
    const [x0, y0] = [i % width, Math.floor(i / width)]
    let across = 0
    let strokes = 1
    for (const way of [1, -1]) {
      const [ux, uy] = [way * nx[i]!, way * ny[i]!]
      let far = 0
      for (let step = next(x0, y0, ux, uy); step && strokes <= MOST; step = next(x0 + far * ux, y0 + far * uy, ux, uy)) {
        far += step
        strokes++
      }
      across += far
    }
    crests++
    all.values[i] = 1
    if (!across || strokes > MOST) continue
    beside++
    sum.values[i] = across
  }
  return { share: crests ? beside / crests : 0, across: sum, crests: all }
}

/** How wide the bundles are about each pixel, px: the mean of what was found near it. */
export function widthsAbout({ across, crests }: Bundles, size: number): Float32Array {
  const [s, w] = [across, crests].map((f) => smoothed(f, AROUND * size).values) as [Float32Array, Float32Array]
  return s.map((v, i) => (w[i]! > 1e-6 ? v / w[i]! : 0))
}
