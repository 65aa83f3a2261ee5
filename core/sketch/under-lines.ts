import type { Path } from '../geometry/path'
import { arcOfPath } from '../geometry/known'
import type { Vec } from '../geometry/point'
import { distance } from '../geometry/point'
import { rememberedBy } from '../remembered'

/** Places along lines are so many reaches apart. */
const STEP = 0.5
/** A path that lies by this share of it along lines is under them. */
const MOST = 0.7

/** Places of a path, kept for as long as it is the same. */
const placesOn = rememberedBy((path: Path, step: number): Vec[] => {
  const arc = arcOfPath(path)
  const n = Math.max(1, Math.ceil(arc.total / step))
  return Array.from({ length: n + 1 }, (_, i) => arc.point((i / n) * arc.total))
})

/** Which paths lie along lines for most of their length, within `reach` px. */
export function underLines<T extends { path: Path }>(
  offers: readonly T[],
  lines: readonly Path[],
  reach: number,
): Set<T> {
  const cells = new Map<number, Vec[]>()
  const cell = (x: number, y: number): number => (Math.floor(x / reach) + 50_000) * 100_003 + Math.floor(y / reach)
  for (const path of lines) {
    if (path.nodes.length < 2) continue
    for (const p of placesOn(path, STEP * reach)) {
      const key = cell(p.x, p.y)
      const there = cells.get(key)
      if (there) there.push(p)
      else cells.set(key, [p])
    }
  }
  const isCovered = (p: Vec): boolean => {
    for (let i = -1; i <= 1; i++)
      for (let k = -1; k <= 1; k++)
        for (const q of cells.get(cell(p.x + i * reach, p.y + k * reach)) ?? [])
          if (distance(p, q) <= reach) return true
    return false
  }
  return new Set(
    cells.size
      ? offers.filter(({ path }) => {
          const points = placesOn(path, 2 * STEP * reach)
          return points.filter(isCovered).length >= MOST * points.length
        })
      : [],
  )
}
