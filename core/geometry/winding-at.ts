import type { Cubic } from './cubic'
import { pointAt } from './cubic'
import type { Vec } from './point'

/** Each curve is taken for so many chords. */
const CHORDS = 12

/** With more chords than this, and once asked more often than that, they are looked up by rows. */
const MANY_CHORDS = 40 * CHORDS
const OFTEN = 3

/** Chords listed by the rows of their heights: `at` holds places in the list of chords, from `starts[row]` on. */
interface Rows {
  top: number
  perPx: number
  starts: Int32Array
  at: Int32Array
}

interface Known {
  /** Four numbers to each: x and y of its start and its end. */
  chords: Float64Array
  asked: number
  rows: Rows | null
}

const known = new WeakMap<readonly (readonly Cubic[])[], Known>()

function knownOf(contours: readonly (readonly Cubic[])[]): Known {
  let one = known.get(contours)
  if (!one) known.set(contours, (one = { chords: drawn(contours), asked: 0, rows: null }))
  return one
}

/** The chords of closed contours, four numbers each: worked out once as long as these are the same object. */
export const chordsOf = (contours: readonly (readonly Cubic[])[]): Float64Array => knownOf(contours).chords

function drawn(contours: readonly (readonly Cubic[])[]): Float64Array {
  const chords = new Float64Array(4 * CHORDS * contours.reduce((n, c) => n + c.length, 0))
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
  return chords
}

function inRows(e: Float64Array): Rows {
  let top = Infinity
  let bottom = -Infinity
  for (let i = 1; i < e.length; i += 2) {
    if (e[i]! < top) top = e[i]!
    if (e[i]! > bottom) bottom = e[i]!
  }
  const count = Math.max(1, Math.min(4096, e.length >> 5))
  const perPx = bottom > top ? count / (bottom - top) : 0
  const rowOf = (y: number): number => Math.min(count - 1, Math.floor((y - top) * perPx))
  const starts = new Int32Array(count + 1)
  for (let i = 0; i < e.length; i += 4) {
    const [a, b] = [rowOf(Math.min(e[i + 1]!, e[i + 3]!)), rowOf(Math.max(e[i + 1]!, e[i + 3]!))]
    for (let r = a; r <= b; r++) starts[r + 1]!++
  }
  for (let r = 0; r < count; r++) starts[r + 1]! += starts[r]!
  const at = new Int32Array(starts[count]!)
  const next = starts.slice()
  for (let i = 0; i < e.length; i += 4) {
    const [a, b] = [rowOf(Math.min(e[i + 1]!, e[i + 3]!)), rowOf(Math.max(e[i + 1]!, e[i + 3]!))]
    for (let r = a; r <= b; r++) at[next[r]!++] = i
  }
  return { top, perPx, starts, at }
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
  const one = knownOf(contours)
  const e = one.chords
  let winding = 0
  if (one.rows || (e.length > 4 * MANY_CHORDS && ++one.asked > OFTEN)) {
    const { top, perPx, starts, at } = (one.rows ??= inRows(e))
    if (!(y >= top)) return 0
    const row = Math.min(starts.length - 2, Math.floor((y - top) * perPx))
    for (let k = starts[row]!; k < starts[row + 1]!; k++) winding += crossed(e, at[k]!, x, y)
    return winding
  }
  for (let i = 0; i < e.length; i += 4) winding += crossed(e, i, x, y)
  return winding
}

/** How a chord counts for a point: it is crossed by the ray from there towards smaller x upwards (-1) or downwards (1), or not. */
function crossed(e: Float64Array, i: number, x: number, y: number): -1 | 0 | 1 {
  const up = e[i + 3]! > y
  if (e[i + 1]! > y === up) return 0
  const at = e[i]! + ((y - e[i + 1]!) / (e[i + 3]! - e[i + 1]!)) * (e[i + 2]! - e[i]!)
  return at < x ? (up ? -1 : 1) : 0
}
