import type { Path } from './path'
import type { Cubic } from './cubic'
import { subcurve } from './cubic'
import { arcOfPath } from './known'
import { pathOfCubics } from './path'

/** The cubics of a path between two arc lengths, px, from < to. */
export function cubicsBetween(path: Path, from: number, to: number): Cubic[] {
  const arc = arcOfPath(path)
  if (!(to > from) || !arc.cubics.length) return []
  const a = arc.locate(from)
  const b = arc.locate(to)
  const out: Cubic[] = []
  for (let i = a.segment; i <= b.segment; i++) {
    const t0 = i === a.segment ? a.t : 0
    const t1 = i === b.segment ? b.t : 1
    if (t1 > t0) out.push(subcurve(arc.cubics[i]!, t0, t1))
  }
  return out
}

/**
 * The open path between two shares 0..1 of a path's arc length; on a closed path, from > to goes round by way of its
 * first node. Null where nothing lies between.
 */
export function partOfPath(path: Path, from: number, to: number): Path | null {
  const { total } = arcOfPath(path)
  const cubics =
    from > to && path.closed
      ? [...cubicsBetween(path, from * total, total), ...cubicsBetween(path, 0, to * total)]
      : cubicsBetween(path, from * total, to * total)
  return cubics.length ? pathOfCubics(cubics, false) : null
}
