import type { Vec } from '../geometry/point'

/** What counts as a corner: a turn by more than `turn` radians between the points `window` places before and after. */
export interface CornerRule {
  turn: number
  window: number
}

/** Indices of the points at which a trace of evenly spaced points turns sharply: the sharpest of each cluster. */
export function cornersOf(points: readonly Vec[], { turn, window: w }: CornerRule): number[] {
  const turns = points.map((p, i) => {
    if (i < w || i + w >= points.length) return 0
    const a = points[i - w]!
    const b = points[i + w]!
    const inX = p.x - a.x
    const inY = p.y - a.y
    const outX = b.x - p.x
    const outY = b.y - p.y
    return Math.abs(Math.atan2(inX * outY - inY * outX, inX * outX + inY * outY))
  })
  return turns.flatMap((t, i) => {
    if (t < turn) return []
    for (let k = i - w; k <= i + w; k++) if (turns[k]! > t || (turns[k] === t && k < i)) return []
    return [i]
  })
}
