import type { Path } from '../geometry/path'
import { arcOfPath } from '../geometry/known'
import type { Vec } from '../geometry/point'
import type { Field } from './grey-image'
import { distanceToPencil } from './pencil-distance'
import type { PencilMap } from './pencil-map'

/** A stretch of a line that lies off the pencil. */
export interface Stray {
  points: Vec[]
  /** The farthest of it, px of the page. */
  far: number
}

/** Where a line lies off the pencil. */
export interface LineStrays {
  strays: Stray[]
  /** Px of the line, and of those that lie off. */
  length: number
  off: number
}

/** Places along a line are so far apart, px of the page. */
const STEP = 2

/** The stretches of a line's centreline that lie farther than `from` px of the page from the pencil. */
export function straysOf(path: Path, pencil: PencilMap, distances: Field, from: number): LineStrays {
  if (path.nodes.length < 2) return { strays: [], length: 0, off: 0 }
  const arc = arcOfPath(path)
  const n = Math.max(1, Math.ceil(arc.total / STEP))
  const strays: Stray[] = []
  let open: Stray | null = null
  let off = 0
  for (let i = 0; i <= n; i++) {
    const p = arc.point((i / n) * arc.total)
    const d = distanceToPencil(distances, pencil, p)
    if (d === null || d <= from) {
      open = null
      continue
    }
    if (!open) strays.push((open = { points: [], far: 0 }))
    open.points.push(p)
    open.far = Math.max(open.far, d)
    off++
  }
  return { strays: strays.filter((s) => s.points.length > 1), length: arc.total, off: (off / (n + 1)) * arc.total }
}
