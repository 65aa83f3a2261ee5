import type { Cubic } from './cubic'
import { pointAt } from './cubic'
import type { Vec } from './point'

/** Each curve is taken for so many chords. */
const CHORDS = 12

const known = new WeakMap<readonly (readonly Cubic[])[], Float64Array>()

/** The chords of closed contours, four numbers each: worked out once as long as these are the same object. */
export function chordsOf(contours: readonly (readonly Cubic[])[]): Float64Array {
  let chords = known.get(contours)
  if (chords) return chords
  chords = new Float64Array(4 * CHORDS * contours.reduce((n, c) => n + c.length, 0))
  let k = 0
  for (const contour of contours) {
    for (const c of contour) {
      let a = c.p0
      for (let i = 1; i <= CHORDS; i++) {
        const b = i < CHORDS ? pointAt(c, i / CHORDS) : c.p3
        chords.set([a.x, a.y, b.x, b.y], k)
        k += 4
        a = b
      }
    }
  }
  known.set(contours, chords)
  return chords
}

const singles = new WeakMap<readonly Cubic[], readonly (readonly Cubic[])[]>()

/** As `windingAt`, of one contour, whose chords are kept with it. */
export function windingOf(contour: readonly Cubic[], p: Vec): number {
  let single = singles.get(contour)
  if (!single) singles.set(contour, (single = [contour]))
  return windingAt(single, p)
}

/** Winding number of closed contours about a point, as far as chords can tell: near an edge it may be that of the other side. */
export function windingAt(contours: readonly (readonly Cubic[])[], { x, y }: Vec): number {
  const e = chordsOf(contours)
  let winding = 0
  for (let i = 0; i < e.length; i += 4) {
    const up = e[i + 3]! > y
    if (e[i + 1]! > y === up) continue
    const at = e[i]! + ((y - e[i + 1]!) / (e[i + 3]! - e[i + 1]!)) * (e[i + 2]! - e[i]!)
    if (at < x) winding += up ? -1 : 1
  }
  return winding
}
