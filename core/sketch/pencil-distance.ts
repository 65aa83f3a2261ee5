import type { Vec } from '../geometry/point'
import type { Crests } from './crests'
import type { Field } from './grey-image'
import { between } from './pencil'
import type { PencilMap } from './pencil-map'
import { thin } from './thinning'

/** A crest this plain, of 255, is pencil. */
const PLAIN = 76
const FAR = 1e12

/**
 * How far each px of a picture of crests lies from the middle of the nearest pencil line, px of it: exact between the middles of px (P. Felzenszwalb and D. Huttenlocher, Distance
 * transforms of sampled functions, 2012).
 */
export function distancesToCrests(crests: Crests): Field {
  const { width, height } = crests
  const squares = Float64Array.from(onlyMiddles(crests), (m) => (m ? 0 : FAR))
  const column = new Float64Array(height)
  for (let x = 0; x < width; x++) {
    for (let y = 0; y < height; y++) column[y] = squares[y * width + x]!
    const out = lowerEnvelope(column)
    for (let y = 0; y < height; y++) squares[y * width + x] = out[y]!
  }
  const values = new Float32Array(width * height)
  for (let y = 0; y < height; y++)
    values.set(lowerEnvelope(squares.subarray(y * width, (y + 1) * width)).map(Math.sqrt), y * width)
  return { width, height, values }
}

/** Px of crests that are plainer than those on both sides across their way. */
function onlyMiddles({ width, height, strength, way }: Crests): Uint8Array {
  const out = new Uint8Array(strength.length)
  for (let y = 1; y < height - 1; y++) {
    for (let x = 1; x < width - 1; x++) {
      const i = y * width + x
      const s = strength[i]!
      if (s < PLAIN) continue
      const a = (way[i]! / 256) * Math.PI
      const d = Math.round(Math.cos(a)) * width - Math.round(Math.sin(a))
      if (s >= strength[i + d]! && s >= strength[i - d]!) out[i] = 1
    }
  }
  // The plainest are as plain as can be over some px across.
  thin(out, width, height)
  return out
}

/** Of each place the least of a parabola over every other. */
function lowerEnvelope(f: Float64Array): Float64Array {
  const n = f.length
  const at = new Int32Array(n)
  const from = new Float64Array(n + 1)
  let k = 0
  from[0] = -Infinity
  from[1] = Infinity
  for (let q = 1; q < n; q++) {
    const meets = (p: number): number => (f[q]! + q * q - (f[p]! + p * p)) / (2 * (q - p))
    let s = meets(at[k]!)
    while (k > 0 && s <= from[k]!) s = meets(at[--k]!)
    at[++k] = q
    from[k] = s
    from[k + 1] = Infinity
  }
  const out = new Float64Array(n)
  k = 0
  for (let q = 0; q < n; q++) {
    while (from[k + 1]! < q) k++
    out[q] = (q - at[k]!) ** 2 + f[at[k]!]!
  }
  return out
}

/** How far a point of the page lies from the pencil, px of the page; null beside the picture. */
export function distanceToPencil(distances: Field, pencil: PencilMap, p: Vec): number | null {
  const { x, y } = pencil.inCrests(p)
  return x >= 0 && y >= 0 && x < distances.width && y < distances.height
    ? between(distances, x - 0.5, y - 0.5) * pencil.grain
    : null
}
