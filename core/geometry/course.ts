import type { Path } from './path'
import { arcOfPath } from './known'
import { remembered } from '../remembered'

/** A path sampled at even arc lengths: places, points and left normals, px. A closed one does not repeat its first. */
export interface Course {
  /** 0..1 of the arc length. */
  at: Float64Array
  x: Float64Array
  y: Float64Array
  nx: Float64Array
  ny: Float64Array
}

/** How far apart samples lie at most, px, and how many there are. */
const APART = 9
const FEWEST = 16
const MOST = 128

/** The course of a path, sampled once as long as it stays the same object. */
export const courseOf = remembered((path: Path): Course => sampled(path))

function sampled(path: Path): Course {
  const arc = arcOfPath(path)
  const spans = Math.min(MOST, Math.max(FEWEST, Math.ceil(arc.total / APART)))
  const count = path.closed ? spans : spans + 1
  const [at, x, y, nx, ny] = Array.from({ length: 5 }, () => new Float64Array(count)) as [
    Float64Array,
    Float64Array,
    Float64Array,
    Float64Array,
    Float64Array,
  ]
  for (let i = 0; i < count; i++) {
    const s = (i / spans) * arc.total
    const p = arc.cubics.length ? arc.point(s) : path.nodes[0]!.at
    const t = arc.cubics.length ? arc.tangent(s) : null
    at[i] = i / spans
    x[i] = p.x
    y[i] = p.y
    nx[i] = t ? t.y : 0
    ny[i] = t ? -t.x : 0
  }
  return { at, x, y, nx, ny }
}
