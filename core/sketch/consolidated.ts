import type { Across } from './across-strokes'
import { acrossStrokes, alongStrokes } from './across-strokes'
import { ALIKE, BESIDE, MOST } from './bundles'
import { smoothed } from './gaussian'
import type { Field } from './grey-image'

/** As dark as this along its way a stroke is one. */
const INK = 0.12
/** What is found at one place holds for so much around it, px of a picture of 1,440 px. */
const AROUND = 16
/** A stroke that is one of a hatching counts so much. */
const HATCHED = 1 / 3

/** Bundles of strokes drawn together. */
export interface Consolidated {
  /** How much pencil has its bundle's middle at each pixel: a stroke's own darkness, for each px of its length. */
  middles: Field
  /** How wide the bundles about each pixel are, px; 0 where strokes lie alone. */
  widths: Float32Array
}

/**
 * Strokes that search for one line, drawn together: each px of the pencil gives what it has to the middle between the
 * first and the last stroke of its bundle. What makes several strokes one line is that they run the same way, near to
 * each other, and few (after C. Liu, E. Rosales, A. Sheffer, StrokeAggregator: consolidating raw sketches into
 * artist-intended curve drawings, 2018); unlike a coarser scale this keeps turns, and ends, where they are.
 *
 * @param size how large the picture is, as a share of 1,440 px
 */
export function consolidated(pencil: Field, size: number): Consolidated {
  const { width, height } = pencil
  const across = acrossStrokes(pencil, size)
  const strokes = alongStrokes(pencil, across, size)
  const fields = [0, 1, 2].map((): Field => ({ width, height, values: new Float32Array(width * height) }))
  const [middles, wide, all] = fields as [Field, Field, Field]
  const ink = strokes.values
  for (let i = 0; i < ink.length; i++) {
    if (ink[i]! < INK) continue
    const { ahead, behind, sum, most, isOne } = bundleAt(i, strokes, across, size)
    const part = isOne ? (ink[i]! / sum) * most : ink[i]! * HATCHED
    const off = isOne ? (ahead - behind) / 2 : 0
    const at = spread(middles, (i % width) + off * across.nx[i]!, Math.floor(i / width) + off * across.ny[i]!, part)
    if (at < 0) continue
    wide.values[at]! += part * (isOne ? ahead + behind : 0)
    all.values[at]! += part
  }
  const [w, a] = [wide, all].map((f) => smoothed(f, AROUND * size).values) as [Float32Array, Float32Array]
  return { middles, widths: w.map((v, i) => (a[i]! > 1e-6 ? v / a[i]! : 0)) }
}

interface Bundle {
  /** How far it reaches along the normal, and against it, px. */
  ahead: number
  behind: number
  /** All of its pencil on the way across, and the darkest. */
  sum: number
  most: number
  /** Few strokes that are one line. */
  isOne: boolean
}

/** The bundle of strokes that lie across a pixel's own. */
function bundleAt(i: number, { width, height, values }: Field, { nx, ny }: Across, size: number): Bundle {
  const [x, y, ux, uy] = [i % width, Math.floor(i / width), nx[i]!, ny[i]!]
  // Strokes are BESIDE apart from middle to middle, and about a px wide.
  const widest = BESIDE * size - 1
  const out: Bundle = { ahead: 0, behind: 0, sum: values[i]!, most: values[i]!, isOne: true }
  let strokes = 1
  for (const way of [1, -1]) {
    let [white, far] = [0, 0]
    for (let s = 1; white <= widest; s++) {
      const [px, py] = [Math.round(x + s * way * ux), Math.round(y + s * way * uy)]
      if (px < 0 || py < 0 || px >= width || py >= height) break
      const k = py * width + px
      const v = values[k]!
      if (v < INK || Math.abs(nx[k]! * ux + ny[k]! * uy) < ALIKE) {
        white++
        continue
      }
      if (white) strokes++
      if (strokes > MOST || s > MOST * BESIDE * size) return { ...out, isOne: false }
      white = 0
      far = s
      out.sum += v
      if (v > out.most) out.most = v
    }
    if (way > 0) out.ahead = far
    else out.behind = far
  }
  return out
}

/** Gives a value to the four pixels about a place, each its share; answers the first, or -1 beyond the border. */
function spread({ width, height, values }: Field, x: number, y: number, value: number): number {
  const [cx, cy] = [Math.floor(x), Math.floor(y)]
  if (cx < 0 || cy < 0 || cx + 1 >= width || cy + 1 >= height) return -1
  const [fx, fy, at] = [x - cx, y - cy, cy * width + cx]
  values[at]! += value * (1 - fx) * (1 - fy)
  values[at + 1]! += value * fx * (1 - fy)
  values[at + width]! += value * (1 - fx) * fy
  values[at + width + 1]! += value * fx * fy
  return at
}
