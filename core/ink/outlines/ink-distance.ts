import Flatbush from 'flatbush'
import type { Vec } from '../../geometry/point'
import { chordsOf } from '../../geometry/winding-at'
import type { Region } from './outlines'
import { remembered } from '../../remembered'

/** The chords of a region's outline by place. */
interface Chords {
  e: Float64Array
  index: Flatbush | null
}

const chordIndexOf = remembered((region: Region): Chords => {
  const e = chordsOf(region.contours)
  const index = e.length ? new Flatbush(e.length / 4) : null
  for (let i = 0; i < e.length; i += 4)
    index!.add(
      Math.min(e[i]!, e[i + 2]!),
      Math.min(e[i + 1]!, e[i + 3]!),
      Math.max(e[i]!, e[i + 2]!),
      Math.max(e[i + 1]!, e[i + 3]!),
    )
  index?.finish()
  return { e, index }
})

/** The point of a chord nearest to `p`. */
function onChord(e: Float64Array, i: number, { x, y }: Vec): Vec {
  const [ax, ay, bx, by] = [e[i]!, e[i + 1]!, e[i + 2]!, e[i + 3]!]
  const [dx, dy] = [bx - ax, by - ay]
  const l = dx * dx + dy * dy
  const t = l > 0 ? Math.min(1, Math.max(0, ((x - ax) * dx + (y - ay) * dy) / l)) : 0
  return { x: ax + t * dx, y: ay + t * dy }
}

/** The point of a region's outline that is nearest to `p` among those no farther than `most` px that `isMeant`; null where there is none. */
export function nearestWithin(region: Region, p: Vec, most: number, isMeant: (at: Vec) => boolean): Vec | null {
  const { e, index } = chordIndexOf(region)
  let best: Vec | null = null
  let least = most
  for (const i of index?.search(p.x - most, p.y - most, p.x + most, p.y + most) ?? []) {
    const at = onChord(e, 4 * i, p)
    const d = Math.hypot(at.x - p.x, at.y - p.y)
    if (d > least || !isMeant(at)) continue
    least = d
    best = at
  }
  return best
}

/** The point of a region's outline nearest to `p`, and how far it is, px. */
export function nearestTo(region: Region, p: Vec): { at: Vec; distance: number } | null {
  const { e, index } = chordIndexOf(region)
  if (!index) return null
  let best: { at: Vec; distance: number } | null = null
  for (const i of index.neighbors(p.x, p.y, 8)) {
    const at = onChord(e, 4 * i, p)
    const d = Math.hypot(at.x - p.x, at.y - p.y)
    if (!best || d < best.distance) best = { at, distance: d }
  }
  return best
}
